<script setup lang="ts">
import { apparatusOf, nominalsInSi } from '@uvanta/core/apparatus'
import { convertValue, roundTo, valueToSi } from '@uvanta/core/quantity'
import { useMediaQuery } from '@vueuse/core'
import { computed } from 'vue'
import { unitWords } from '@/composables/words'
import EquipmentDrawing from '@/parts/drawing/EquipmentDrawing.vue'
import type { LiveDrawing } from '@/parts/drawing/live'
import { useSession } from '@/stores/session'
import { useGauge } from '@/stores/gauge'
import { useVisit } from '@/stores/visit'
import { useExpected } from '@/workers/useExpected'
import type { useStepActions } from './useStepActions'

const session = useSession()

/** The assembly of the visit as it stands now: valves, hoses, what drips, what a healthy one would hold. */
const props = defineProps<{
  hands: ReturnType<typeof useStepActions>
  /** Height of the gauge above the port, mm; null where it does not count. */
  heightMm: number | null
}>()
const emit = defineEmits<{ height: [mm: number] }>()
const store = useVisit()
const gauge = useGauge()
const narrow = useMediaQuery('(max-width: 43.75em)')

/** A machine without spaces under pressure has nothing to turn and nothing to fill. */
const spaces = computed(
  () => (apparatusOf(store.state.plan?.equipment.kind ?? '')?.places.length ?? 0) > 0,
)
const equipment = computed(() => store.state.plan?.equipment)
/** Line pressure as noted at the start of the test; without it no pressures are expected. */
const noted = computed(
  () => (store.state.runs['as-left'] ?? store.state.runs['as-found'])?.started.linePressure,
)
const supplyKpa = computed(() =>
  noted.value
    ? valueToSi(noted.value.dimension, Number(noted.value.value), noted.value.unit)
    : null,
)
const subject = computed(() => {
  const e = equipment.value
  if (!e || supplyKpa.value === null) return null
  const { valves, hoses } = store.state
  return {
    spec: { kind: e.kind, sizeIn: Number(e.sizeIn), nominals: nominalsInSi(e.nominals ?? []) },
    supplyKpa: supplyKpa.value,
    settings: { openings: { ...valves }, hoses: { ...hoses } },
  }
})
const expected = useExpected(subject)

const unit = computed(() => noted.value?.unit ?? session.units.gaugePressure)
const words = (kpa: number) =>
  roundTo(convertValue('gaugePressure', kpa, 'kPa', unit.value), unit.value === 'bar' ? 2 : 1)
const pressures = computed(() =>
  Object.fromEntries(Object.entries(expected.value).map(([place, kpa]) => [place, words(kpa)])),
)
const shown = computed(() => {
  const { value, hello } = gauge.view ?? {}
  if (!hello || value === null || value === undefined) return '– –'
  return `${value.toFixed(2)} ${unitWords(gauge.dimension, hello.unit)}`
})
const live = computed<LiveDrawing>(() => ({
  openings: store.state.valves,
  hoses: store.state.hoses,
  running: gauge.view?.sight?.running ?? [],
  lifted: gauge.view?.sight?.lifted ?? [],
  turning: gauge.view?.sight?.turning ?? [],
  pressures: pressures.value,
  wanted: props.hands.actions.value.flatMap((a) =>
    a.kind === 'move' ? [a.element] : a.kind === 'hose' && a.port ? [a.port] : [],
  ),
  shown: shown.value,
  heightMm: props.heightMm,
}))
</script>

<template>
  <figure v-if="equipment" class="no-print">
    <EquipmentDrawing
      :kind="equipment.kind"
      :tag="equipment.tag"
      :live="live"
      :pressable="store.mine"
      :folded="narrow"
      @turn="hands.turn"
      @height="emit('height', $event)"
    />
    <figcaption v-if="spaces" class="soft small">
      Press a valve to turn it.
      <template v-if="supplyKpa !== null"
        >Numbers: what healthy equipment would hold, {{ unit }}.</template
      >
      Filled: fed by the supply. Hatched: trapped.
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0.5rem 0 0.75rem;
}
</style>
