<script setup lang="ts">
import type { Opening } from '@uvanta/core/apparatus'
import { computed } from 'vue'

/** A valve or cock: a circle with a lever that lies along the flow when it is open. Pressing turns it. */
const props = defineProps<{
  x: number
  y: number
  label: string
  opening: Opening
  size: number
  /** Angle of the passage: 0 along the pipe, 90 for a cock that stands on it. */
  along?: number
  pressable?: boolean
  /** The step wants it. */
  wanted?: boolean
}>()
const emit = defineEmits<{ turn: [] }>()

const ANGLES: Readonly<Record<Opening, number>> = { open: 0, half: 45, crack: 72, shut: 90 }
const WORDS: Readonly<Record<Opening, string>> = {
  open: 'open',
  half: 'half open',
  crack: 'cracked open',
  shut: 'shut',
}
const turned = computed(() => `rotate(${(props.along ?? 0) + ANGLES[props.opening]})`)
</script>

<template>
  <g
    class="valve"
    :class="[opening, { pressable, wanted }]"
    :transform="`translate(${x} ${y})`"
    :role="pressable ? 'button' : undefined"
    :tabindex="pressable ? 0 : undefined"
    :aria-label="pressable ? `${label}, ${WORDS[opening]}. Turn it` : undefined"
    @click="pressable && emit('turn')"
    @keydown.enter.prevent="pressable && emit('turn')"
    @keydown.space.prevent="pressable && emit('turn')"
  >
    <rect v-if="pressable" class="target" x="-24" y="-24" width="48" height="48" />
    <circle v-if="wanted" class="ring" :r="size + 7" />
    <circle class="body" :r="size" />
    <g class="lever" :transform="turned">
      <path :d="`M${-size * 0.72} 0H${size * 0.72}`" />
    </g>
  </g>
</template>

<style scoped>
.body {
  fill: var(--paper-raised);
  stroke: var(--ink);
  stroke-width: 2.6;
}

.lever {
  stroke: var(--ink);
  stroke-width: 5;
  transition: transform 0.35s ease;
}

.open .lever,
.half .lever,
.crack .lever {
  stroke: var(--flow);
}

.ring {
  fill: none;
  stroke: var(--blue);
  stroke-width: 2;
  stroke-dasharray: 4 3;
}

.target {
  fill: transparent;
}

.pressable {
  cursor: pointer;
}

.pressable:hover .body {
  fill: var(--blue-wash);
}

.pressable:focus-visible {
  outline: none;
}

.pressable:focus-visible .body {
  stroke: var(--blue);
  stroke-width: 5;
}
</style>
