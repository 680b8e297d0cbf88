<script setup lang="ts">
import { checkOutcomes, type PayloadOf, type Notice, type RunName } from '@uvanta/core/visit'
import { unitLabel } from '@uvanta/core/quantity'
import { prose } from '@uvanta/core/schema'
import { computed, ref, shallowRef } from 'vue'
import { object } from 'yup'
import EntryField from '@/parts/form/EntryField.vue'
import { keepTyped } from '@/parts/form/keepTyped'
import { useEntry } from '@/parts/form/useEntry'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import { useVisit } from '@/stores/visit'
import PhotoStrip from './PhotoStrip.vue'
import SeenReading from './SeenReading.vue'
import StationFrame from './StationFrame.vue'

/** How equipment without a field test works, as found or as left: seen, tried, measured. */
const props = defineProps<{ run: RunName }>()
const store = useVisit()
const refusal = shallowRef<Notice | null>(null)
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

type Checked = PayloadOf<'checked'>
const readings = ref<NonNullable<Checked['readings']>>([])
const outcome = ref<Checked['outcome']>('works')
const { submit } = useEntry(
  object({ text: prose(1000).required('is missing: write in a few words') }),
  {},
  ({ text }) =>
    (refusal.value = store.record('checked', {
      run: props.run,
      outcome: outcome.value,
      text: text.trim(),
      ...(readings.value.length > 0
        ? { readings: readings.value.map((r) => ({ ...r, reading: { ...r.reading } })) }
        : {}),
    })),
  `${store.visit?.id}/checked-${props.run}`,
)
keepTyped(
  `${store.visit?.id}/seen-${props.run}`,
  () => readings.value,
  (kept) => (readings.value = kept),
)
function record(as: Checked['outcome']) {
  outcome.value = as
  return submit()
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
      <EntryField name="text" label="What was seen and tried" kind="lines" />
      <ul v-if="readings.length > 0" class="rows readings mt-2">
        <li v-for="(r, n) in readings" :key="n">
          <span>{{ r.title }}</span>
          <span class="mono"
            >{{ r.reading.value }} {{ unitLabel(r.reading.dimension, r.reading.unit) }}</span
          >
          <BButton
            size="sm"
            variant="link"
            @click="readings = readings.filter((_, other) => other !== n)"
            >Remove</BButton
          >
        </li>
      </ul>
      <SeenReading
        @read="({ title, ...reading }) => (readings = [...readings, { title, reading }])"
      />
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
    <ProblemNote :refusal="refusal" />
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

@media (max-width: 43.75em) {
  .actions .btn {
    width: 100%;
  }
}
</style>
