<script setup lang="ts">
import { checkOutcomes, type PayloadOf, type Refusal, type RunName } from '@uvanta/core/visit'
import { type Dimension, unitLabel, unitsOf } from '@uvanta/core/quantity'
import { computed, reactive, ref, shallowRef } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import { useSession } from '@/stores/session'
import { useVisit } from '@/stores/visit'
import PhotoStrip from './PhotoStrip.vue'
import StationFrame from './StationFrame.vue'

/** How equipment without a field test works, as found or as left: seen, tried, measured. */
const props = defineProps<{ run: RunName }>()
const store = useVisit()
const session = useSession()
const refusal = shallowRef<Refusal | null>(null)
const message = ref('')
const asFound = computed(() => props.run === 'as-found')
const check = computed(() => store.state.checks[props.run])
const writable = computed(() => store.mine && !store.state.signed && !store.state.stopped)
const current = computed(() => !store.state.done.includes(props.run))

const WORDS = {
  works: 'It works as it should',
  'works-not': 'It does not',
  'not-tried': 'It could not be tried',
} as const
const MARKS = { works: 'pass', 'works-not': 'fail', 'not-tried': 'open' } as const
const KINDS = ['gaugePressure', 'differential', 'length', 'temperature'] as const
const KIND_WORDS = {
  gaugePressure: 'pressure',
  differential: 'differential',
  length: 'length',
  temperature: 'temperature',
} as const

const text = ref('')
const readings = ref<{ title: string; dimension: Dimension; value: string; unit: string }[]>([])
const row = reactive({
  title: '',
  dimension: 'gaugePressure' as Dimension,
  value: '',
  unit: session.units.gaugePressure as string,
})
const setKind = (kind: Dimension) => {
  row.dimension = kind
  row.unit = unitsOf(row.dimension)[0] ?? ''
}
function add() {
  message.value = ''
  if (!row.title.trim() || !/^-?\d{1,6}(\.\d{1,4})?$/.test(row.value.trim())) {
    message.value = 'Give the reading a name, and its value in digits as displayed.'
    return
  }
  readings.value = [...readings.value, { ...row, title: row.title.trim(), value: row.value.trim() }]
  Object.assign(row, { title: '', value: '' })
}
function record(outcome: PayloadOf<'checked'>['outcome']) {
  message.value = text.value.trim() ? '' : 'Write in a few words what was seen and tried.'
  if (message.value) return
  refusal.value = store.record('checked', {
    run: props.run,
    outcome,
    text: text.value.trim(),
    ...(readings.value.length > 0
      ? {
          readings: readings.value.map(({ title, dimension, value, unit }) => ({
            title,
            reading: { dimension, value, unit },
          })),
        }
      : {}),
  })
}
function leave(skip: boolean) {
  refusal.value = store.record('station-done', {
    station: 'as-found',
    ...(skip ? { skipTo: 'return' as const } : {}),
  })
}
</script>

<template>
  <StationFrame
    :title="asFound ? 'See how it works before anything is disturbed' : 'Try it again'"
    :lead="
      asFound
        ? 'Stroke it, listen, look at weep holes and vents, read what it holds. Once it has been opened, this evidence is gone.'
        : 'The same as before, the other way too where it moves both ways. What it does on loss of air or power is seen, not believed.'
    "
  >
    <template v-if="check">
      <p class="outcome">
        <StateMark :state="MARKS[check.outcome]" :label="WORDS[check.outcome]" />
      </p>
      <p>{{ check.text }}</p>
      <ul v-if="check.readings?.length" class="rows readings">
        <li v-for="r in check.readings" :key="r.title">
          <span>{{ r.title }}</span>
          <span class="mono"
            >{{ r.reading.value }} {{ unitLabel(r.reading.dimension, r.reading.unit) }}</span
          >
        </li>
      </ul>
      <div v-if="asFound && writable && current" class="actions mt-3">
        <BButton variant="primary" size="lg" @click="leave(false)">Carry on to Make safe</BButton>
        <BButton
          v-if="check.outcome === 'works'"
          variant="outline-primary"
          size="lg"
          @click="leave(true)"
          >Nothing has to be opened</BButton
        >
      </div>
    </template>
    <form v-else-if="writable && current" novalidate @submit.prevent>
      <label class="form-label" :for="`check-${run}`">What was seen and tried</label>
      <BFormTextarea :id="`check-${run}`" v-model="text" rows="3" />
      <ul v-if="readings.length > 0" class="rows readings mt-2">
        <li v-for="(r, n) in readings" :key="n">
          <span>{{ r.title }}</span>
          <span class="mono">{{ r.value }} {{ unitLabel(r.dimension, r.unit) }}</span>
          <BButton
            size="sm"
            variant="link"
            @click="readings = readings.filter((_, other) => other !== n)"
            >Remove</BButton
          >
        </li>
      </ul>
      <fieldset class="row-entry">
        <legend class="form-label">Readings (optional)</legend>
        <BFormInput
          v-model="row.title"
          aria-label="Name of the reading"
          placeholder="Lock-up, first movement, travel"
        />
        <BFormSelect
          aria-label="Kind of reading"
          :model-value="row.dimension"
          @update:model-value="setKind($event as Dimension)"
        >
          <option v-for="k in KINDS" :key="k" :value="k">{{ KIND_WORDS[k] }}</option>
        </BFormSelect>
        <BFormInput
          v-model="row.value"
          class="mono"
          aria-label="Value of the reading"
          inputmode="decimal"
        />
        <BFormSelect v-model="row.unit" aria-label="Unit of the reading">
          <option v-for="u in unitsOf(row.dimension)" :key="u" :value="u">
            {{ unitLabel(row.dimension, u) }}
          </option>
        </BFormSelect>
        <BButton variant="outline-primary" @click="add">Add</BButton>
      </fieldset>
      <div class="actions mt-3">
        <BButton
          v-for="o in checkOutcomes"
          :key="o"
          size="lg"
          :variant="o === 'works' ? 'primary' : 'outline-primary'"
          @click="record(o)"
          >{{ WORDS[o] }}</BButton
        >
      </div>
    </form>
    <p v-else class="soft">Nothing is on record here.</p>
    <ProblemNote :message="message" :refusal="refusal" />
    <PhotoStrip :station="run" :caption="asFound ? 'As found' : 'As left'" />
  </StationFrame>
</template>

<style scoped>
.outcome {
  font-size: 1.375rem;
  font-weight: 600;
}

.readings li {
  display: flex;
  justify-content: space-between;
  gap: 1rem;
  padding: 0.4rem 0;
  align-items: center;
  max-width: 30rem;
}

.row-entry {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 1fr) 7rem 6rem auto;
  gap: 0.5rem;
  margin-top: 1rem;
}

.row-entry legend {
  float: none;
  font-size: 1rem;
  grid-column: 1 / -1;
}

@media (max-width: 700px) {
  .row-entry {
    grid-template-columns: 1fr 1fr;
  }

  .actions .btn {
    width: 100%;
  }
}
</style>
