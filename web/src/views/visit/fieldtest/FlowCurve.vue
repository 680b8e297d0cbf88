<script setup lang="ts">
import { unitLabel } from '@uvanta/core/quantity'
import type { PressureStack } from '@uvanta/core/visit'
import {
  CategoryScale,
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
import { useTheme } from '@/stores/theme'

/** How the outlet falls from no flow to the load that can be drawn, as found and as left over each other. */
const props = defineProps<{ stack: PressureStack }>()
Chart.register(CategoryScale, Legend, LinearScale, LineElement, PointElement)
const theme = useTheme()

/** What is drawn at each point of the curve. */
const FLOWS: Readonly<Record<string, string>> = {
  'lock-up': 'No flow',
  set: 'Small flow',
  'half-load': 'Half load',
  load: 'Load',
}
const rows = computed(() => props.stack.curve)
/** One point is no curve. */
const drawn = computed(() => rows.value.filter((r) => r.found ?? r.left).length > 1)
const data = computed<ChartData<'line', (number | null)[]>>(() => {
  void theme.theme
  const [found, left] = [cssColour('--blue'), cssColour('--pass')]
  return {
    labels: rows.value.map((r) => FLOWS[r.id] ?? r.title),
    datasets: [
      {
        label: 'As found',
        data: rows.value.map((r) => r.found ?? null),
        borderColor: found,
        backgroundColor: found,
        pointRadius: 5,
      },
      {
        label: 'As left',
        data: rows.value.map((r) => r.left ?? null),
        borderColor: left,
        backgroundColor: left,
        pointStyle: 'rectRot',
        pointRadius: 7,
      },
    ],
  }
})
const options = computed<ChartOptions<'line'>>(() => {
  void theme.theme
  const unit = unitLabel('gaugePressure', props.stack.unit)
  return { ...chartFrame(), scales: { x: chartAxis(), y: chartAxis(`Outlet, ${unit}`) } }
})
</script>

<template>
  <section v-if="drawn" class="curve" aria-label="Outlet over flow">
    <Line :data="data" :options="options" aria-label="Outlet from no flow to load" />
  </section>
</template>

<style scoped>
.curve {
  height: 13rem;
  margin-bottom: 1.25rem;
}
</style>
