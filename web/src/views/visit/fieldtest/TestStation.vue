<script setup lang="ts">
import { passes } from '@uvanta/core/rules'
import {
  diagnosisQuestion,
  movedSince,
  planOfVisit,
  type Notice,
  responsesOf,
  type RunName,
  stackOf,
  stationTitles,
  strokeOfRun,
} from '@uvanta/core/visit'
import { useMediaQuery } from '@vueuse/core'
import { computed, defineAsyncComponent, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { useOnceShown } from '@/composables/useOnceShown'
import { outcomeWords } from '@/composables/words'
import LinkButton from '@/parts/LinkButton.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import VerdictList from '@/parts/VerdictList.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'
import { useGauge } from '@/stores/gauge'
import { useGuide } from '../bench/useGuide'
import StationFrame from '../StationFrame.vue'
import FilledForm from './FilledForm.vue'
import GaugePanel from './GaugePanel.vue'
import SetStack from './SetStack.vue'
import StartTest from './StartTest.vue'
import TestHands from './TestHands.vue'
import TestStep from './TestStep.vue'
import { handsDone, handsInOneGo } from './handsInOneGo'

const TraceDialog = defineAsyncComponent(() => import('./TraceDialog.vue'))
const StrokeSheet = defineAsyncComponent(() => import('./StrokeSheet.vue'))
const FailTable = defineAsyncComponent(() => import('./FailTable.vue'))
const DiagnosisPanel = defineAsyncComponent(() => import('./DiagnosisPanel.vue'))
const FlowCurve = defineAsyncComponent(() => import('./FlowCurve.vue'))

/** The test sheet: one step at a time, the verdict growing beside it. */
const props = defineProps<{ run: RunName }>()
const store = useVisit()
const library = useLibrary()
const refusal = shallowRef<Notice | null>(null)
const impossible = ref('')
const cannot = ref(false)

const plan = computed(() =>
  library.library ? planOfVisit(store.state, library.library, props.run) : null,
)
const run = computed(() => store.state.runs[props.run])
const steps = computed(() => plan.value?.procedure.steps ?? [])
const chosen = ref<string | null>(null)
const step = computed(
  () =>
    steps.value.find((s) => s.id === chosen.value) ??
    steps.value.find((s) => !run.value?.stepsDone.includes(s.id)),
)
const verdict = computed(() => store.verdict(props.run))
const stack = computed(() =>
  library.library && run.value ? stackOf(store.state, library.library, props.run) : null,
)
const strokeOf = (name: RunName) =>
  library.library && store.state.runs[name] ? strokeOfRun(store.state, library.library, name) : null
const stroke = computed(() => strokeOf(props.run))
const responses = computed(() =>
  library.library ? responsesOf(store.state, library.library, props.run) : [],
)
/** What was found stands behind what is left. */
const foundStroke = computed(() => (props.run === 'as-left' ? strokeOf('as-found') : null))
const writable = computed(() => store.mine && !store.state.signed && !store.state.stopped)
const finished = computed(() => run.value?.finished ?? false)
const passed = computed(() => finished.value && passes(verdict.value?.outcome))
/** What a test that did not pass asks of the model, as long as something can be done about it. */
const question = computed(() =>
  library.library && writable.value
    ? diagnosisQuestion(store.state, library.library, props.run)
    : null,
)
/** Elements that may be to blame, the likeliest first. */
const suspects = ref<readonly string[]>([])
/** Whether there is more to see of it than its verdict. */
const drawn = computed(() =>
  Boolean(question.value ?? stack.value ?? stroke.value ?? responses.value.find((r) => r.seen)),
)
const moved = computed(() => (run.value && props.run === 'as-found' ? movedSince(store.state) : []))
const stationOpen = computed(() => !store.state.done.includes(props.run))
const leavable = computed(
  () => finished.value && props.run === 'as-found' && writable.value && stationOpen.value,
)

// The gauge comes on the line with the test and goes off it with the station.
const gauge = useGauge()
const narrow = useMediaQuery('(max-width: 43.75em)')
watch(
  () => Boolean(run.value && !finished.value && writable.value && gauge.streams.length > 0),
  (testing) => (testing ? void gauge.open() : gauge.close()),
  { immediate: true },
)
onBeforeUnmount(() => gauge.close())
/** Nothing is pressed that a gauge which is still looked for would move away under the thumb. */
const lookingForGauge = computed(
  () => writable.value && gauge.streams.length > 0 && !gauge.known && !gauge.streaming,
)

/** What hands do in one go, as long as some of it is left to them. */
const together = computed(() => {
  if (!step.value || chosen.value) return []
  const lines = handsInOneGo(steps.value, step.value, gauge.streaming)
  return lines.every((s) => handsDone(s, store.state, props.run)) ? [] : lines
})

const filling = ref(false)
const tracing = ref<string | null>(null)
const traceShown = computed({
  get: () => tracing.value !== null,
  set: (shown) => {
    if (!shown) tracing.value = null
  },
})
const traceWanted = useOnceShown(() => traceShown.value)
const traced = computed(() => run.value?.readings.filter((r) => r.trace).map((r) => r.item) ?? [])
const tracedReading = computed(
  () => run.value?.readings.findLast((r) => r.item === tracing.value && r.trace) ?? null,
)
const tracedTitle = computed(
  () => verdict.value?.items.find((i) => i.id === tracing.value)?.title ?? '',
)

function advance() {
  chosen.value = null
  refusal.value = null
}
function finish() {
  refusal.value = store.record('test-finished', { run: props.run })
}
const toRepair = () => (refusal.value = store.record('station-done', { station: 'as-found' }))
/** Nothing was opened: with the test, its way back to service is done too. */
const leftAsFound = () =>
  (refusal.value = store.recordAll([
    ['station-done', { station: 'as-found', skipTo: 'return' }],
    ['station-done', { station: 'return' }],
  ]))
function recordImpossible() {
  if (!impossible.value.trim()) {
    refusal.value = {
      why: 'The reason is missing.',
      remedy: 'Say why the readings cannot be taken.',
    }
    return
  }
  refusal.value = store.recordAll([
    ['as-found-impossible', { reason: impossible.value.trim() }],
    ['station-done', { station: 'as-found' }],
  ])
}
/** What the guide looks at before the test that it judges by. */
const { due } = useGuide(() => props.run)
const lookFirst = computed(() => props.run === 'as-found' && due.value !== null)
const title = computed(() => {
  if (!run.value) return props.run === 'as-found' ? 'Test it as it stands' : 'Test it again'
  return finished.value
    ? `${stationTitles[props.run].split(' ')[0]} test finished`
    : together.value.length > 0
      ? 'By hand, one after the other'
      : (step.value?.title ?? 'All steps are done')
})
</script>

<template>
  <StationFrame :title="title">
    <slot name="first" :active="writable && stationOpen && !finished" />
    <StartTest v-if="!run && plan && writable && !lookFirst" :run="props.run" :plan="plan" />
    <p
      v-else-if="!run && store.state.asFoundImpossible && props.run === 'as-found'"
      class="caution"
    >
      As-found could not be taken: {{ store.state.asFoundImpossible.reason }}
    </p>
    <p v-else-if="!run && !lookFirst" class="soft">No test was made here.</p>

    <template v-if="run && !finished">
      <FilledForm v-if="filling && plan" :run="props.run" :plan="plan" @close="filling = false" />
      <WaitingLine v-else-if="lookingForGauge" what="the gauge" />
      <TestHands
        v-else-if="together.length > 0 && writable"
        :key="together[0]?.id"
        :run="props.run"
        :steps="together"
        :number="steps.indexOf(together[0]!) + 1"
        :of="steps.length"
      />
      <TestStep
        v-else-if="step && writable"
        :key="step.id"
        :run="props.run"
        :step="step"
        :number="steps.indexOf(step) + 1"
        :of="steps.length"
        @advance="advance"
      />
      <div v-else-if="writable" class="actions">
        <BButton variant="primary" size="lg" @click="finish">Finish the test</BButton>
      </div>
      <ol v-if="!filling" class="steps no-print" aria-label="Steps of the procedure">
        <li v-for="(s, n) in steps" :key="s.id">
          <button
            type="button"
            :class="{ done: run.stepsDone.includes(s.id), now: s.id === step?.id }"
            :aria-label="`Step ${n + 1}: ${s.title}`"
            :aria-current="s.id === step?.id ? 'step' : undefined"
            @click="chosen = s.id"
          >
            {{ n + 1 }}
          </button>
        </li>
      </ol>
      <p v-if="writable && !filling" class="paper no-print">
        <LinkButton :to="{ name: 'paper-form', params: { id: store.visit?.id, run: props.run } }"
          >Blank form for paper</LinkButton
        >
        <BButton variant="link" @click="filling = true">Enter a filled form</BButton>
      </p>
    </template>

    <p v-if="finished && verdict" class="whole" role="status">
      <StateMark :state="verdict.outcome" :label="outcomeWords[verdict.outcome]" />
      <span>{{ verdict.reason }}</span>
      <span class="soft small pack">
        {{ verdict.rulePack.title }}, version {{ verdict.rulePack.version }} ·
        {{ verdict.decisionRule }} acceptance
      </span>
    </p>
    <p v-if="leavable && passed" class="soft mb-2">
      Nothing was opened. Caps and canopy on, nothing drips, the place is left clean.
    </p>
    <div v-if="leavable" class="actions">
      <BButton v-if="passed" variant="primary" size="lg" @click="leftAsFound"
        >Passed – left as it was found</BButton
      >
      <BButton :variant="passed ? 'outline-primary' : 'primary'" size="lg" @click="toRepair">
        {{ passed ? 'Open it all the same' : 'Make it safe, then repair' }}
      </BButton>
    </div>

    <DiagnosisPanel v-if="question" :question="question" @suspects="suspects = $event" />
    <slot v-if="leavable && !passed" name="failed" :suspects="suspects" />
    <VerdictList
      v-if="finished && verdict && !question"
      class="mt-4"
      items-only
      :verdict="verdict"
      title="Readings and verdict"
      :moved="moved"
      :traced="traced"
      @trace="tracing = $event"
    />
    <div v-if="props.run === 'as-found' && !run && writable && stationOpen" class="cannot">
      <BButton v-if="!cannot" variant="link" @click="cannot = true"
        >It cannot be tested as found</BButton
      >
      <template v-else>
        <label class="form-label" for="impossible">Why not</label>
        <BFormInput
          id="impossible"
          v-model="impossible"
          placeholder="Shut off since the flood; no water at the inlet"
        />
        <BButton class="mt-2" variant="outline-primary" @click="recordImpossible"
          >Record and go on</BButton
        >
      </template>
    </div>
    <ProblemNote :refusal="refusal" />

    <TraceDialog
      v-if="traceWanted"
      v-model="traceShown"
      :reading="tracedReading"
      :title="tracedTitle"
    />

    <template v-if="!finished || drawn" #aside>
      <GaugePanel v-if="gauge.streaming && run && !finished && !narrow" />
      <SetStack v-if="stack" :stack="stack" />
      <FlowCurve v-if="stack" :stack="stack" />
      <StrokeSheet
        v-if="stroke && stroke.points.length > 0"
        :stroke="stroke"
        :found="foundStroke"
      />
      <FailTable v-if="responses.some((r) => r.seen)" :responses="responses" />
      <VerdictList
        v-if="verdict && (!finished || question)"
        :items-only="finished"
        :verdict="verdict"
        title="Readings and verdict"
        :moved="moved"
        :traced="traced"
        @trace="tracing = $event"
      />
      <p v-else-if="!verdict" class="soft">Readings and verdict appear here as they are taken.</p>
    </template>
  </StationFrame>
</template>

<style scoped>
.steps {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  padding: 0;
  margin: 1.5rem 0 0;
}

.steps button {
  min-width: 48px;
  min-height: 48px;
  border: 1px solid var(--rule);
  background: none;
  color: var(--ink-soft);
  font-family: var(--bs-font-monospace);
}

.steps .done {
  background: var(--paper-sunk);
  color: var(--ink);
  border-color: var(--ink);
}

.steps .now {
  border: 3px solid var(--blue);
  color: var(--ink);
  font-weight: 700;
}

.paper {
  margin: 0.5rem 0 0;
}

.whole {
  border: 2px solid var(--rule-strong);
  background: var(--paper-raised);
  padding: 1.25rem;
  margin: 0.75rem 0 1.25rem;
}

.whole :deep(.state) {
  font-size: 2.5rem;
  font-weight: 700;
  display: flex;
}

.pack {
  display: block;
  margin-top: 0.35rem;
}

.cannot {
  margin-top: 1.5rem;
}
</style>
