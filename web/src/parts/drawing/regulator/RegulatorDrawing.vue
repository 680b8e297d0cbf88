<script setup lang="ts">
import { apparatusOf, type Opening, restOpeningOf } from '@uvanta/core/apparatus'
import { apparatusSite, type SpaceState, spaceStates } from '@uvanta/core/pressure'
import { computed } from 'vue'
import DrawingSheet from '../DrawingSheet.vue'
import DrawnPipe, { type PipeGeometry } from '../DrawnPipe.vue'
import DrawnValve from '../DrawnValve.vue'
import type { DrawingProps } from '../live'
import RegulatorBody from './RegulatorBody.vue'

/**
 * A regulator in its station as line-work, flow from left to right: shutoffs, taps, the regulator with its
 * sense line, what protects it before or behind, and below it the gauge on its hose.
 */
const props = defineProps<DrawingProps>()
const emit = defineEmits<{ turn: [element: string] }>()

const MAIN = 150
const BORE = 17
const apparatus = computed(() => apparatusOf(props.kind))
const has = (id: string) => apparatus.value?.elements.some((e) => e.id === id) ?? false
/** A slam-shut or a monitor stands before the regulator. */
const before = (['slam-shut', 'monitor'] as const).find(has)
const X = {
  'shutoff-1': before ? 80 : 110,
  'inlet-tap': before ? 150 : 215,
  before: 235,
  regulator: before ? 370 : 330,
  relief: 470,
  'outlet-tap': 560,
  'flow-tap': 650,
  'shutoff-2': 745,
} as const
const SPANS: readonly [string, number, number][] = [
  ['inlet', 10, X['shutoff-1']],
  ['body-1', X['shutoff-1'], before ? X.before : X.regulator],
  ...(before ? [['between', X.before, X.regulator] as [string, number, number]] : []),
  ['body-2', X.regulator, X['shutoff-2']],
  ['outlet', X['shutoff-2'], 850],
]
const places: readonly PipeGeometry[] = SPANS.map(([id, from, to]) => ({
  id,
  water: [{ x: from, y: MAIN - BORE, width: to - from, height: BORE * 2 }],
  walls: `M${from} ${MAIN - BORE}H${to}M${from} ${MAIN + BORE}H${to}`,
  text: { x: (from + to) / 2, y: MAIN + BORE + 22 },
}))

const withKit = computed(() => Boolean(props.live && !props.states))
const zones = computed<Readonly<Record<string, SpaceState>> | null>(() => {
  if (props.states) return props.states
  if (!apparatus.value || !props.live) return null
  const { openings, hoses } = props.live
  return spaceStates(apparatusSite(apparatus.value), openings, [], Object.values(hoses))
})
const opening = (id: string): Opening =>
  props.live?.openings[id] ?? restOpeningOf(apparatus.value, id)
const labelOf = (id: string) =>
  [...(apparatus.value?.elements ?? []), ...(apparatus.value?.bench ?? [])].find((e) => e.id === id)
    ?.label ?? id

const TAPS = ['inlet-tap', 'outlet-tap', 'flow-tap'] as const
const SHUTOFFS = ['shutoff-1', 'shutoff-2'] as const
const GAUGE = { x: 400, y: 330 }
/** The hose hangs from its tap to the gauge, or free beside it. */
const hose = computed(() => {
  const tap = TAPS.find((t) => t === props.live?.hoses.gauge)
  if (!tap) return { fitted: false, d: `M${GAUGE.x} ${GAUGE.y}v-26` }
  const from = { x: X[tap], y: MAIN + 70 }
  return {
    fitted: true,
    d: `M${from.x} ${from.y}C${from.x} ${from.y + 60} ${GAUGE.x} ${GAUGE.y - 60} ${GAUGE.x} ${GAUGE.y}`,
  }
})
/** Where across the sheet the step turns something. */
const middle = computed(() => {
  const xs = Object.entries(X).flatMap(([id, x]) => (props.live?.wanted.includes(id) ? [x] : []))
  return xs.length > 0 ? (Math.min(...xs) + Math.max(...xs)) / 2 : null
})
const view = computed(() => `0 0 860 ${withKit.value ? 390 : 255}`)
const live = (list: 'running' | 'lifted' | 'wanted', id: string) =>
  props.live?.[list].includes(id) ?? false
</script>

<template>
  <DrawingSheet :view="view" :at="middle" :still="!pressable" :label="`Drawing of ${tag}, ${kind}`">
    <DrawnPipe v-for="p in places" :key="p.id" :place="p" :state="zones?.[p.id] ?? null" />
    <path
      class="sense"
      :d="`M${X.regulator + 48} ${MAIN - 62}H${X.regulator + 92}V${MAIN - BORE}`"
    />
    <template v-if="before === 'monitor'">
      <path
        class="sense"
        :d="`M${X.before - 48} ${MAIN - 62}h-16V5H${X.relief + 20}V${MAIN - BORE}`"
      />
      <RegulatorBody :x="X.before" :y="MAIN" kind="" />
      <text :x="X.before" :y="MAIN + 60" class="name">Monitor</text>
    </template>
    <template v-else-if="before">
      <path class="sense" :d="`M${X.before} ${MAIN - 76}V5H${X.relief + 20}V${MAIN - BORE}`" />
      <path class="line" :d="`M${X.before} ${MAIN - 22}v-24m-22 -30h44v30h-44z`" />
      <DrawnValve
        :x="X.before"
        :y="MAIN"
        :size="22"
        label="Slam-shut"
        :opening="live('lifted', 'slam-shut') ? 'shut' : opening('slam-shut')"
        :pressable="pressable"
        :wanted="live('wanted', 'slam-shut')"
        @turn="emit('turn', 'slam-shut')"
      />
      <text
        :x="X.before"
        :y="MAIN + 60"
        class="name part"
        :class="{ lifted: live('lifted', 'slam-shut') }"
      >
        {{ live('lifted', 'slam-shut') ? 'Tripped' : 'Slam-shut' }}
      </text>
    </template>
    <RegulatorBody :x="X.regulator" :y="MAIN" :kind="kind" />
    <text :x="X.regulator" :y="MAIN + 60" class="name">Regulator</text>
    <g v-if="has('relief')" :transform="`translate(${X.relief} ${MAIN - BORE})`">
      <path class="line" d="M-9 0v-30h18v30M-20 -30h40v-44h-40zM0 -74v-24" />
      <path class="spring" d="M-12 -68l24 6l-24 6l24 6l-24 6l24 6" />
      <path v-if="live('running', 'relief')" class="blow drops" d="M0 -104v-18m-9 9 9-9 9 9" />
      <text x="28" y="-50" class="name start">Relief</text>
    </g>
    <template v-for="id in SHUTOFFS" :key="id">
      <DrawnValve
        :x="X[id]"
        :y="MAIN"
        :size="22"
        :label="labelOf(id)"
        :opening="opening(id)"
        :pressable="pressable"
        :wanted="live('wanted', id)"
        @turn="emit('turn', id)"
      />
      <text :x="X[id]" :y="MAIN + 60" class="name">{{ labelOf(id) }}</text>
    </template>
    <template v-for="id in TAPS" :key="id">
      <path class="stub" :d="`M${X[id]} ${MAIN + BORE}v52`" />
      <DrawnValve
        :x="X[id]"
        :y="MAIN + 36"
        :size="10"
        :along="90"
        :label="labelOf(id)"
        :opening="opening(id)"
        :pressable="pressable"
        :wanted="live('wanted', id)"
        @turn="emit('turn', id)"
      />
      <text :x="X[id]" :y="MAIN + 88" class="name">{{ labelOf(id) }}</text>
      <path
        v-if="live('running', id)"
        class="blow"
        :d="`M${X[id] + 18} ${MAIN + 46}v18m-7-7 7 7 7-7`"
      />
    </template>
    <g v-if="withKit && props.live">
      <path :d="hose.d" class="hose" :class="{ fitted: hose.fitted }" />
      <rect class="face" :x="GAUGE.x - 80" :y="GAUGE.y" width="160" height="40" />
      <text :x="GAUGE.x" :y="GAUGE.y + 27" class="shown">{{ props.live.shown }}</text>
      <path class="stub" :d="`M${X.relief + 30} ${MAIN + BORE}V300`" />
      <DrawnValve
        :x="X.relief + 30"
        :y="290"
        :size="13"
        :along="90"
        :label="labelOf('test-supply')"
        :opening="opening('test-supply')"
        :pressable="pressable"
        :wanted="live('wanted', 'test-supply')"
        @turn="emit('turn', 'test-supply')"
      />
      <text :x="X.relief + 50" y="295" class="name start">Test supply</text>
      <template v-if="before === 'monitor'">
        <DrawnValve
          :x="X.regulator - 120"
          :y="290"
          :size="13"
          :label="labelOf('worker-open')"
          :opening="opening('worker-open')"
          :pressable="pressable"
          :wanted="live('wanted', 'worker-open')"
          @turn="emit('turn', 'worker-open')"
        />
        <text :x="X.regulator - 120" y="330" class="name">Worker held open</text>
      </template>
    </g>
    <path class="flow" d="M14 236h58m-11-6 11 6-11 6" />
    <text x="80" y="241" class="name start">flow</text>
  </DrawingSheet>
</template>

<style scoped>
.line,
.sense,
.spring {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.4;
}

.sense {
  stroke-width: 1.6;
}

.spring {
  stroke-width: 1.6;
}

.blow {
  fill: none;
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

.hose {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 2;
  stroke-dasharray: 2 4;
}

.hose.fitted {
  stroke: var(--flow);
  stroke-width: 4;
  stroke-dasharray: none;
}

.face {
  fill: var(--paper-raised);
  stroke: var(--ink);
  stroke-width: 2.4;
}

text {
  fill: var(--ink);
  font-size: 14px;
}

.name {
  text-anchor: middle;
  fill: var(--ink-soft);
}

.start {
  text-anchor: start;
}

.shown {
  text-anchor: middle;
  font-family: var(--bs-font-monospace);
}

.shown {
  font-size: 20px;
  font-weight: 600;
}
</style>
