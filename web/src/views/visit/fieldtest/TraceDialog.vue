<script setup lang="ts">
import { apparatusOf } from '@uvanta/core/apparatus'
import { roundTo } from '@uvanta/core/quantity'
import { analyseTrace, decodeTrace } from '@uvanta/core/trace'
import type { RunReading } from '@uvanta/core/visit'
import { computed, ref, watch } from 'vue'
import { unitWords } from '@/composables/words'
import DialogSheet from '@/parts/DialogSheet.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import Reading from '@/parts/Reading.vue'
import TraceChart from '@/parts/TraceChart.vue'
import { useVisit } from '@/stores/visit'

/** The trace of a reading: where it was read, what makes it doubtful; the mark can be moved, on record. */
const props = defineProps<{ reading: RunReading | null; title: string }>()
const shown = defineModel<boolean>({ required: true })
const store = useVisit()
const mark = ref(0)
const message = ref('')
watch(
  () => [props.reading, shown.value],
  () => {
    mark.value = props.reading?.trace?.mark ?? 0
    message.value = ''
  },
  { immediate: true },
)

const trace = computed(() => (props.reading?.trace ? decodeTrace(props.reading.trace.data) : null))
const doubts = computed(() =>
  trace.value ? analyseTrace(trace.value.values, trace.value).doubts : [],
)
const original = computed(() => props.reading?.trace?.mark ?? 0)
const digits = computed(() =>
  trace.value ? Math.max(0, Math.round(-Math.log10(trace.value.resolution))) : 2,
)
/** Mean of a second around the mark, so that one flicker is no reading. */
const value = computed(() => {
  if (!trace.value) return ''
  if (mark.value === original.value) return props.reading?.value ?? ''
  const half = Math.max(1, Math.round(0.5 / trace.value.periodS))
  const near = trace.value.values.slice(Math.max(0, mark.value - half), mark.value + half)
  const seen = near.filter((v) => v === v)
  if (seen.length === 0) return ''
  return roundTo(seen.reduce((a, b) => a + b, 0) / seen.length, digits.value)
})

const placeLabel = (id: string) =>
  apparatusOf(store.state.plan?.equipment.kind ?? '')?.places.find((p) => p.id === id)?.label ?? id

function readHere() {
  const r = props.reading
  if (!r?.trace || !value.value) return
  const { eventId, recordedAt: _at, recordedBy: _by, date: _date, ...payload } = r
  const refusal = store.record('correction', {
    of: eventId,
    why: 'Mark moved on the trace.',
    withdraw: false,
    payload: { ...payload, value: value.value, trace: { ...r.trace, mark: mark.value } },
  })
  message.value = refusal ? `${refusal.why} ${refusal.remedy}` : ''
  if (!refusal) shown.value = false
}
</script>

<template>
  <DialogSheet v-model="shown" :title="title" no-footer size="lg">
    <template v-if="trace && reading">
      <TraceChart
        :values="trace.values"
        :period-s="trace.periodS"
        :unit="trace.unit"
        :mark="mark"
        :height="240"
        @pick="mark = $event"
      />
      <label class="form-label mt-2" for="trace-mark">Where it is read</label>
      <BFormInput
        id="trace-mark"
        v-model.number="mark"
        type="range"
        class="form-range"
        min="0"
        :max="trace.values.length - 1"
      />
      <p class="row-line">
        <Reading :value="value" :unit="unitWords('differential', reading.unit)" size="large" />
        <span class="soft">at {{ (mark * trace.periodS).toFixed(1) }} s</span>
        <span v-if="reading.trace && reading.trace.mark !== reading.trace.found" class="soft"
          >· found at {{ (reading.trace.found * trace.periodS).toFixed(1) }} s, moved by hand</span
        >
      </p>
      <p v-for="b in reading.beside ?? []" :key="b.place" class="small beside">
        <span class="soft">{{ placeLabel(b.place) }} at the time</span>
        <Reading :value="b.value" :unit="unitWords('gaugePressure', b.unit)" />
        <span class="soft">from {{ b.low }} to {{ b.high }} while the trace was taken</span>
      </p>
      <p v-for="d in doubts" :key="d.kind" class="caution small">{{ d.says }}</p>
      <ProblemNote :message="message" />
      <div class="actions">
        <BButton variant="primary" :disabled="mark === original || !value" @click="readHere"
          >Read it here</BButton
        >
        <BButton variant="link" @click="shown = false">Leave it</BButton>
      </div>
    </template>
  </DialogSheet>
</template>

<style scoped>
.row-line {
  display: flex;
  flex-wrap: wrap;
  gap: 0.75rem;
  align-items: baseline;
}

.beside {
  margin: 0 0 0.25rem;
}

.form-range {
  min-height: 48px;
}
</style>
