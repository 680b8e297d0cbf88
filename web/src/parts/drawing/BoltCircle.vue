<script setup lang="ts">
import type { FastenerLayout } from '@uvanta/core/guide'
import { computed } from 'vue'
import { boltSpots } from './boltSpots'

/** Bolts where they stand, numbered; those that are done sunk, the next one lit. */
const props = defineProps<{
  count: number
  /** The bolt that comes next; null when all are done. */
  next: number | null
  done: readonly number[]
  /** Small words in the middle: the pass, the round. */
  caption: string
  /** How they stand; round a circle when absent. */
  layout?: FastenerLayout
}>()
const spots = computed(() => boltSpots(props.count, props.layout ?? 'circle'))
</script>

<template>
  <svg
    class="bolts"
    viewBox="0 0 240 240"
    role="img"
    :aria-label="`Bolt ${layout ?? 'circle'}, next bolt ${next ?? 'none'}`"
  >
    <template v-if="!layout || layout === 'circle'">
      <circle cx="120" cy="120" r="112" class="flange" />
      <circle cx="120" cy="120" r="52" class="flange" />
    </template>
    <template v-else>
      <rect
        x="8"
        y="48"
        width="224"
        height="144"
        :rx="layout === 'oblong' ? 72 : 10"
        class="flange"
      />
      <rect
        x="64"
        y="92"
        width="112"
        height="56"
        :rx="layout === 'oblong' ? 28 : 6"
        class="flange"
      />
    </template>
    <g
      v-for="s in spots"
      :key="s.bolt"
      :class="{ next: s.bolt === next, done: done.includes(s.bolt) }"
    >
      <circle :cx="s.x" :cy="s.y" :r="count > 20 ? 9 : 15" />
      <text :x="s.x" :y="s.y + 5">{{ s.bolt }}</text>
    </g>
    <text x="120" y="124" class="big">{{ next ?? '✓' }}</text>
    <text x="120" y="142" class="sub">{{ caption }}</text>
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
  font-size: 14px;
  text-anchor: middle;
  fill: var(--ink);
}

.big {
  font-size: 34px;
  font-weight: 700;
}
</style>
