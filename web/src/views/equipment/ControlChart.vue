<script setup lang="ts">
import type { Equipment, VisitSummary } from '@uvanta/contract'
import { drift } from '@uvanta/core/drift'
import { roundTo, unitDefinition, unitLabel } from '@uvanta/core/quantity'
import {
  CategoryScale,
  Chart,
  type ChartData,
  Legend,
  LinearScale,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js'
import { computed, ref } from 'vue'
import { Line } from 'vue-chartjs'
import { chartAxis, chartFrame } from '@/composables/chartStyle'
import { cssColour } from '@/composables/cssColour'
import { dateWords } from '@/composables/words'
import EntryField from '@/parts/form/EntryField.vue'
import { useLibrary } from '@/stores/library'
import { useTheme } from '@/stores/theme'
import { controlItems } from './controlItems'

/** Control chart of one item over the years: as found, as left, its tolerance, and how it drifts. */
const props = defineProps<{ history: readonly VisitSummary[]; equipment: Equipment }>()
Chart.register(CategoryScale, Legend, LinearScale, LineElement, PointElement, Tooltip)
Chart.defaults.font.family = 'Atkinson Hyperlegible Next Variable'

const theme = useTheme()
const library = useLibrary()
const items = computed(() =>
  library.library ? controlItems(library.library, props.equipment, props.history) : [],
)
const chosen = ref<string>()
const item = computed(() => items.value.find((i) => i.id === chosen.value) ?? items.value[0])
const unit = computed(() => (item.value ? unitLabel(item.value.dimension, item.value.unit) : ''))
/** Where the order of the order book is not known, a year after the last test. */
const nextOn = computed(() => props.equipment.dueOn ?? item.value?.tests.at(-1)?.date ?? '')
const drifting = computed(() => {
  const i = item.value
  return i && nextOn.value ? drift(i.tests, nextOn.value, { low: i.low, high: i.high }) : null
})
const words = computed(() => {
  const d = drifting.value
  const i = item.value
  if (!d || !i) return ''
  const digits = unitDefinition(i.dimension, i.unit).digits + 1
  const rate = `${d.perYear < 0 ? 'Falls' : 'Rises'} by ${roundTo(Math.abs(d.perYear), digits)} ${unit.value} a year`
  const sure = d.within === undefined ? '' : ` (± ${roundTo(d.within, digits)}, 95 %)`
  const from = `, from ${d.intervals} ${d.intervals === 1 ? 'interval' : 'intervals'}`
  const then = `Expected on ${dateWords(nextOn.value)}: ${roundTo(d.expected, digits)} ${unit.value}`
  const chance =
    d.chanceOut === undefined
      ? d.isTooLittle
        ? '. Too few readings for a chance of being out of its limits'
        : ''
      : `, chance of being out of its limits then ${d.chanceOut < 0.01 ? 'under 1' : Math.round(d.chanceOut * 100)} %`
  return `${rate}${sure}${from}. ${then}${chance}.`
})

const data = computed<ChartData<'line', (number | null)[]>>(() => {
  void theme.theme
  const i = item.value
  if (!i) return { labels: [], datasets: [] }
  const [ink, limit] = [cssColour('--blue'), cssColour('--warn')]
  const end = (label: string, value: number | undefined) =>
    value === undefined
      ? []
      : [
          {
            label,
            data: i.tests.map(() => value),
            borderColor: limit,
            borderDash: [6, 5],
            borderWidth: 1.5,
            pointStyle: 'line' as const,
            pointRadius: 0,
          },
        ]
  return {
    labels: i.tests.map((t) => dateWords(t.date)),
    datasets: [
      {
        label: 'As found',
        data: i.tests.map((t) => t.asFound ?? null),
        borderColor: ink,
        backgroundColor: ink,
        pointStyle: 'circle',
        pointRadius: 6,
        spanGaps: true,
      },
      {
        label: 'As left, after work',
        data: i.tests.map((t) => t.asLeft ?? null),
        borderColor: cssColour('--pass'),
        backgroundColor: 'transparent',
        pointStyle: 'rectRot' as const,
        pointRadius: 9,
        pointBorderWidth: 2.5,
        showLine: false,
      },
      ...end('At most', i.high),
      ...end('At least', i.low),
    ].filter((d) => d.data.some((x) => x !== null)),
  }
})

const options = computed(() => {
  void theme.theme
  return {
    ...chartFrame(),
    scales: {
      x: { ...chartAxis(), grid: { display: false } },
      y: { ...chartAxis(unit.value), grace: '10%' },
    },
  }
})
</script>

<template>
  <div v-if="item">
    <EntryField
      v-if="items.length > 1"
      :model-value="item.id"
      class="which"
      label="Reading"
      kind="choice"
      :options="items.map((i) => ({ value: i.id, text: i.title }))"
      @update:model-value="chosen = $event as string"
    />
    <p v-if="words" class="drift">{{ words }}</p>
    <div class="chart">
      <Line :data="data" :options="options" :aria-label="`${item.title} over the years`" />
    </div>
  </div>
  <p v-else class="soft">Nothing that was read has limits yet.</p>
</template>

<style scoped>
.which {
  max-width: 24rem;
}

.drift {
  margin: 0.75rem 0 0;
  font-size: 1.0625rem;
}

.chart {
  height: 280px;
  margin-top: 0.5rem;
}
</style>
