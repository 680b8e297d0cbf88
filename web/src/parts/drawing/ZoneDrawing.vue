<script setup lang="ts">
import type { Opening } from '@uvanta/core/assembly'
import type { IsolationSite, SpaceState } from '@uvanta/core/isolation'
import { computed } from 'vue'
import DrawnValve from './DrawnValve.vue'

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

const ROW = 190
const BODY = { left: 250, right: 550, top: 40, bottom: 110 }
const Y = 75

const rows = computed(() =>
  props.site.zones.map((zone, n) => {
    const valves = props.site.valves.filter(
      (v) => zone.spaces.includes(v.from) || zone.spaces.includes(v.to ?? ''),
    )
    const shutoffs = valves.filter((v) => v.role === 'shutoff')
    const vents = valves.filter((v) => v.role === 'vent')
    const spread = (list: typeof valves, from: number, to: number) =>
      list.map((v, k) => ({ ...v, x: from + ((to - from) * (k + 1)) / (list.length + 1) }))
    const into = spread(
      shutoffs.filter((v) => zone.spaces.includes(v.to ?? '')),
      20,
      BODY.left,
    )
    const outOf = spread(
      shutoffs.filter((v) => zone.spaces.includes(v.from)),
      BODY.right,
      780,
    )
    return {
      id: zone.id,
      top: n * ROW,
      state: props.states[zone.spaces[0] ?? ''] ?? 'live',
      shutoffs: [...into, ...outOf],
      vents: spread(vents, BODY.left, BODY.right),
      hasOutlet: outOf.length > 0,
    }
  }),
)
const opening = (id: string, role: string): Opening =>
  props.openings[id] ?? (role === 'shutoff' ? 'open' : 'shut')
</script>

<template>
  <div class="scroll-x">
    <svg
      class="drawing"
      :viewBox="`0 0 800 ${rows.length * ROW}`"
      role="group"
      :aria-label="`Drawing of ${tag}`"
    >
      <defs>
        <pattern
          id="zone-trapped"
          width="8"
          height="8"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <path d="M0 0V8" class="hatch" />
        </pattern>
      </defs>
      <g v-for="r in rows" :key="r.id" :transform="`translate(0 ${r.top})`" :class="r.state">
        <path class="wall" :d="`M8 ${Y - 13}H${BODY.left}M8 ${Y + 13}H${BODY.left}`" />
        <path
          v-if="r.hasOutlet"
          class="wall"
          :d="`M${BODY.right} ${Y - 13}H792M${BODY.right} ${Y + 13}H792`"
        />
        <rect
          class="space"
          :x="BODY.left"
          :y="BODY.top"
          :width="BODY.right - BODY.left"
          :height="BODY.bottom - BODY.top"
        />
        <text class="state" :x="400" :y="Y + 6">{{ r.state }}</text>
        <template v-for="v in r.shutoffs" :key="v.id">
          <DrawnValve
            :x="v.x"
            :y="Y"
            :size="22"
            :label="v.title"
            :opening="opening(v.id, v.role)"
            :pressable="pressable"
            :wanted="wanted.includes(v.id)"
            @turn="emit('turn', v.id)"
          />
          <text class="name" :x="v.x" :y="Y + 50">{{ v.title }}</text>
        </template>
        <template v-for="v in r.vents" :key="v.id">
          <path class="stub" :d="`M${v.x} ${BODY.bottom}v36`" />
          <DrawnValve
            :x="v.x"
            :y="BODY.bottom + 17"
            :size="11"
            :along="90"
            :label="v.title"
            :opening="opening(v.id, v.role)"
            :pressable="pressable"
            :wanted="wanted.includes(v.id)"
            @turn="emit('turn', v.id)"
          />
          <text class="name" :x="v.x" :y="BODY.bottom + 56">{{ v.title }}</text>
        </template>
        <path class="flow" :d="`M14 ${Y - 40}h58m-11-6 11 6-11 6`" />
      </g>
    </svg>
  </div>
</template>

<style scoped>
.drawing {
  --water-live: color-mix(in srgb, var(--flow) 34%, transparent);

  width: 100%;
  min-width: 46rem;
  max-width: 56rem;
  display: block;
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
  fill: url('#zone-trapped');
}

.hatch {
  stroke: var(--flow);
  stroke-width: 3;
}

.stub {
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

.state {
  font-size: 20px;
  font-weight: 700;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 6px;
}
</style>
