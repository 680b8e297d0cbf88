<script setup lang="ts">
import type { Gauge } from '@uvanta/contract'
import { gaugeUnder } from '@uvanta/contract/gaugeUnder'
import { licenceKinds } from '@uvanta/core/catalogue'
import { api } from 'virtual:api'
import type { TestPlan } from '@uvanta/core/library'
import { validOn } from '@uvanta/core/calendar'
import { needsGauge, type Notice, type RunName } from '@uvanta/core/visit'
import { useStorage } from '@vueuse/core'
import { dimensionShown } from '@uvanta/core/instrument'
import { unitLabel, unitsOf } from '@uvanta/core/quantity'
import { isPressure } from '@uvanta/core/rules'
import { displayed } from '@uvanta/core/schema'
import { computed, onMounted, ref, shallowRef } from 'vue'
import { array, object, string } from 'yup'
import { call } from '@/api/client'
import { useLoad } from '@/composables/useLoad'
import { dateWords } from '@/composables/words'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'
import LinkButton from '@/parts/LinkButton.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import { useGauge } from '@/stores/gauge'
import { useSession } from '@/stores/session'
import { useVisit } from '@/stores/visit'
import { gaugesFor } from './gaugeChoice'

/** Choose the gauge, see that licence and calibration hold, note the line pressure, begin. */
const props = defineProps<{ run: RunName; plan: TestPlan }>()
const store = useVisit()
const session = useSession()
const link = useGauge()
const refusal = shallowRef<Notice | null>(null)
const remembered = useStorage('uvanta-gauge', '')
/** The gauges are known, or cannot be had; before that there is nothing to choose from. */
const ready = ref(false)
const lineUnit = useStorage<string>('uvanta-line-unit', session.units.gaugePressure)
const { values, submit, set } = useEntry(
  object({
    gaugeId: string(),
    gaugeIds: array(string().required()).required(),
    pressure: displayed(),
    unit: string().required(),
  }),
  { unit: lineUnit.value, gaugeIds: [] },
  start,
)

const {
  value: gauges,
  problem,
  load,
} = useLoad(async () => (await call(api.gauges.list)).items.filter((g) => g.active))
onMounted(async () => {
  try {
    await Promise.all([load(), link.load()])
    const fit = gauges.value ?? []
    const earlier = store.state.runs['as-found']?.started.instruments.map((i) => i.id) ?? []
    const calibrated = fit.filter((g) => calibrationOf(g))
    const wanted = fit.find((g) => g.id === (earlier[0] ?? remembered.value))
    const found = wanted ?? calibrated[0]
    if (found) set('gaugeId', found.id)
    const nominals = store.state.plan?.equipment.nominals ?? []
    const several =
      earlier.length > 0
        ? earlier
        : gaugesFor(nominals, calibrated, props.plan.procedure).map((g) => g.id as string)
    set('gaugeIds', several)
  } finally {
    ready.value = true
  }
})

const calibrationOf = (g: Gauge) =>
  g.calibrations.find((c) => validOn(session.today, c.calibratedOn, c.validUntil))
/** A differential kit is one gauge; elsewhere each range has its own. */
const kit = computed(() => link.streams[0] === 'differential')
const wantsGauge = computed(() => needsGauge(props.plan.procedure))
/** What is read on an instrument of the register, a gauge or another. */
const instruments = computed(() => {
  const read = props.plan.procedure.steps.flatMap((s) => s.record?.dimension ?? [])
  const shown = (g: Gauge) => {
    const of = dimensionShown(g.spanUnit)
    return of !== undefined && read.some((d) => d === of || (isPressure(d) && isPressure(of)))
  }
  return (gauges.value ?? []).filter(shown)
})
const chosen = computed(() => {
  const ids = kit.value ? [values.gaugeId] : (values.gaugeIds ?? [])
  return instruments.value.filter((g) => ids.includes(g.id))
})
const gaugeOptions = computed(() =>
  instruments.value.map((g) => ({
    value: g.id as string,
    text: `${g.tag} · ${g.span} ${scaleWords(g.spanUnit)}${calibrationOf(g) ? '' : ' · out of calibration'}`,
  })),
)
/** A gauge’s unit as of a gauge pressure; another instrument’s as of what it shows. */
function scaleWords(unit: string): string {
  const of = dimensionShown(unit)
  return unitLabel(!of || isPressure(of) ? 'gaugePressure' : of, unit)
}
const units = unitsOf('gaugePressure').map((value) => ({
  value,
  text: unitLabel('gaugePressure', value),
}))
const licence = computed(() =>
  session.person?.licences.find((l) => l.kind === props.plan.pack.licence),
)

function instrumentOf(g: Gauge) {
  const calibration = calibrationOf(g) ?? g.calibrations[0]
  return calibration ? [gaugeUnder(g, calibration)] : []
}

function start({ pressure, unit }: { pressure?: string | undefined; unit: string }) {
  refusal.value = null
  const bare = chosen.value.find((g) => g.calibrations.length === 0)
  if (bare) {
    refusal.value = {
      why: `Gauge ${bare.tag} has no calibration.`,
      remedy: 'Choose one that has, or have its calibration entered.',
    }
    return
  }
  if (!licence.value) {
    const kind = licenceKinds[props.plan.pack.licence as keyof typeof licenceKinds]
    refusal.value = {
      why: `You hold no licence “${kind}”.`,
      remedy: 'Hand the visit to a licensed tester, or have the licence entered.',
    }
    return
  }
  lineUnit.value = unit
  refusal.value = store.record('test-started', {
    run: props.run,
    procedureId: props.plan.procedure.id,
    procedureVersion: props.plan.procedure.version,
    packVersion: props.plan.pack.version,
    instruments: chosen.value.flatMap(instrumentOf),
    licence: {
      kind: licence.value.kind,
      number: licence.value.number,
      expiresOn: licence.value.expiresOn,
    },
    ...(pressure
      ? { linePressure: { dimension: 'gaugePressure' as const, value: pressure.trim(), unit } }
      : {}),
  })
  if (!refusal.value && values.gaugeId) remembered.value = values.gaugeId
}
</script>

<template>
  <form novalidate @submit.prevent="submit">
    <p class="lead">
      {{ plan.procedure.title }}. {{ plan.procedure.steps.length }} steps, under
      {{ plan.pack.title }}.
    </p>
    <p v-if="run === 'as-found'" class="soft">
      Before anything is disturbed: once it has been opened, this evidence is gone.
    </p>
    <ProblemNote :problem="problem" @retry="load" />
    <div class="grid">
      <div>
        <template v-if="instruments.length > 0">
          <EntryField
            v-if="kit"
            name="gaugeId"
            label="Gauge"
            kind="choice"
            :options="gaugeOptions"
          />
          <EntryField
            v-else
            name="gaugeIds"
            label="Instruments"
            kind="checks"
            :options="gaugeOptions"
          />
        </template>
        <p v-for="g in chosen" :key="g.id" class="small mt-1 mb-0">
          <span v-if="chosen.length > 1" class="mono chosen">{{ g.tag }}</span>
          <StateMark
            v-if="calibrationOf(g)"
            state="pass"
            :label="`In calibration to ${dateWords(calibrationOf(g)?.validUntil)}`"
          />
          <StateMark
            v-else
            state="failed"
            :label="`Out of calibration since ${dateWords(g.calibrations[0]?.validUntil)}`"
          />
        </p>
      </div>
      <div>
        <div v-if="wantsGauge" class="pair">
          <EntryField
            name="pressure"
            :label="kit ? 'Line pressure' : 'Inlet pressure, if known'"
            mono
            inputmode="decimal"
            :placeholder="kit ? '62' : ''"
          />
          <EntryField
            name="unit"
            label="Unit of the line pressure"
            quiet
            kind="choice"
            :options="units"
          />
        </div>
        <p v-if="licence" class="small mt-1">
          <StateMark
            :state="licence.expiresOn < session.today ? 'failed' : 'pass'"
            :label="`Licence ${licence.number}, ${licence.expiresOn < session.today ? 'expired' : 'valid to'} ${dateWords(licence.expiresOn)}`"
          />
        </p>
      </div>
    </div>
    <!-- Before the sources are known there is nothing to choose from. -->
    <fieldset v-if="ready && link.streams.length > 0" class="source">
      <legend class="form-label">Readings</legend>
      <BFormRadioGroup
        name="source"
        :options="link.sources.map((s) => ({ value: s.id, text: s.title }))"
        :model-value="link.source"
        @update:model-value="link.choose($event as typeof link.source)"
      />
    </fieldset>
    <ProblemNote :refusal="refusal" />
    <div class="actions">
      <BButton type="submit" variant="primary" size="lg" :disabled="!ready"
        >Start the {{ run === 'as-found' ? 'as-found' : 'as-left' }} test</BButton
      >
      <LinkButton :to="{ name: 'paper-form', params: { id: store.visit?.id, run } }"
        >Blank form for paper</LinkButton
      >
    </div>
  </form>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(16rem, 1fr));
  gap: 1rem 1.5rem;
  margin: 1rem 0;
}

.chosen {
  margin-right: 0.6rem;
}

.source {
  display: flex;
  flex-wrap: wrap;
  gap: 0.25rem 1.5rem;
  margin-bottom: 1rem;
}

.source legend {
  float: none;
  width: 100%;
  font-size: 1rem;
}

.pair {
  display: grid;
  grid-template-columns: 1fr 6rem;
  align-items: end;
  gap: 0.5rem;
}
</style>
