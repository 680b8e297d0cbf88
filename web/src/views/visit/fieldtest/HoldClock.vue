<script setup lang="ts">
import { toSi } from '@uvanta/core/quantity'
import { useIntervalFn } from '@vueuse/core'
import { computed, ref } from 'vue'

/** How long a pressure has been held, of what the step wants. */
const props = defineProps<{
  hold: { readonly value: string; readonly unit: string }
  heldS: () => number
}>()
const TICK_MS = 500
const held = ref(0)
useIntervalFn(() => (held.value = props.heldS()), TICK_MS, { immediateCallback: true })

const wanted = computed(() => toSi({ dimension: 'time', ...props.hold }))
const full = computed(() => held.value >= wanted.value)
const clock = (seconds: number) =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`
</script>

<template>
  <p class="hold" role="timer" :class="{ full }">
    <span class="mono">{{ clock(Math.min(held, wanted)) }}</span> of
    <span class="mono">{{ clock(wanted) }}</span>
    {{ full ? 'held – read it now' : 'held' }}
    <progress :value="held" :max="wanted" aria-hidden="true" />
  </p>
</template>

<style scoped>
.hold {
  font-size: 1.375rem;
  margin: 0 0 0.6rem;
}

progress {
  display: block;
  width: 100%;
  max-width: 24rem;
  height: 10px;
  accent-color: var(--blue);
}

.full {
  color: var(--pass);
  font-weight: 600;
}
</style>
