<script setup lang="ts">
import { type Opening, restOpening } from '@uvanta/core/apparatus'
import type { IsolationSite, SpaceState } from '@uvanta/core/pressure'
import { computed } from 'vue'
import DrawingSheet from './DrawingSheet.vue'
import DrawnValve from './DrawnValve.vue'
import { BOX, WIDTH, zoneLayout } from './zoneLayout'

/** Equipment that has no drawing of its own: its spaces, shutoffs and vents, flow from left to right. */
const props = defineProps<{
  site: IsolationSite
  tag: string
  openings: Readonly<Record<string, Opening>>
  states: Readonly<Record<string, SpaceState>>
  wanted: readonly string[]
  pressable: boolean
}>()
const emit = defineEmits<{ turn: [element: string] }>()

const layout = computed(() => zoneLayout(props.site))
/** Where across the sheet the step turns something. */
const middle = computed(() => {
  const xs = layout.value.valves.filter((v) => props.wanted.includes(v.id)).map((v) => v.x)
  return xs.length > 0 ? (Math.min(...xs) + Math.max(...xs)) / 2 : null
})
const stateOf = (space: string): SpaceState => props.states[space] ?? 'live'
const opening = (id: string, role: string): Opening =>
  props.openings[id] ?? restOpening(role === 'shutoff' ? 'shutoff' : 'cock')
</script>

<template>
  <DrawingSheet
    class="rooms"
    :view="`0 0 ${WIDTH} ${layout.height}`"
    :at="middle"
    :still="!pressable"
    :label="`Drawing of ${tag}`"
  >
    <template v-for="(p, n) in layout.pipes" :key="n">
      <path class="wall" :d="`M${p.x1} ${p.y - 13}H${p.x2}M${p.x1} ${p.y + 13}H${p.x2}`" />
    </template>
    <path v-for="d in layout.stubs" :key="d" class="stub" :d="d" />
    <g v-for="s in layout.spaces" :key="s.zone" class="room" :class="stateOf(s.space)">
      <rect class="space" :x="s.x" :y="s.y" :width="s.width" :height="BOX" />
      <text class="title" :x="s.x + s.width / 2" :y="s.y + 24">{{ s.title }}</text>
      <text class="state" :x="s.x + s.width / 2" :y="s.y + 52">{{ stateOf(s.space) }}</text>
    </g>
    <path
      v-for="s in layout.seats"
      :key="s.x"
      class="wall"
      :d="`M${s.x - 14} ${s.y + 13}l14 -26 14 26zM${s.x} ${s.y - 13}v-22`"
    />
    <template v-for="v in layout.valves" :key="v.id">
      <DrawnValve
        :x="v.x"
        :y="v.y"
        :size="v.size"
        :along="v.along"
        :label="v.title"
        :opening="opening(v.id, v.role)"
        :pressable="pressable"
        :wanted="wanted.includes(v.id)"
        @turn="emit('turn', v.id)"
      />
      <text class="name" :x="v.name.x" :y="v.name.y">{{ v.title }}</text>
    </template>
    <path class="flow" d="M14 20h58m-11-6 11 6-11 6" />
  </DrawingSheet>
</template>

<style scoped>
.rooms :deep(.drawing) {
  min-width: 46rem;
}

.wall,
.space {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.6;
}

.live .space {
  fill: var(--water-live);
}

.trapped .space {
  fill: url('#trapped');
}

.stub {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.4;
}

.flow {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 1.4;
}

text {
  font-size: 14px;
  text-anchor: middle;
  fill: var(--ink-soft);
}

.title,
.state {
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 6px;
}

.state {
  font-size: 20px;
  font-weight: 700;
  fill: var(--ink);
}
</style>
