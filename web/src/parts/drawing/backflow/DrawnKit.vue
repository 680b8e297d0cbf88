<script setup lang="ts">
import type { HoseName, KitValve } from '@uvanta/core/apparatus/backflow'
import type { Opening } from '@uvanta/core/apparatus'
import { computed } from 'vue'
import DrawnValve from '../DrawnValve.vue'
import type { Geometry } from './geometry'

/** The test kit: three hoses, three controls, two bleeds, one gauge. */
const props = defineProps<{
  geometry: Geometry
  hoses: Readonly<Partial<Record<HoseName, string>>>
  opening: (id: string) => Opening
  running: readonly string[]
  wanted: readonly string[]
  pressable: boolean
  /** What the gauge shows. */
  shown: string
}>()
const emit = defineEmits<{ turn: [element: string] }>()

const NAMES: Readonly<Record<HoseName, string>> = { high: 'high', low: 'low', bypass: 'bypass' }
const KIT_WORDS: Readonly<Record<KitValve, string>> = {
  'high-bleed': 'bleed',
  'high-control': 'high',
  'bypass-control': 'bypass',
  'low-control': 'low',
  'low-bleed': 'bleed',
}
/** A hose hangs from its cock to the kit, or free beside it. */
const lines = computed(() =>
  (Object.keys(NAMES) as HoseName[]).map((hose) => {
    const to = props.geometry.hoses[hose]
    const cock = props.geometry.elements.find((e) => e.id === props.hoses[hose])
    if (!cock) return { hose, fitted: false, d: `M${to.x} ${to.y}v-26` }
    const from = { x: cock.x, y: cock.y + (cock.line === 'bypass' ? 34 : 52) }
    const sag = (to.y - from.y) * 0.55
    return {
      hose,
      fitted: true,
      d: `M${from.x} ${from.y}C${from.x} ${from.y + sag} ${to.x} ${to.y - sag} ${to.x} ${to.y}`,
    }
  }),
)
const barY = computed(() => props.geometry.hoses.high.y + 26)
</script>

<template>
  <g>
    <path v-for="l in lines" :key="l.hose" :d="l.d" class="hose" :class="{ fitted: l.fitted }" />
    <path
      class="bar"
      :d="`M300 ${barY}H500M300 ${barY}v-26M400 ${barY}v-26M500 ${barY}v-26M300 ${barY}H216M500 ${barY}H584`"
    />
    <DrawnValve
      v-for="v in geometry.kit"
      :key="v.id"
      :x="v.x"
      :y="v.y"
      :size="13"
      :along="90"
      :label="v.label"
      :opening="opening(v.id)"
      :pressable="pressable"
      :wanted="wanted.includes(v.id)"
      @turn="emit('turn', v.id)"
    />
    <text v-for="v in geometry.kit" :key="`t${v.id}`" :x="v.x" :y="v.y + 32" class="name">{{
      KIT_WORDS[v.id as KitValve]
    }}</text>
    <template v-for="v in geometry.kit" :key="`d${v.id}`">
      <path
        v-if="running.includes(v.id)"
        class="drop"
        :d="`M${v.x} ${v.y + 40}c-4 6-4 9 0 9s4-3 0-9z`"
      />
    </template>
    <rect
      class="face"
      :x="geometry.gauge.x - 74"
      :y="geometry.gauge.y + 2"
      width="148"
      height="36"
    />
    <text :x="geometry.gauge.x" :y="geometry.gauge.y + 27" class="shown">{{ shown }}</text>
  </g>
</template>

<style scoped>
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

.bar {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}

.name {
  font-size: 14px;
  text-anchor: middle;
  fill: var(--ink-soft);
}

.drop {
  fill: var(--flow);
}

.face {
  fill: var(--paper-raised);
  stroke: var(--ink);
  stroke-width: 2;
}

.shown {
  font-family: var(--bs-font-monospace);
  font-size: 20px;
  font-weight: 600;
  text-anchor: middle;
  fill: var(--ink);
}
</style>
