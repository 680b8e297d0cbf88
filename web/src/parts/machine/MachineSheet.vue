<script setup lang="ts">
import {
  BALLOON,
  type DrawnPart,
  layOut,
  type Machine,
  type Material,
  type Point,
  type TakenOff,
  type View,
} from '@uvanta/core/machine'
import { computed, useId } from 'vue'

/** A machine in section, closed or pulled apart; each part under the number that every list shares. */
const props = defineProps<{
  machine: Machine
  options: readonly string[]
  view: View
  /** Parts that are at hand. */
  lit?: readonly string[]
  /** Parts that are off, though the rest stands closed. */
  taken?: TakenOff
  /** Its numbers can be pressed, by keyboard too, where no list beside it does that. */
  pressable?: boolean
  /** Whether what is at hand comes off or goes on. */
  moves?: 'off' | 'on' | undefined
}>()
const emit = defineEmits<{ pick: [part: string] }>()
const sheet = computed(() => layOut(props.machine, props.options, props.view, props.taken))
const viewBox = computed(() => {
  const { from, size } = sheet.value
  return `${from.x} ${from.y} ${size.width} ${size.height}`
})
/** Drawn no larger than line-work is meant to be, and never so small that its numbers cannot be read. */
const bounds = computed(() => ({
  maxWidth: `${Math.round(sheet.value.size.width * 1.15)}px`,
  minWidth: `${Math.round(sheet.value.size.width * 0.83)}px`,
}))

const id = useId()
const PLAIN: readonly Material[] = ['rubber', 'fibre']
const fill = (material: Material) =>
  PLAIN.includes(material) ? undefined : `url(#${id}-${material})`
const list = (points: readonly Point[]) => points.map((p) => `${p.x},${p.y}`).join(' ')
const isLit = (part: string) => props.lit?.includes(part) ?? false
/** An arrow beside what is at hand: the way in which it leaves, or goes back. */
const arrows = computed(() =>
  !props.moves
    ? []
    : sheet.value.parts
        .filter((p) => isLit(p.id) && (p.way.x !== 0 || p.way.y !== 0))
        .slice(0, 1)
        .map((p) => arrowBeside(p, props.moves === 'off')),
)
const words = computed(() =>
  props.view === 'closed'
    ? `${props.machine.title} in section, closed`
    : `${props.machine.title} pulled apart, in the order in which it comes off`,
)
</script>

<template>
  <svg
    class="machine"
    :viewBox="viewBox"
    :style="bounds"
    :role="pressable ? 'group' : 'img'"
    :aria-label="
      pressable ? words : `${words}. The parts stand in the list under the same numbers.`
    "
  >
    <defs>
      <pattern :id="`${id}-iron`" v-bind="hatch(8, 45)"><path d="M0 0V8" /></pattern>
      <pattern :id="`${id}-steel`" v-bind="hatch(5, -45)"><path d="M0 0V5" /></pattern>
      <pattern :id="`${id}-brass`" v-bind="hatch(10, -45)"><path d="M0 0V10M3 0V10" /></pattern>
      <pattern :id="`${id}-aluminium`" v-bind="hatch(10, 45)"><path d="M0 0V10M3 0V10" /></pattern>
      <pattern :id="`${id}-plastic`" v-bind="hatch(8, 45)"><path d="M0 0V8M0 0H8" /></pattern>
    </defs>
    <g
      v-for="p in sheet.parts"
      :key="p.id"
      class="part"
      :class="{ lit: isLit(p.id), rest: lit && !isLit(p.id) }"
      @click="emit('pick', p.id)"
    >
      <template v-for="(s, n) in p.shapes" :key="n">
        <circle
          v-if="s.form === 'dot'"
          :cx="s.at.x"
          :cy="s.at.y"
          :r="s.radius"
          :class="s.material"
        />
        <polyline v-else-if="s.form === 'wire'" class="wire" :points="list(s.points)" />
        <template v-else>
          <polygon class="ground" :points="list(s.points)" />
          <polygon
            class="solid"
            :class="s.material"
            :fill="fill(s.material)"
            :points="list(s.points)"
          />
        </template>
      </template>
    </g>
    <path v-for="(d, n) in arrows" :key="`arrow-${n}`" class="arrow" :d="d" />
    <path
      v-for="([a, b], n) in sheet.axes"
      :key="n"
      class="axis"
      :d="`M${a.x} ${a.y}L${b.x} ${b.y}`"
    />
    <g
      v-for="p in sheet.parts"
      :key="`no-${p.id}`"
      class="number"
      :class="{ lit: isLit(p.id) }"
      v-bind="
        pressable ? { role: 'button', tabindex: 0, 'aria-label': `${p.number}, ${p.title}` } : {}
      "
      @click="emit('pick', p.id)"
      @keydown.enter.prevent="emit('pick', p.id)"
      @keydown.space.prevent="emit('pick', p.id)"
    >
      <path :d="`M${p.balloon.at.x} ${p.balloon.at.y}L${p.balloon.to.x} ${p.balloon.to.y}`" />
      <circle class="end" :cx="p.balloon.to.x" :cy="p.balloon.to.y" r="2.5" />
      <circle :cx="p.balloon.at.x" :cy="p.balloon.at.y" :r="BALLOON" />
      <text :x="p.balloon.at.x" :y="p.balloon.at.y" dy="0.36em">{{ p.number }}</text>
    </g>
  </svg>
</template>

<script lang="ts">
const LONG = 64
const BARB = 13

/** A line with its barbs, beside a part, along the way in which it leaves. */
function arrowBeside({ shapes, way }: DrawnPart, leaving: boolean): string {
  const points = shapes.flatMap((s) => (s.form === 'dot' ? [s.at] : [...s.points]))
  const along = (p: Point) => p.x * way.x + p.y * way.y
  const across = (p: Point) => p.x * -way.y + p.y * way.x
  const side = Math.max(...points.map(across)) + 16
  const middle = (Math.max(...points.map(along)) + Math.min(...points.map(along))) / 2
  const at = (a: number, c: number) => `${a * way.x - c * way.y} ${a * way.y + c * way.x}`
  const [from, to] = leaving
    ? [middle - LONG / 2, middle + LONG / 2]
    : [middle + LONG / 2, middle - LONG / 2]
  const back = leaving ? to - BARB : to + BARB
  return `M${at(from, side)}L${at(to, side)}M${at(back, side - BARB * 0.6)}L${at(to, side)}L${at(back, side + BARB * 0.6)}`
}

/** Lines of a hatch, so far apart and so slanted. */
const hatch = (width: number, degrees: number) => ({
  width,
  height: width,
  patternUnits: 'userSpaceOnUse',
  patternTransform: `rotate(${degrees})`,
})
</script>

<style scoped>
.machine {
  display: block;
  width: 100%;
}

pattern path {
  stroke: var(--ink-soft);
  stroke-width: 1;
  fill: none;
}

.part {
  cursor: pointer;
}

.ground {
  fill: var(--paper-raised);
}

.solid,
circle {
  stroke: var(--ink);
  stroke-width: 2;
}

circle {
  fill: var(--paper-raised);
}

.rubber {
  fill: var(--ink);
}

.fibre {
  fill: var(--ink-soft);
}

.wire {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
}

.lit .solid,
.lit circle,
.lit .wire {
  stroke: var(--blue);
  stroke-width: 3.5;
}

.rest {
  opacity: 0.45;
}

.arrow {
  fill: none;
  stroke: var(--blue);
  stroke-width: 5;
}

.axis {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 1;
  stroke-dasharray: 14 4 2 4;
}

.number {
  cursor: pointer;
}

.number path,
.number circle {
  fill: var(--paper);
  stroke: var(--ink-soft);
  stroke-width: 1;
}

.number .end {
  fill: var(--ink-soft);
}

.number text {
  fill: var(--ink);
  font-size: 17px;
  text-anchor: middle;
}

.number.lit circle {
  fill: var(--blue);
  stroke: var(--blue);
}

.number.lit text {
  fill: var(--paper-raised);
}

@media print {
  /* Paper does not scroll. */
  .machine {
    min-width: 0 !important;
    max-height: 225mm;
  }
}
</style>
