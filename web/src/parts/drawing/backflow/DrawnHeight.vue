<script setup lang="ts">
import { computed } from 'vue'

/** Height of the gauge above the port, on a scale that can be pressed; counts where a hose is open to air. */
const props = defineProps<{ x: number; y: number; mm: number }>()
const emit = defineEmits<{ pick: [mm: number] }>()

const TICKS = [600, 300, 0, -300] as const
/** Units of the drawing per millimetre. */
const SCALE = 0.16
const at = (mm: number) => props.y - mm * SCALE
const shown = computed(() => Math.min(700, Math.max(-400, props.mm)))
</script>

<template>
  <g class="height">
    <text :x="x" :y="at(600) - 26" class="title">gauge above port, mm</text>
    <path class="scale" :d="`M${x} ${at(600)}V${at(-300)}`" />
    <path class="port" :d="`M${x - 60} ${at(0)}H${x + 8}`" />
    <g
      v-for="t in TICKS"
      :key="t"
      class="tick"
      role="button"
      tabindex="0"
      :aria-label="`Gauge ${t} mm above the port`"
      @click="emit('pick', t)"
      @keydown.enter.prevent="emit('pick', t)"
      @keydown.space.prevent="emit('pick', t)"
    >
      <rect :x="x - 24" :y="at(t) - 24" width="84" height="48" class="target" />
      <path :d="`M${x - 7} ${at(t)}h14`" class="scale" />
      <text :x="x + 16" :y="at(t) + 5">{{ t }}</text>
    </g>
    <rect class="gauge" :x="x - 12" :y="at(shown) - 8" width="24" height="16" />
  </g>
</template>

<style scoped>
.scale {
  stroke: var(--ink);
  stroke-width: 2;
}

.port {
  stroke: var(--flow);
  stroke-width: 2;
  stroke-dasharray: 4 4;
}

.gauge {
  fill: var(--blue);
  pointer-events: none;
}

.target {
  fill: transparent;
}

.tick {
  cursor: pointer;
}

.tick:focus-visible {
  outline: 3px solid var(--blue);
}

text {
  fill: var(--ink);
  font-family: var(--bs-font-monospace);
  font-size: 14px;
}

.title {
  font-family: inherit;
  fill: var(--ink-soft);
  text-anchor: middle;
}
</style>
