<script setup lang="ts">
import type { DrawnElement } from './geometry'

/** A check, relief, air inlet or meter. `running` lets it drip, `lifted` shows it off its seat. */
defineProps<{
  element: DrawnElement
  running?: boolean
  lifted?: boolean
  turning?: boolean
  small?: boolean
}>()
</script>

<template>
  <g
    :transform="`translate(${element.x} ${element.y})${small ? ' scale(0.62)' : ''}`"
    class="part"
    :class="{ lifted }"
  >
    <template v-if="element.role === 'check'">
      <path class="body" d="M-32-30h64v60h-64z" />
      <path class="works" d="M-12-18v36M-6 0h6l4-9 6 18 6-18 4 9h8" />
      <path class="seat" d="M-16-18v12M-16 6v12" />
    </template>
    <template v-else-if="element.role === 'relief'">
      <path class="body" d="M-18 14v20h-14v26h64v-26h-14v-20z" />
      <path class="works" :d="lifted ? 'M-22 42h44M0 42v10' : 'M-22 36h44M0 36v10'" />
      <path class="works" d="M-6 60v10M6 60v10" />
      <g v-if="running" class="drops">
        <path
          v-for="n in 3"
          :key="n"
          :d="`M0 ${70 + n * 9}c-4 6-4 9 0 9s4-3 0-9z`"
          :class="`drop-${n}`"
        />
      </g>
    </template>
    <template v-else-if="element.role === 'air-inlet'">
      <path class="body" d="M-28-14v-34h56v34" />
      <path class="works" :d="lifted ? 'M-20-18h40M0-18v-10' : 'M-20-44h40M0-44v16'" />
      <path class="works" d="M-34-52c0-22 68-22 68 0" />
      <g v-if="running" class="drops">
        <path d="M-36-44c-4 6-4 9 0 9s4-3 0-9z" class="drop-1" />
        <path d="M36-44c-4 6-4 9 0 9s4-3 0-9z" class="drop-2" />
      </g>
    </template>
    <template v-else-if="element.role === 'meter'">
      <circle class="body" r="26" />
      <path class="works" :class="{ turning }" d="M0 0v-17M0 0l15 9M0 0l-15 9" />
    </template>
  </g>
</template>

<style scoped>
.body {
  fill: var(--paper-raised);
  stroke: var(--ink);
  stroke-width: 2.6;
}

.works {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.2;
}

.seat {
  stroke: var(--ink);
  stroke-width: 4;
}

.drops path {
  fill: var(--flow);
  animation: fall 0.9s linear infinite;
}

.drop-2 {
  animation-delay: 0.3s !important;
}

.drop-3 {
  animation-delay: 0.6s !important;
}

.turning {
  animation: turn 1.6s linear infinite;
}

@keyframes fall {
  from {
    transform: translateY(-5px);
    opacity: 1;
  }

  to {
    transform: translateY(7px);
    opacity: 0.2;
  }
}

@keyframes turn {
  to {
    transform: rotate(360deg);
  }
}
</style>
