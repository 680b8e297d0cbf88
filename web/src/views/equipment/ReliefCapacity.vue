<script setup lang="ts">
import { type Equipment, nominalsOf } from '@uvanta/contract'
import {
  convertValue,
  formatQuantity,
  fromSi,
  roundTo,
  unitDefinition,
  unitLabel,
} from '@uvanta/core/quantity'
import { type CapacityItem, capacityFor, type PackItem, type TestRun } from '@uvanta/core/rules'
import type { ReliefCapacity } from '@uvanta/core/sizing'
import {
  Chart,
  type ChartData,
  type ChartOptions,
  Legend,
  LinearScale,
  LineElement,
  PointElement,
} from 'chart.js'
import { computed } from 'vue'
import { Line } from 'vue-chartjs'
import { chartAxis, chartFrame } from '@/composables/chartStyle'
import { cssColour } from '@/composables/cssColour'
import StateMark from '@/parts/StateMark.vue'
import { useLibrary } from '@/stores/library'
import { useTheme } from '@/stores/theme'

/** The relief against its regulator failed wide open: both curves, where they balance, and the limit. */
const props = defineProps<{ equipment: Equipment }>()
Chart.register(Legend, LinearScale, LineElement, PointElement)
const theme = useTheme()
const library = useLibrary()

const item = computed<CapacityItem | null>(() => {
  const items: readonly PackItem[] = (library.library?.rulePacks ?? [])
    .flatMap((p) => p.tests)
    .filter((t) => t.kind === props.equipment.kind)
    .flatMap((t) => t.items)
  const found = items.find((i) => i.basis === 'capacity')
  // By its nominal opening and inlet, which is what the plate promises; the test goes by what was read.
  if (found?.basis !== 'capacity') return null
  const { inletRead: _, ...byPlate } = found
  return { ...byPlate, start: 'relief-set' }
})
const run = computed<TestRun>(() => ({
  readings: [],
  answers: [],
  order: [],
  nominals: Object.fromEntries(nominalsOf(props.equipment).map((n) => [n.name, n.value])),
}))
const found = computed(() => (item.value ? capacityFor(item.value, run.value) : null))
const unit = computed(() => run.value.nominals?.maop?.unit ?? 'psi')
const US = ['psi', 'inH2O', 'inHg']
const flowUnit = computed(() => (US.includes(unit.value) ? 'scfh' : 'sm³/h'))
const pressure = (kpa: number) => convertValue('gaugePressure', kpa, 'kPa', unit.value)
const pressureWords = (kpa: number) =>
  `${roundTo(pressure(kpa), unitDefinition('gaugePressure', unit.value).digits)} ${unitLabel('gaugePressure', unit.value)}`
/** The computation gives m³/h at standard conditions. */
const flow = (sm3h: number) => fromSi('gasFlow', sm3h / 3600, flowUnit.value)
const flowWords = (sm3h: number) => `${roundTo(flow(sm3h), 0)} ${flowUnit.value}`
const inlet = computed(() => {
  const value = run.value.nominals?.['inlet-maximum']
  return value ? formatQuantity(value) : ''
})
const words = computed(() => {
  const f = found.value
  if (!f || 'missing' in f) return ''
  const margin = Math.abs(Math.round(f.marginPercent))
  const limits =
    f.limitedBy === 'orifice'
      ? 'its orifice limits it'
      : 'its spring, not yet fully lifted, limits it'
  return `With the regulator failed wide open at ${inlet.value}, ${flowWords(f.inflowSm3h)} come in at the limit; the relief lets off ${flowWords(f.capacitySm3h)}, ${margin} % ${f.marginPercent < 0 ? 'too little' : 'more'}: ${limits}. They balance at ${pressureWords(f.balanceKpa)}.`
})

const data = computed<ChartData<'line', { x: number; y: number }[]>>(() => {
  void theme.theme
  const f = found.value
  if (!f || 'missing' in f) return { datasets: [] }
  const line = (
    label: string,
    colour: string,
    y: (p: ReliefCapacity['curve'][number]) => number,
  ) => ({
    label,
    data: f.curve.map((p) => ({ x: pressure(p.kpa), y: flow(y(p)) })),
    borderColor: cssColour(colour),
    backgroundColor: cssColour(colour),
    pointRadius: 0,
  })
  const limit = pressure(f.limitKpa)
  const top = Math.max(...f.curve.map((p) => flow(Math.max(p.inflowSm3h, p.reliefSm3h))))
  return {
    datasets: [
      line('Comes in', '--blue', (p) => p.inflowSm3h),
      line('Relief lets off', '--pass', (p) => p.reliefSm3h),
      {
        label: 'Limit of the system',
        data: [
          { x: limit, y: 0 },
          { x: limit, y: top },
        ],
        borderColor: cssColour('--warn'),
        backgroundColor: cssColour('--warn'),
        borderDash: [6, 5],
        pointRadius: 0,
      },
    ],
  }
})
const options = computed<ChartOptions<'line'>>(() => {
  void theme.theme
  const axis = (text: string) => ({ ...chartAxis(text), type: 'linear' as const, min: 0 })
  return {
    ...chartFrame(),
    scales: {
      x: axis(`Behind the regulator, ${unitLabel('gaugePressure', unit.value)}`),
      y: axis(flowUnit.value),
    },
  }
})
</script>

<template>
  <section v-if="found" class="section">
    <h2>Relief against the regulator</h2>
    <p v-if="'missing' in found" class="soft">Not assessed: {{ found.missing.text }}.</p>
    <template v-else>
      <p class="lead">
        <StateMark
          :state="found.holds ? 'pass' : 'fail'"
          :label="found.holds ? 'Holds under the limit' : 'Too small'"
        />
      </p>
      <p>{{ words }}</p>
      <div class="chart">
        <Line :data="data" :options="options" aria-label="Both flows over the pressure" />
      </div>
      <p class="soft small">
        By nominal opening and coefficients; the code and the makers’ sheets govern.
      </p>
    </template>
  </section>
</template>

<style scoped>
.chart {
  height: 18rem;
  max-width: 46rem;
}

p {
  max-width: 46rem;
}
</style>
