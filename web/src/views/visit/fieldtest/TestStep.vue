<script setup lang="ts">
import { apparatusOf, signalAt } from '@uvanta/core/apparatus'
import type { ProcedureStep } from '@uvanta/core/procedure'
import { isPressure } from '@uvanta/core/rules'
import { type Dimension, toSi, unitLabel } from '@uvanta/core/quantity'
import type { Notice, RunName } from '@uvanta/core/visit'
import { useMediaQuery } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import Reading from '@/parts/Reading.vue'
import { useGauge } from '@/stores/gauge'
import { type Spec, useVisit } from '@/stores/visit'
import AdjustPanel from '../bench/AdjustPanel.vue'
import GaugePanel from './GaugePanel.vue'
import HoldClock from './HoldClock.vue'
import StepWhy from './StepWhy.vue'
import TestDrawing from './TestDrawing.vue'
import TypedReading from './TypedReading.vue'
import { handsWords } from './handMoveWords'
import { useStepActions } from './useStepActions'
import { useTakeReading } from './useTakeReading'

/** One step of the procedure: what to do, why, one big action, the drawing, and what is recorded. */
const props = defineProps<{ run: RunName; step: ProcedureStep; number: number; of: number }>()
const emit = defineEmits<{ advance: [] }>()
const store = useVisit()
const gauge = useGauge()
const record = props.step.record
const hands = useStepActions(() => props.step)
const reading = useTakeReading(props.run, props.step)
const refusal = shallowRef<Notice | null>(null)
const typing = ref(false)
const asItStands = ref(false)
const narrow = useMediaQuery('(max-width: 43.75em)')
const action = useTemplateRef<HTMLElement>('action')

/** What the calibrator is set to for the signal of this step, where the range of the drive is known. */
const calibrator = computed(() =>
  props.step.apply?.to.dimension === 'fraction'
    ? signalAt(store.state.plan?.equipment.nominals ?? [], toSi(props.step.apply.to))
    : null,
)
const runState = computed(() => store.state.runs[props.run])
const streamed = computed(
  () =>
    gauge.streaming &&
    !typing.value &&
    !record?.aside &&
    record?.dimension !== undefined &&
    shownOnLine(record.dimension),
)
/** Whether an instrument on the line shows such a quantity of this equipment. */
const shownOnLine = (dimension: Dimension) =>
  gauge.streams.includes(dimension) || (isPressure(dimension) && gauge.streams.some(isPressure))
/** With a gauge on the line the hands come first, then the reading; else both are one press. */
const handsFirst = computed(() => gauge.streaming && !typing.value && hands.left.value > 0)

/** Typed readings are held from the last one on. */
const secondsSinceReading = () => {
  const last = runState.value?.readings.at(-1)?.recordedAt
  return last ? (Date.now() - Date.parse(last)) / 1000 : 0
}

function focusAction() {
  void nextTick(() =>
    action.value?.querySelector<HTMLElement>('input, button')?.focus({ preventScroll: true }),
  )
}
onMounted(() => {
  if (record?.dimension) gauge.show(record.item, record.dimension)
  gauge.begin()
  focusAction()
})
watch(handsFirst, focusAction)
watch(reading.heightMm, (mm) => gauge.heldAt(Number(mm) / 1000 || 0))

/** With its last step, where nothing is read in that, the test is finished too. */
const finishes = computed(() => props.number === props.of && !record)
function next() {
  const { run, step } = props
  const done: Spec = ['step-done', { run, step: step.id }]
  refusal.value = store.recordAll(finishes.value ? [done, ['test-finished', { run }]] : [done])
  // What keeps the test open keeps nobody from doing its last step.
  if (refusal.value && finishes.value) refusal.value = store.recordAll([done])
  if (!refusal.value) emit('advance')
}

async function carryOut() {
  if (!(await hands.carryOut())) return
  if (!record) next()
}

/** What the hands did counts before what was read after it. */
async function handsDone(): Promise<boolean> {
  if (await hands.carryOut()) return true
  refusal.value = hands.refusal.value
  return false
}

async function takeTyped(value: string, unit: string, insisted: string | undefined) {
  if (!(await handsDone())) return
  refusal.value = reading.typed(value, unit, insisted)
  if (!refusal.value) next()
}

function takeStreamed(force: boolean) {
  if (reading.streamed(force)) return next()
  asItStands.value = record?.read === 'plateau'
}

async function answer(option: { id: string; label: string }) {
  if (!(await handsDone())) return
  refusal.value = store.record('answer', {
    run: props.run,
    item: record?.item ?? '',
    answer: option.id,
    label: option.label,
  })
  if (!refusal.value) next()
}

const message = computed(() => {
  const r = refusal.value ?? hands.refusal.value
  return reading.message.value || (r ? `${r.why} ${r.remedy}` : '')
})
const handWords = computed(() =>
  handsWords(hands.actions.value, apparatusOf(store.state.plan?.equipment.kind ?? '')),
)
const takeWords = computed(() =>
  record?.read === 'plateau'
    ? 'Take the reading'
    : record?.read === 'first-drip'
      ? 'First drip – read'
      : 'It opens – read',
)
</script>

<template>
  <div class="test-step">
    <p class="soft small count">Step {{ number }} of {{ of }}</p>
    <p v-if="step.how" class="how">{{ step.how }}</p>
    <p v-if="calibrator" class="calibrator">
      Calibrator at
      <Reading :value="calibrator.value" :unit="unitLabel(calibrator.dimension, calibrator.unit)" />
    </p>
    <p v-if="step.hazard" class="caution">{{ step.hazard }}</p>

    <GaugePanel v-if="narrow && gauge.streaming" slim />
    <div ref="action" class="do">
      <template v-if="hands.busy.value">
        <BButton variant="primary" size="lg" disabled
          >Turning {{ hands.done.value }} of {{ hands.actions.value.length }}</BButton
        >
      </template>
      <BButton v-else-if="handsFirst" variant="primary" size="lg" @click="carryOut"
        >{{ record ? 'Carry it out' : handWords
        }}<small v-if="finishes" class="finishes">That ends the test</small></BButton
      >
      <template v-else-if="record?.ask === 'reading'">
        <HoldClock
          v-if="record.hold"
          :hold="record.hold"
          :held-s="streamed ? () => reading.held().s : secondsSinceReading"
        />
        <div v-if="streamed" class="actions">
          <BButton variant="primary" size="lg" @click="takeStreamed(false)">{{
            takeWords
          }}</BButton>
          <BButton v-if="asItStands" variant="outline-primary" @click="takeStreamed(true)"
            >Take it as it stands</BButton
          >
          <BButton variant="link" @click="typing = true">Type it instead</BButton>
        </div>
        <TypedReading
          v-else-if="runState"
          :record="record"
          :step-id="step.id"
          :run="runState"
          @typing="typing = true"
          @take="takeTyped"
        />
        <div v-if="record.head" class="height">
          <label :for="`height-${step.id}`">Gauge above the port</label>
          <BFormInput
            :id="`height-${step.id}`"
            v-model="reading.heightMm.value"
            class="mono"
            inputmode="decimal"
          />
          <span class="soft">mm</span>
          <span class="soft small">or press the scale on the drawing</span>
        </div>
      </template>
      <div v-else-if="record" class="answers" role="group" :aria-label="record.title">
        <p class="question">{{ record.title }}</p>
        <BButton
          v-for="o in record.answers"
          :key="o.id"
          variant="outline-primary"
          size="lg"
          @click="answer(o)"
          >{{ o.label }}</BButton
        >
      </div>
      <BButton v-else variant="primary" size="lg" @click="carryOut"
        >{{ handWords }}<small v-if="finishes" class="finishes">That ends the test</small></BButton
      >
    </div>
    <ProblemNote :message="message" />
    <AdjustPanel v-if="run === 'as-left' && record" :item="record.item" />

    <TestDrawing
      :hands="hands"
      :height-mm="record?.head ? Number(reading.heightMm.value) || 0 : null"
      @height="reading.heightMm.value = String($event)"
    />

    <StepWhy :step="step" />
  </div>
</template>

<style scoped>
.count {
  margin-bottom: 0.15rem;
}

.how {
  font-size: 1.125rem;
  margin-bottom: 0.5rem;
}

.do {
  margin: 0.6rem 0;
  min-height: 58px;
}

.answers {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
}

.finishes {
  display: block;
  font-weight: 400;
}

.question {
  margin: 0;
  font-weight: 600;
  flex-basis: 100%;
}

.height {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
  margin-top: 0.6rem;
}

.height label {
  font-weight: 600;
}

.height input {
  width: 6rem;
}

@media (max-width: 43.75em) {
  .do > .btn,
  .actions .btn-primary,
  .answers .btn {
    width: 100%;
  }

  .answers .btn {
    justify-content: flex-start;
    text-align: left;
  }
}
</style>
