<script lang="ts">
/** Where a space lies on the sheet: what fills it, its walls, where its pressure is written. */
export interface PipeGeometry {
  readonly id: string
  readonly water: readonly {
    readonly x: number
    readonly y: number
    readonly width: number
    readonly height: number
  }[]
  readonly walls: string
  readonly text: { readonly x: number; readonly y: number }
}
</script>

<script setup lang="ts">
import type { SpaceState } from '@uvanta/core/pressure'

/** A water-holding space: filled while live, hatched while trapped, empty when vented, ticked when proved. */
defineProps<{
  place: PipeGeometry
  state: SpaceState | null
  /** “65”, or nothing. */
  pressure?: string
}>()
</script>

<template>
  <g :class="state ?? 'plain'" class="pipe">
    <rect v-for="(r, n) in place.water" :key="n" v-bind="r" class="water" />
    <path class="wall" :d="place.walls" />
    <path
      v-if="state === 'proved'"
      class="tick"
      :d="`M${place.text.x - 7} ${place.text.y + 22}l5 5 9-11`"
    />
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

.tick {
  fill: none;
  stroke: var(--pass);
  stroke-width: 3;
}

.wall {
  stroke: var(--ink);
  stroke-width: 2.6;
  fill: none;
}

.pressure {
  font-family: var(--bs-font-monospace);
  font-size: 14px;
  text-anchor: middle;
  fill: var(--ink-soft);
}
</style>
