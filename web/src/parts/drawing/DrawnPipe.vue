<script setup lang="ts">
import type { ZoneState } from '@uvanta/core/assembly'
import type { DrawnPlace } from './geometry'

/** A water-holding space: filled while live, hatched while trapped, empty when vented. */
defineProps<{
  place: DrawnPlace
  state: ZoneState | null
  /** “65”, or nothing. */
  pressure?: string
}>()
</script>

<template>
  <g :class="state ?? 'plain'" class="pipe">
    <rect v-for="(r, n) in place.water" :key="n" v-bind="r" class="water" />
    <path class="wall" :d="place.walls" />
    <text v-if="pressure" :x="place.text.x" :y="place.text.y" class="pressure">{{ pressure }}</text>
  </g>
</template>

<style scoped>
.water {
  fill: none;
}

.live .water {
  fill: var(--water-live);
}

.trapped .water {
  fill: url('#trapped');
}

.wall {
  stroke: var(--ink);
  stroke-width: 2.6;
  fill: none;
}

.pressure {
  font-family: var(--bs-font-monospace);
  font-size: 13px;
  text-anchor: middle;
  fill: var(--ink-soft);
}
</style>
