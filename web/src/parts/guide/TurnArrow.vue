<script setup lang="ts">
import type { Turn } from '@uvanta/core/guide'

/** Which way round, seen from the hand that turns. */
defineProps<{ way: Turn['way'] }>()
</script>

<template>
  <svg viewBox="0 0 48 48" class="arrow" role="img" :aria-label="way">
    <g :transform="way === 'clockwise' ? undefined : 'matrix(-1 0 0 1 48 0)'">
      <path d="M10 30a16 16 0 1 1 26 4" />
      <path d="M43 27 36 35 27 31" />
    </g>
    <circle cx="24" cy="24" r="3" />
  </svg>
</template>

<style scoped>
.arrow {
  width: 44px;
  height: 44px;
  flex: none;
  fill: none;
  stroke: var(--blue);
  stroke-width: 3.4;
  stroke-linecap: round;
  stroke-linejoin: round;
}
</style>
