<script setup lang="ts">
import { dimensionShown } from '@uvanta/core/instrument'
import { isPressure } from '@uvanta/core/rules'
import { useIntervalFn } from '@vueuse/core'
import { computed, defineAsyncComponent, shallowRef } from 'vue'
import { unitWords } from '@/composables/words'
import StateMark from '@/parts/StateMark.vue'
import { useSession } from '@/stores/session'
import { useGauge } from '@/stores/gauge'

const session = useSession()

/** The gauge on the line: what it shows, its trace, and how the link stands. */
const props = defineProps<{ slim?: boolean }>()
/** A chart takes more script than all the rest of a test. */
const TraceChart = defineAsyncComponent(() => import('@/parts/TraceChart.vue'))
const height = computed(() => (props.slim ? 72 : 116))
const gauge = useGauge()

const REFRESH_MS = 200
const SHOWN_S = 40
const values = shallowRef<Float64Array>(new Float64Array(0))
/** What a recorder shows beside, as “Inlet 60.1 psi”. */
const beside = shallowRef<{ label: string; says: string }[]>([])
/** Its course over the same stretch: the chart is drawn anew when this changes, not with every sample. */
const courses = shallowRef<{ x: number; y: number }[][]>([])
const placeLabel = (id: string) => gauge.places.find((p) => p.id === id)?.label ?? id
useIntervalFn(() => {
  const trace = gauge.trace()
  values.value = trace.slice(-Math.round(SHOWN_S / gauge.periodS))
  const first = trace.length - values.value.length
  const channels = gauge.channels()
  beside.value = channels.map(({ place, unit, points }) => ({
    label: placeLabel(place),
    says: `${points.at(-1)?.value.toFixed(2) ?? '– –'} ${unitWords('gaugePressure', unit)}`,
  }))
  courses.value = channels.map(({ points }) =>
    points
      .filter((p) => p.at >= first)
      .map((p) => ({ x: (p.at - first) * gauge.periodS, y: p.value })),
  )
}, REFRESH_MS)

const STATES: Readonly<Record<string, readonly [string, string]>> = {
  off: ['not-assessed', 'Not on the line'],
  connecting: ['not-assessed', 'Connecting'],
  live: ['pass', 'On the line'],
  silent: ['marginal', 'Silent. Look whether it is switched on'],
  rubbish: ['fail', 'Sends what cannot be read. Check the cable'],
  lost: ['fail', 'Lost. Connecting again; what was taken is kept'],
}
const state = computed(() => STATES[gauge.view?.state ?? 'off'] ?? ['not-assessed', ''])
const flat = computed(() => (gauge.view?.battery ?? 100) < 10)
/** Of what the instrument on the line shows; before it has said so, of what the step reads. */
const shows = computed(() => {
  const of = dimensionShown(gauge.view?.hello?.unit ?? '') ?? gauge.dimension
  // A gauge shows gauge pressures and differentials alike: it is called what the step reads.
  return isPressure(of) && isPressure(gauge.dimension) ? gauge.dimension : of
})
const pressure = computed(() =>
  gauge.dimension === 'differential' ? 'differential' : 'gaugePressure',
)
const unit = computed(() =>
  unitWords(shows.value, gauge.view?.hello?.unit ?? session.units[pressure.value]),
)
const shown = computed(() => gauge.view?.value?.toFixed(2) ?? '– –')
</script>

<template>
  <section class="panel" :class="{ slim }" aria-label="Gauge">
    <p class="shown mono">
      <span class="value">{{ shown }}</span> <span class="unit">{{ unit }}</span>
    </p>
    <div :style="{ minHeight: `${height}px` }">
      <TraceChart
        :values="values"
        :period-s="gauge.periodS"
        :unit="unit"
        :beside="courses"
        :height="height"
      />
    </div>
    <dl v-if="beside.length > 0" class="beside small" aria-label="Other channels of the recorder">
      <div v-for="(b, n) in beside" :key="b.label">
        <dt :class="`line-${n}`">{{ b.label }}</dt>
        <dd class="mono">{{ b.says }}</dd>
      </div>
    </dl>
    <p class="small link-state" role="status">
      <StateMark :state="state[0]" :label="state[1]" />
      <span v-if="gauge.view?.hello" class="soft"> · {{ gauge.view.hello.tag }}</span>
    </p>
    <p v-if="flat" class="caution small">
      The gauge’s battery is at {{ gauge.view?.battery }} %. Finish this reading and change it.
    </p>
    <p v-if="gauge.view?.says" class="soft small">{{ gauge.view.says }}</p>
  </section>
</template>

<style scoped>
.panel {
  border: 2px solid var(--rule-strong);
  background: var(--paper-raised);
  padding: 0.6rem 0.9rem 0.5rem;
  margin-bottom: 1.1rem;
}

.shown {
  margin: 0;
  line-height: 1;
}

.value {
  font-size: 3.25rem;
  font-weight: 600;
  letter-spacing: -0.02em;
}

.slim {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 0 0.75rem;
  align-items: center;
  padding: 0.4rem 0.6rem;
  margin-bottom: 0.6rem;
}

.slim .value {
  font-size: 2.25rem;
}

.slim .link-state {
  grid-column: 1 / -1;
}

.beside {
  display: flex;
  flex-wrap: wrap;
  gap: 0.1rem 1.25rem;
  margin: 0.25rem 0 0;
}

.slim .beside {
  grid-column: 1 / -1;
}

.beside div {
  display: flex;
  gap: 0.5rem;
  align-items: baseline;
}

.beside dt {
  font-weight: 400;
  color: var(--ink-soft);
  border-bottom: 2px dashed var(--ink-soft);
}

.beside .line-1 {
  border-bottom-style: dotted;
}

.beside dd {
  margin: 0;
}

.unit {
  font-size: 1rem;
  color: var(--ink-soft);
}

.link-state {
  margin: 0.25rem 0 0;
  display: flex;
  gap: 0.25rem;
  align-items: center;
}
</style>
