<script setup lang="ts">
/** Name of who is signed in; on a phone the initials. */
import { computed } from 'vue'
import { useSession } from '@/stores/session'

const session = useSession()
const initials = computed(() =>
  (session.person?.name ?? '')
    .split(' ')
    .flatMap((w) => w[0] ?? [])
    .join(''),
)
</script>

<template>
  <span class="brief" aria-hidden="true">{{ initials }}</span>
  <span class="more">{{ session.person?.name }}</span>
</template>
