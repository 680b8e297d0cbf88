<script setup lang="ts">
import { computed } from 'vue'

/** A state by its shape first, its colour second: tick, diamond, octagon, dashed ring. */
const props = defineProps<{ state: string; label?: string }>()

const shape = computed(() => {
  if (['pass', 'in-order', 'genuine', 'current', 'signed'].includes(props.state)) return 'pass'
  if (['pass-uncertain', 'fail-uncertain', 'temporary-repair', 'superseded'].includes(props.state))
    return 'marginal'
  if (['fail', 'failed', 'void', 'overdue', 'unknown', 'stopped'].includes(props.state))
    return 'fail'
  return 'open'
})
</script>

<template>
  <span class="state" :class="shape">
    <svg
      viewBox="0 0 20 20"
      :aria-hidden="label ? 'true' : undefined"
      :role="label ? undefined : 'img'"
      :aria-label="label ? undefined : state"
    >
      <template v-if="shape === 'pass'">
        <circle cx="10" cy="10" r="8" />
        <path d="M6 10.4 9 13.2 14 7.2" />
      </template>
      <path
        v-else-if="shape === 'marginal'"
        d="M10 1.6 18.4 10 10 18.4 1.6 10Z M10 6.2V11 M10 13.4V13.9"
      />
      <path
        v-else-if="shape === 'fail'"
        d="M6.7 2h6.6L18 6.7v6.6L13.3 18H6.7L2 13.3V6.7Z M7 7l6 6 M13 7l-6 6"
      />
      <circle v-else cx="10" cy="10" r="8" stroke-dasharray="3.2 2.4" />
    </svg>
    <span v-if="label">{{ label }}</span>
  </span>
</template>

<style scoped>
.state {
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
}

svg {
  width: 1.2em;
  height: 1.2em;
  flex: none;
  fill: none;
  stroke: currentColor;
  stroke-width: 1.9;
}

.pass {
  color: var(--pass);
}

.marginal {
  color: var(--warn);
}

.fail {
  color: var(--fail);
}

.open {
  color: var(--ink-soft);
}
</style>
