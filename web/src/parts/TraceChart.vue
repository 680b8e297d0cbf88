<script setup lang="ts">
import { Chart, LinearScale, LineElement, PointElement } from 'chart.js'
import { computed } from 'vue'
import { Line } from 'vue-chartjs'
import { cssColour } from '@/composables/cssColour'
import { useTheme } from '@/stores/theme'

/** A trace over seconds, with the mark at which it was read. */
const props = defineProps<{
  values: Float64Array
  periodS: number
  unit: string
  mark?: number
  /** Courses of other channels over the same seconds, by an axis of their own at the right. */
  beside?: readonly (readonly { x: number; y: number }[])[]
  height?: number
}>()
const emit = defineEmits<{ pick: [index: number] }>()
Chart.register(LinearScale, LineElement, PointElement)
const theme = useTheme()

const MOST_POINTS = 600
const points = computed(() => {
  const stride = Math.max(1, Math.ceil(props.values.length / MOST_POINTS))
  const list: { x: number; y: number }[] = []
  for (let i = 0; i < props.values.length; i += stride) {
    list.push({ x: i * props.periodS, y: props.values[i] as number })
  }
  return list
})
/** The dashes by which the other channels are told apart. */
const DASHES = [
  [6, 4],
  [2, 3],
  [10, 3, 2, 3],
]
const data = computed(() => {
  void theme.theme
  const mark = props.mark
  const at = mark === undefined ? undefined : props.values[mark]
  return {
    datasets: [
      ...(mark !== undefined && at !== undefined
        ? [
            {
              data: [{ x: mark * props.periodS, y: at }],
              pointRadius: 9,
              pointStyle: 'crossRot' as const,
              pointBorderWidth: 3,
              borderColor: cssColour('--fail'),
              showLine: false,
            },
          ]
        : []),
      {
        data: points.value,
        borderColor: cssColour('--blue'),
        borderWidth: 2,
        pointRadius: 0,
        spanGaps: false,
      },
      ...(props.beside ?? []).map((points, n) => ({
        data: [...points],
        yAxisID: 'beside',
        borderColor: cssColour('--ink-soft'),
        borderWidth: 1,
        borderDash: DASHES[n % DASHES.length] as number[],
        pointRadius: 0,
      })),
    ],
  }
})
const options = computed(() => {
  void theme.theme
  const ticks = { color: cssColour('--ink-soft'), maxTicksLimit: 4, font: { size: 11 } }
  const grid = { color: cssColour('--rule'), lineWidth: 0.5 }
  return {
    responsive: true,
    maintainAspectRatio: false,
    animation: false as const,
    parsing: false as const,
    events: props.mark === undefined ? [] : (['click'] as 'click'[]),
    onClick(event: { x: number | null }, _: unknown, chart: Chart) {
      const seconds = chart.scales.x?.getValueForPixel(event.x ?? 0) ?? 0
      const index = Math.round(seconds / props.periodS)
      emit('pick', Math.min(Math.max(index, 0), props.values.length - 1))
    },
    scales: {
      x: {
        type: 'linear' as const,
        min: 0,
        max: Math.max(10, (props.values.length - 1) * props.periodS),
        ticks: { ...ticks, callback: (v: number | string) => `${Math.round(Number(v))} s` },
        grid: { display: false },
      },
      y: { beginAtZero: true, suggestedMax: 4, ticks, grid },
      ...(props.beside?.length
        ? {
            beside: {
              position: 'right' as const,
              beginAtZero: true,
              ticks,
              grid: { display: false },
            },
          }
        : {}),
    },
    plugins: { legend: { display: false }, tooltip: { enabled: false } },
  }
})
</script>

<template>
  <div :style="{ height: `${height ?? 116}px` }">
    <Line :data="data" :options="options" :aria-label="`Trace of the gauge in ${unit}`" />
  </div>
</template>
