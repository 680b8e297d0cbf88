<script setup lang="ts">
import type { Facing, PartShape } from '@uvanta/core/guide'

/** A part as line-work, by its shape; an arrow says which way it goes. */
defineProps<{ shape: PartShape; title: string; facing?: Facing | undefined; gone?: boolean }>()

/** Outlines in a box of 64 × 64, seen so that what can be mistaken is seen. */
const HEAVY: Readonly<Record<PartShape, string>> = {
  ring: 'M32 10a22 22 0 1 0 .1 0zM32 18a14 14 0 1 1-.1 0z',
  disc: 'M10 26h44v14H10z',
  plate: 'M8 27h48v10H8z',
  diaphragm: 'M6 34c8 0 8-10 16-10h20c8 0 8 10 16 10',
  spring: 'M14 56 50 50 14 42 50 36 14 28 50 22 14 14 50 8',
  cover: 'M8 46h48v-8H46V22H18v16H8z',
  piston: 'M14 30h36v20H14zM28 10h8v20h-8z',
  stem: 'M28 6h8v44l-4 8-4-8z',
  tube: 'M18 8v48M46 8v48M18 8h28M18 56h28',
  body: 'M12 12h40v40H12z',
  seat: 'M8 44h16l4-16h8l4 16h16',
  clip: 'M44 14a22 22 0 1 1-24 0',
  pin: 'M12 26h40v12H12zM12 26v12',
  'lip-seal': 'M10 20h12l8 24h24V20H42',
  check: 'M8 16h48v32H8z',
}
const LIGHT: Readonly<Partial<Record<PartShape, string>>> = {
  disc: 'M10 33h44M20 26v14M44 26v14',
  plate: 'M16 27v10M48 27v10',
  diaphragm: 'M6 34v6M58 34v6M22 24v-5M42 24v-5',
  cover: 'M13 38v8M51 38v8M26 22v-6h12v6',
  piston: 'M14 37h36M14 43h36',
  stem: 'M28 14h8M28 20h8',
  tube: 'M24 8v48M40 8v48',
  body: 'M20 20h24v24H20z',
  seat: 'M32 44v12',
  pin: 'M18 26v12M46 26v12',
  check: 'M18 20v24M24 32h6l4-8 5 16 4-8h6',
}
const ARROWS: Readonly<Record<Facing, string>> = {
  up: 'M84 52V12m-8 10 8-10 8 10',
  down: 'M84 12v40m-8-10 8 10 8-10',
  left: 'M100 32H68m10-8-10 8 10 8',
  right: 'M68 32h32m-10-8 10 8-10 8',
  opposite: 'M84 30V10m-6 8 6-8 6 8M84 34v20m-6-8 6 8 6-8',
  'in-line': 'M70 24h28M70 40h28M84 24v16',
}
</script>

<template>
  <svg
    :viewBox="facing ? '0 0 108 64' : '0 0 64 64'"
    class="shape"
    :class="{ absent: gone, wide: facing }"
    role="img"
    :aria-label="facing ? `${title}, ${facing}` : title"
  >
    <path class="heavy" :d="HEAVY[shape]" fill-rule="evenodd" />
    <path v-if="LIGHT[shape]" class="light" :d="LIGHT[shape]" />
    <path v-if="facing" class="arrow" :d="ARROWS[facing]" />
  </svg>
</template>

<style scoped>
.shape {
  width: 44px;
  height: 44px;
  flex: none;
}

.wide {
  width: 150px;
  height: 88px;
}

.heavy {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.6;
  stroke-linejoin: round;
}

.light {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 1.4;
}

.arrow {
  fill: none;
  stroke: var(--blue);
  stroke-width: 4;
}

.absent .heavy {
  stroke-dasharray: 4 3;
  stroke: var(--ink-soft);
}
</style>
