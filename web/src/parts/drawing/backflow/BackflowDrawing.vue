<script setup lang="ts">
import { apparatusOf, type Opening, restOpeningOf } from '@uvanta/core/apparatus'
import { type AssemblyKind, isAssemblyKind } from '@uvanta/core/apparatus/backflow'
import { apparatusSite, type SpaceState, spaceStates } from '@uvanta/core/pressure'
import { computed } from 'vue'
import type { DrawingProps } from '../live'
import DrawnHeight from './DrawnHeight.vue'
import DrawnKit from './DrawnKit.vue'
import DrawnPart from './DrawnPart.vue'
import DrawingSheet from '../DrawingSheet.vue'
import DrawnPipe from '../DrawnPipe.vue'
import DrawnValve from '../DrawnValve.vue'
import { geometryOf } from './geometry'

/**
 * A backflow assembly as line-work from its own model, flow from left to right. With `live`, valves turn when
 * pressed, spaces are filled as they stand, and the test kit hangs below.
 */
const props = defineProps<DrawingProps>()
const emit = defineEmits<{ turn: [element: string]; height: [mm: number] }>()

const known = computed<AssemblyKind | null>(() => (isAssemblyKind(props.kind) ? props.kind : null))
const withKit = computed(() => Boolean(props.live && !props.states))
const geometry = computed(() => (known.value ? geometryOf(known.value, withKit.value) : null))
const zones = computed<Readonly<Record<string, SpaceState>> | null>(() => {
  if (props.states) return props.states
  const apparatus = apparatusOf(props.kind)
  if (!apparatus || !props.live) return null
  const { openings, hoses } = props.live
  return spaceStates(apparatusSite(apparatus), openings, [], Object.values(hoses))
})
const of = (...roles: string[]) =>
  (geometry.value?.elements ?? []).filter((e) => roles.includes(e.role))
const opening = (id: string): Opening =>
  props.live?.openings[id] ?? restOpeningOf(apparatusOf(props.kind), id)

/** Where across the sheet the step turns or fits something. */
const touched = computed(() => {
  const g = geometry.value
  const wanted = props.live?.wanted ?? []
  if (!g || wanted.length === 0) return []
  const fitted = Object.values(props.live?.hoses ?? {})
  return [
    ...g.elements.filter((e) => wanted.includes(e.id) || fitted.includes(e.id)).map((e) => e.x),
    ...g.kit.filter((k) => wanted.includes(k.id)).map((k) => k.x),
  ]
})
const middle = computed(() =>
  touched.value.length > 0 ? (Math.min(...touched.value) + Math.max(...touched.value)) / 2 : null,
)

/** The window on the sheet: all of it, or what the step touches with a margin. */
const view = computed(() => {
  const g = geometry.value
  if (!g) return '0 0 800 200'
  const whole = `0 0 ${g.width} ${g.height}`
  const xs = touched.value
  if (!props.folded || middle.value === null) return whole
  if (!withKit.value) {
    // Without the kit below there is room for what stands beside it.
    const width = 360
    const from = Math.min(Math.max(0, middle.value - width / 2), g.width - width)
    return `${from} 0 ${width} ${g.height}`
  }
  const left = Math.max(0, Math.min(...xs, 340) - 56)
  const right = Math.min(
    g.width,
    props.live?.heightMm === null ? Math.max(...xs, 460) + 56 : g.width,
  )
  return `${left} 0 ${right - left} ${g.height}`
})
</script>

<template>
  <DrawingSheet
    v-if="geometry"
    :view="view"
    :at="middle"
    :still="!pressable"
    :label="`Drawing of ${tag}, ${kind}`"
  >
    <DrawnPipe
      v-for="p in geometry.places"
      :key="p.id"
      :place="p"
      :state="zones?.[p.id] ?? null"
      :pressure="live?.pressures[p.id]"
    />
    <template v-for="e in of('check', 'relief', 'air-inlet', 'meter')" :key="e.id">
      <DrawnPart
        :element="e"
        :small="e.line === 'bypass'"
        :running="live?.running.includes(e.id)"
        :lifted="live?.lifted.includes(e.id)"
        :turning="live?.turning.includes(e.id)"
      />
      <text v-if="e.line === 'main' && e.role === 'check'" :x="e.x" :y="e.y + 50" class="name">
        {{ e.label }}
      </text>
      <text
        v-if="e.line === 'main' && e.role === 'relief'"
        :x="e.x + 22"
        :y="e.y + 86"
        class="name start"
      >
        Relief
      </text>
      <text v-if="e.role === 'air-inlet'" :x="e.x + 42" :y="e.y - 34" class="name start">
        Air inlet
      </text>
      <text v-if="e.role === 'meter'" :x="e.x" :y="e.y + 36" class="name">meter</text>
    </template>
    <template v-for="e in of('shutoff')" :key="e.id">
      <DrawnValve
        :x="e.x"
        :y="e.y"
        :size="e.line === 'bypass' ? 13 : 22"
        :label="e.label"
        :opening="opening(e.id)"
        :pressable="pressable"
        :wanted="live?.wanted.includes(e.id)"
        @turn="emit('turn', e.id)"
      />
      <text v-if="e.line === 'main'" :x="e.x" :y="e.y + 50" class="name">{{ e.label }}</text>
    </template>
    <template v-for="e in of('cock')" :key="e.id">
      <path
        class="stub"
        :d="`M${e.x} ${e.y + (e.line === 'bypass' ? 8 : 14)}V${e.y + (e.line === 'bypass' ? 34 : 52)}`"
      />
      <DrawnValve
        :x="e.x"
        :y="e.y + (e.line === 'bypass' ? 20 : 31)"
        :size="e.line === 'bypass' ? 7 : 10"
        :along="90"
        :label="e.label"
        :opening="opening(e.id)"
        :pressable="pressable"
        :wanted="live?.wanted.includes(e.id)"
        @turn="emit('turn', e.id)"
      />
      <text
        :x="e.x + (e.line === 'bypass' ? 13 : 17)"
        :y="e.y + (e.line === 'bypass' ? 32 : 48)"
        class="cock"
      >
        {{ e.number }}
      </text>
      <path
        v-if="live?.running.includes(e.id)"
        class="drop"
        :d="`M${e.x} ${e.y + (e.line === 'bypass' ? 36 : 56)}c-4 6-4 9 0 9s4-3 0-9z`"
      />
    </template>
    <DrawnKit
      v-if="live && withKit"
      :geometry="geometry"
      :hoses="live.hoses"
      :opening="opening"
      :running="live.running"
      :wanted="live.wanted"
      :pressable="pressable ?? false"
      :shown="live.shown"
      @turn="emit('turn', $event)"
    />
    <DrawnHeight
      v-if="live && withKit && live.heightMm !== null"
      :x="geometry.width - 90"
      :y="geometry.mainY + 196"
      :mm="live.heightMm"
      @pick="emit('height', $event)"
    />
    <path class="flow" :d="`M14 ${geometry.mainY + 88}h58m-11-6 11 6-11 6`" />
    <text x="80" :y="geometry.mainY + 93" class="name start">flow</text>
  </DrawingSheet>
</template>

<style scoped>
.stub {
  stroke: var(--ink);
  stroke-width: 2.4;
}

.flow {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 1.4;
}

.drop {
  fill: var(--flow);
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

.cock {
  font-family: var(--bs-font-monospace);
}
</style>
