<script setup lang="ts">
import { computed } from 'vue'

/** A ring of bolts: numbered, those that are done sunk, the next one lit. */
const props = defineProps<{
  count: number
  /** The bolt that comes next; null when all are done. */
  next: number | null
  done: readonly number[]
  /** Small words in the middle: the pass, the round. */
  caption: string
}>()
const spots = computed(() =>
  Array.from({ length: props.count }, (_, n) => {
    const angle = (2 * Math.PI * n) / props.count - Math.PI / 2
    return { bolt: n + 1, x: 120 + 88 * Math.cos(angle), y: 120 + 88 * Math.sin(angle) }
  }),
)
</script>

<template>
  <svg
    class="bolts"
    viewBox="0 0 240 240"
    role="img"
    :aria-label="`Bolt circle, next bolt ${next ?? 'none'}`"
  >
    <circle cx="120" cy="120" r="112" class="flange" />
    <circle cx="120" cy="120" r="52" class="flange" />
    <g
      v-for="s in spots"
      :key="s.bolt"
      :class="{ next: s.bolt === next, done: done.includes(s.bolt) }"
    >
      <circle :cx="s.x" :cy="s.y" :r="count > 20 ? 9 : 15" />
      <text :x="s.x" :y="s.y + 5">{{ s.bolt }}</text>
    </g>
    <text x="120" y="116" class="big">{{ next ?? '✓' }}</text>
    <text x="120" y="138" class="sub">{{ caption }}</text>
  </svg>
</template>

<style scoped>
.bolts {
  width: 240px;
  max-width: 100%;
}

.flange {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}

g circle {
  fill: var(--paper-raised);
  stroke: var(--ink);
  stroke-width: 2;
}

g.done circle {
  fill: var(--paper-sunk);
}

g.next circle {
  fill: var(--blue);
  stroke: var(--blue);
}

g.next text {
  fill: var(--blue-on);
}

text {
  font-family: var(--bs-font-monospace);
  font-size: 13px;
  text-anchor: middle;
  fill: var(--ink);
}

.big {
  font-size: 34px;
  font-weight: 700;
}
</style>
