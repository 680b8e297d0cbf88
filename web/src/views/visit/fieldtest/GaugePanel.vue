<script setup lang="ts">
import { dimensionShown } from '@uvanta/core/instrument'
import { isPressure } from '@uvanta/core/rules'
import { useIntervalFn } from '@vueuse/core'
import { computed, shallowRef } from 'vue'
import { unitWords } from '@/composables/words'
import StateMark from '@/parts/StateMark.vue'
import TraceChart from '@/parts/TraceChart.vue'
import { useSession } from '@/stores/session'
import { useGauge } from '@/stores/gauge'

const session = useSession()

/** The gauge on the line: what it shows, its trace, and how the link stands. */
defineProps<{ slim?: boolean }>()
const gauge = useGauge()

const REFRESH_MS = 200
const SHOWN_S = 40
const values = shallowRef<Float64Array>(new Float64Array(0))
useIntervalFn(() => {
  values.value = gauge.trace().slice(-Math.round(SHOWN_S / gauge.periodS))
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
    <TraceChart :values="values" :period-s="gauge.periodS" :unit="unit" :height="slim ? 72 : 116" />
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
