<script setup lang="ts">
import { computed } from 'vue'
import type { DrawingProps } from '../live'
import { lineWork } from './lineWork'

/** A machine in section as line-work: its body, what moves in it, what seals, what pushes. */
const props = defineProps<DrawingProps>()
const strokes = computed(() => lineWork[props.kind] ?? [])
</script>

<template>
  <svg class="drawing" viewBox="0 0 320 220" role="img" :aria-label="`Drawing of ${tag}, ${kind}`">
    <path v-for="(s, n) in strokes" :key="n" :d="s.d" :class="s.as" />
  </svg>
</template>

<style scoped>
.drawing {
  width: 100%;
  max-width: 26rem;
  display: block;
}

path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.6;
}

.line {
  stroke-width: 1.8;
}

.moves {
  stroke: var(--blue);
  stroke-width: 3.4;
}

.seal {
  stroke: var(--flow);
  stroke-width: 5;
}

.spring {
  stroke: var(--ink-soft);
  stroke-width: 1.8;
}
</style>
