<script setup lang="ts">
import type { RouteLocationRaw } from 'vue-router'

/** A link that looks like a button: to a view of ours, or to a file. */
defineProps<{
  to?: RouteLocationRaw
  href?: string
  variant?: 'primary' | 'outline-primary' | 'link'
  large?: boolean
}>()
</script>

<template>
  <RouterLink
    v-if="to"
    :to="to"
    class="btn"
    :class="[`btn-${variant ?? 'link'}`, { 'btn-lg': large }]"
    ><slot
  /></RouterLink>
  <a v-else :href="href" class="btn" :class="[`btn-${variant ?? 'link'}`, { 'btn-lg': large }]"
    ><slot
  /></a>
</template>
