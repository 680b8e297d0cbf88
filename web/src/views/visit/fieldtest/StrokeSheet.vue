<script setup lang="ts">
import { roundTo } from '@uvanta/core/quantity'
import type { StrokeOfRun } from '@uvanta/core/visit'
import {
  Chart,
  type ChartData,
  type ChartOptions,
  Legend,
  LinearScale,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js'
import { computed } from 'vue'
import { Line } from 'vue-chartjs'
import { chartAxis, chartFrame } from '@/composables/chartStyle'
import { cssColour } from '@/composables/cssColour'
import { useTheme } from '@/stores/theme'

/** A stroke: how far travel is off its signal, up and down, in its tolerance band, and what is set first. */
const props = defineProps<{ stroke: StrokeOfRun; found?: StrokeOfRun | null }>()
Chart.register(Legend, LinearScale, LineElement, PointElement, Tooltip)
Chart.defaults.font.family = 'Atkinson Hyperlegible Next Variable'
const theme = useTheme()

const judged = computed(() => props.stroke.judged)
const figures = computed(() => {
  const j = judged.value
  const percent = (v: number | null | undefined) =>
    v === null || v === undefined ? '–' : `${v > 0 ? '+' : ''}${roundTo(v, 1)} %`
  return [
    { title: 'Zero', value: percent(j?.zeroError) },
    { title: 'Span', value: percent(j?.spanError) },
    { title: 'Worst error', value: percent(j?.worstError) },
    { title: 'Hysteresis', value: percent(j?.hysteresis) },
    { title: 'Linearity', value: percent(j?.linearity) },
  ]
})
const says = computed(() => (judged.value?.outcome === 'not-assessed' ? '' : judged.value?.says))

type Points = { x: number; y: number }[]
const errors = (stroke: StrokeOfRun, way: 'up' | 'down'): Points =>
  stroke.points
    .filter((p) => p.way === way)
    .map(({ signal, travel }) => ({ x: signal, y: travel - signal }))

const data = computed<ChartData<'line', Points>>(() => {
  void theme.theme
  const { tolerance } = props.stroke
  const [ink, soft, limit] = [cssColour('--blue'), cssColour('--ink-soft'), cssColour('--warn')]
  const end = (y: number, label: string) => ({
    label,
    data: [
      { x: 0, y },
      { x: 100, y },
    ],
    borderColor: limit,
    borderDash: [6, 5],
    borderWidth: 1.5,
    pointRadius: 0,
  })
  const way = (stroke: StrokeOfRun, which: 'up' | 'down', label: string, colour: string) => ({
    label,
    data: errors(stroke, which),
    borderColor: colour,
    backgroundColor: colour,
    borderDash: which === 'down' ? [3, 3] : [],
    pointStyle: which === 'up' ? ('triangle' as const) : ('rectRot' as const),
    pointRadius: 6,
  })
  return {
    datasets: [
      ...(props.found
        ? [way(props.found, 'up', 'Found, up', soft), way(props.found, 'down', 'Found, down', soft)]
        : []),
      way(props.stroke, 'up', 'Up', ink),
      way(props.stroke, 'down', 'Down', ink),
      end(tolerance, `± ${tolerance} %`),
      end(-tolerance, ''),
    ],
  }
})
const options = computed<ChartOptions<'line'>>(() => {
  void theme.theme
  const reach = Math.ceil(
    Math.max(
      props.stroke.tolerance * 2,
      ...props.stroke.points.map((p) => Math.abs(p.travel - p.signal) * 1.2),
    ),
  )
  const signal = chartAxis('Signal, %')
  return {
    ...chartFrame(),
    scales: {
      x: {
        ...signal,
        type: 'linear',
        min: 0,
        max: 100,
        ticks: { ...signal.ticks, stepSize: 25 },
      },
      y: { ...chartAxis('Travel less signal, %'), min: -reach, max: reach },
    },
  }
})
</script>

<template>
  <section class="stroke" aria-labelledby="stroke-title">
    <h3 id="stroke-title">Stroke</h3>
    <div class="chart">
      <Line :data="data" :options="options" aria-label="Errors of the stroke" />
    </div>
    <dl>
      <div v-for="f in figures" :key="f.title">
        <dt>{{ f.title }}</dt>
        <dd class="mono">{{ f.value }}</dd>
      </div>
    </dl>
    <p v-if="says" class="says">{{ says }}</p>
  </section>
</template>

<style scoped>
.stroke {
  border-top: 2px solid var(--rule-strong);
  padding-top: 0.6rem;
  margin-bottom: 1.25rem;
}

h3 {
  font-size: 1.125rem;
}

.chart {
  height: 15rem;
}

dl {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(6rem, 1fr));
  gap: 0.25rem 1rem;
  margin: 0.6rem 0 0;
}

dt {
  font-weight: 400;
  color: var(--ink-soft);
}

dd {
  margin: 0;
  font-size: 1.125rem;
}

.says {
  margin: 0.6rem 0 0;
  font-weight: 600;
}
</style>
