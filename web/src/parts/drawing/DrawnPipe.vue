<script setup lang="ts">
import type { ZoneState } from '@uvanta/core/assembly'
import { computed } from 'vue'
import type { DrawnPlace } from './geometry'

/** A water-holding space: filled while live, hatched while trapped, empty when vented. */
const props = defineProps<{
  place: DrawnPlace
  state: ZoneState | null
  /** “65 psi”, or nothing. */
  pressure?: string
  /** Half the width of the pipe. */
  half: number
}>()

const rects = computed(() =>
  props.place.runs.map(([a, b]) => ({
    x: Math.min(a.x, b.x) - (a.x === b.x ? props.half : 0),
    y: Math.min(a.y, b.y) - (a.y === b.y ? props.half : 0),
    width: Math.abs(a.x - b.x) + (a.x === b.x ? 2 * props.half : 0),
    height: Math.abs(a.y - b.y) + (a.y === b.y ? 2 * props.half : 0),
    flat: a.y === b.y,
  })),
)
</script>

<template>
  <g :class="state ?? 'plain'" class="pipe">
    <rect
      v-for="(r, n) in rects"
      :key="n"
      :x="r.x"
      :y="r.y"
      :width="r.width"
      :height="r.height"
      class="water"
    />
    <path
      v-for="(r, n) in rects"
      :key="`w${n}`"
      class="wall"
      :d="
        r.flat
          ? `M${r.x} ${r.y}h${r.width}M${r.x} ${r.y + r.height}h${r.width}`
          : `M${r.x} ${r.y}v${r.height}M${r.x + r.width} ${r.y}v${r.height}`
      "
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
