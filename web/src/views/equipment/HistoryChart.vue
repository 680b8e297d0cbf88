<script setup lang="ts">
import type { VisitSummary } from '@uvanta/contract'
import { convertValue } from '@uvanta/core/quantity'
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
import { computed } from 'vue'
import { Line } from 'vue-chartjs'
import { dateWords } from '@/composables/words'
import { useLibrary } from '@/stores/library'
import { useSession } from '@/stores/session'
import { useTheme } from '@/stores/theme'
import { cssColour } from '@/composables/cssColour'

/** As-found and as-left readings of each item over the years, with the limit of the rule pack. */
const props = defineProps<{ history: readonly VisitSummary[]; kind: string }>()
Chart.register(CategoryScale, Legend, LinearScale, LineElement, PointElement, Tooltip)
Chart.defaults.font.family = 'Atkinson Hyperlegible Next Variable'

const theme = useTheme()
const library = useLibrary()
const session = useSession()
const house = computed(() => session.units.differential)
const visits = computed(() => [...props.history].reverse())
const items = computed(() => {
  const read = new Set(props.history.flatMap((v) => v.readings.map((r) => r.item)))
  const tests = library.library?.rulePacks.flatMap((p) => p.tests) ?? []
  const known = tests
    .filter((t) => t.kind === props.kind)
    .flatMap((t) => t.items)
    .flatMap(({ id, title, ...i }) =>
      i.basis === 'limit' && i.atLeast?.dimension === 'differential'
        ? [{ id, title, atLeast: i.atLeast }]
        : [],
    )
  // Packs of different schools judge the same items: each is drawn once, and only if it was read.
  return known.filter((i, n) => read.has(i.id) && known.findIndex((k) => k.id === i.id) === n)
})

const STYLES = ['circle', 'rectRot', 'triangle', 'rect'] as const

const data = computed<ChartData<'line', (number | null)[]>>(() => {
  void theme.theme
  const inks = [cssColour('--blue'), cssColour('--warn'), cssColour('--pass'), cssColour('--fail')]
  const datasets = items.value.flatMap((item, index) => {
    const color = inks[index % inks.length] as string
    const { value, unit } = item.atLeast
    const limit = convertValue('differential', Number(value), unit, house.value)
    const of = (run: string) =>
      visits.value.map((v) => {
        const r = v.readings.find((x) => x.run === run && x.item === item.id)
        return r ? convertValue('differential', Number(r.value), r.unit, house.value) : null
      })
    const style = {
      borderColor: color,
      backgroundColor: color,
      pointStyle: STYLES[index % STYLES.length] ?? 'circle',
      spanGaps: true,
    }
    return [
      { label: `${item.title}, as found`, data: of('as-found'), ...style, pointRadius: 6 },
      {
        label: `${item.title}, as left`,
        data: of('as-left'),
        ...style,
        showLine: false,
        pointRadius: 9,
        backgroundColor: 'transparent',
        pointBorderWidth: 2,
      },
      {
        label: `${item.title}, limit`,
        data: visits.value.map(() => limit),
        borderColor: color,
        borderDash: [6, 5],
        borderWidth: 1,
        pointStyle: 'line' as const,
        pointRadius: 0,
      },
    ].filter((d) => d.data.some((x) => x !== null))
  })
  return { labels: visits.value.map((v) => dateWords(v.plannedOn)), datasets }
})

const options = computed(() => {
  void theme.theme
  const ticks = { color: cssColour('--ink-soft') }
  const grid = { color: cssColour('--rule'), lineWidth: 0.5 }
  return {
    responsive: true,
    maintainAspectRatio: false,
    animation: false as const,
    scales: {
      x: { ticks, grid: { display: false } },
      y: {
        beginAtZero: true,
        ticks,
        grid,
        title: { display: true, text: 'psid', color: cssColour('--ink-soft') },
      },
    },
    plugins: {
      legend: {
        position: 'bottom' as const,
        labels: { color: cssColour('--ink'), usePointStyle: true },
      },
    },
  }
})
</script>

<template>
  <div class="chart">
    <Line :data="data" :options="options" aria-label="Readings over the years" />
  </div>
</template>

<style scoped>
.chart {
  height: 280px;
}
</style>
