<script setup lang="ts">
import { type PlacedStep, relaxingOf, stepWords } from '@uvanta/core/guide'
import { currentStation, type PayloadOf, type Notice } from '@uvanta/core/visit'
import { computed, onMounted, ref, shallowRef, useTemplateRef } from 'vue'
import ReasonForm from '@/parts/form/ReasonForm.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useVisit } from '@/stores/visit'
import PhotoStrip from '../PhotoStrip.vue'
import KitCount from '../prepare/KitCount.vue'
import LockList from '../safe/LockList.vue'
import ProofForm from '../safe/ProofForm.vue'
import BoltGuide from './BoltGuide.vue'
import CheckFailed from './CheckFailed.vue'
import GroovesForm from './GroovesForm.vue'
import InspectionChoice from './InspectionChoice.vue'
import PiecesForm from './PiecesForm.vue'
import RelaxingRounds from './RelaxingRounds.vue'
import SettingForm from './SettingForm.vue'
import SlotValue from '../bench/SlotValue.vue'
import StepClock from './StepClock.vue'
import StepGuidance from './StepGuidance.vue'
import StepMachine from './StepMachine.vue'
import StepWhy from './StepWhy.vue'
import TemporaryForm from './TemporaryForm.vue'
import ThrowsForm from './ThrowsForm.vue'
import TorqueCard from './TorqueCard.vue'
import { actionWords } from './actionWords'
import { useGuide } from '../bench/useGuide'
import { useMachine } from '../bench/useMachine'
import { useStepEntries } from './useStepEntries'

/** One step of a guide: the sentence large, why, what never, and one big action. */
const props = defineProps<{
  step: PlacedStep
  number: number
  of: number
  /** It is not its turn: doing it now needs a reason. */
  early?: boolean
  /** The part comes off just before it is judged: the same press records both. */
  first?: PlacedStep | undefined
  /** What else is true once this last step of a station is done; the press says that as well. */
  ends?: string | undefined
}>()
const emit = defineEmits<{ done: [] }>()
const store = useVisit()
const {
  guide,
  run,
  missing: missingOf,
  piecesOf,
  slotOf,
  uncounted,
  jobTitle,
} = useGuide(() => props.step.at)
const { numberOf } = useMachine(() => props.step.at)
/** Number of the part at hand on the drawing of its machine. */
const drawn = computed(() => {
  const { remove, fit, renew, inspect } = props.step
  return numberOf(remove ?? fit ?? renew ?? inspect)
})
const say = useTemplateRef<HTMLElement>('say')
const whole = useTemplateRef<HTMLElement>('whole')
/** From the drawing to the list of what can be wrong. */
const judge = () => whole.value?.querySelector<HTMLElement>('.defects button')?.focus()
// The button that was pressed has gone with its step: who listens or types goes on at the next one.
onMounted(() => {
  if (document.activeElement !== document.body) return
  say.value?.focus({ preventScroll: true })
  // A form is seen to its end, and the sentence above it as far as there is room.
  whole.value?.querySelector('form')?.scrollIntoView({ block: 'nearest' })
  say.value?.scrollIntoView({ block: 'nearest' })
})
const refusal = shallowRef<Notice | null>(null)
const rounds = ref(1)
const failed = ref(false)
/** What a refused entry said, so that it can be recorded with a reason. */
const waiting = shallowRef<Partial<PayloadOf<'guide-step'>> | null>(null)

const missing = computed(() => [
  ...(props.first ? missingOf(props.first) : []),
  ...missingOf(props.step),
])
const relaxing = computed(() => relaxingOf(props.step))
/** The step from which a failed check is taken up again, where the guide names one that is done. */
const back = computed(() =>
  props.step.redoFrom
    ? run.value?.steps.findLast((s) => s.name === props.step.redoFrom && run.value?.done.has(s.id))
    : undefined,
)
const pictured = computed(() => store.state.photos.some((p) => p.step === props.step.id))
/** So many pieces it moves or counts, where it is more than one. */
const pieces = computed(() => piecesOf(props.step))
/** Counting the kit is the step itself. */
const counting = computed(() => props.step.count === 'kit' && uncounted.value.length > 0)
/** The kit of a sub-job that the step takes a part from and nobody has counted. */
const lacking = computed(() => {
  const job = run.value?.kit.find((k) => k.id === props.step.from)?.job
  return job !== undefined && uncounted.value.includes(job) ? job : undefined
})
/** Counted one after another; the step is done with the last one. */
function kitCounted() {
  if (uncounted.value.length === 0) done()
}
/** A check that can be answered with no. */
const checks = computed(() =>
  Boolean(props.step.trial ?? props.step.test ?? props.step.verify ?? props.step.require),
)
const { unlockedBy, entriesOf } = useStepEntries()
const unlocked = computed(() => unlockedBy(props.step))
const action = computed(() => {
  const words = actionWords(props.step, guide.value)
  const off = unlocked.value.map(({ number }) => `Lock ${number} is off`)
  return off.length === 0
    ? words
    : [...off, `${words.charAt(0).toLowerCase()}${words.slice(1)}`].join(' – ')
})

interface Manner {
  /** Why it is done out of order or against the house’s policy. */
  departure?: string
  /** The station ends with it. */
  leaving?: boolean
}
/** Records what the step turns, then the step; a departure is tried again with its reason. */
function done(found: Partial<PayloadOf<'guide-step'>> = {}, manner: Manner = {}) {
  const extra = manner.departure ? { departure: manner.departure } : {}
  const { first, step } = props
  const off = first && { step: first.id, at: first.at }
  // The reason is for what was refused: the part may have come off in its turn.
  const offToo = off && store.refusal('guide-step', off) ? extra : {}
  refusal.value = store.recordAll([
    ...(off ? [['guide-step', { ...off, ...offToo }] as const] : []),
    ...entriesOf(
      step,
      { ...found, ...(step.repeat && !relaxing.value ? { rounds: rounds.value } : {}) },
      extra,
    ),
    ...(manner.leaving ? [['station-done', { station: step.at }] as const] : []),
  ])
  // What keeps the station open keeps nobody from doing its last step.
  if (refusal.value && manner.leaving) return done(found, { ...manner, leaving: false })
  if (refusal.value) return wait(found)
  waiting.value = null
  emit('done')
}

function wait(found: Partial<PayloadOf<'guide-step'>>) {
  waiting.value = found
}
/** Nothing that is missing can be made up for by a reason. */
const mayDepart = computed(() => props.early || (waiting.value !== null && refusal.value !== null))
const atStation = computed(() => currentStation(store.state) === props.step.at)
</script>

<template>
  <div ref="whole" class="guide-step">
    <p class="soft small place">
      Step {{ first ? `${number - 1} and ${number}` : number }} of {{ of }} · guide step
      {{ first ? `${first.id} and ${step.id}` : step.id
      }}<template v-if="drawn"> · no. {{ drawn }} of the drawing</template>
    </p>
    <h3 ref="say" class="say" tabindex="-1">{{ stepWords(first ?? step) }}</h3>
    <template v-if="first">
      <StepGuidance :step="first" />
      <p class="then">It is off: {{ stepWords(step) }}</p>
    </template>
    <StepGuidance :step="step" />

    <SlotValue
      v-for="s in missing"
      :key="s"
      :slot-id="s"
      :slot-title="slotOf(s)?.title ?? s"
      :dimension="slotOf(s)?.dimension"
    />

    <LockList v-if="step.locked" writable class="mb-3" @locked="done()" />
    <template v-if="missing.length === 0">
      <p v-if="early" class="caution">
        It is not its turn yet. Doing it now is a departure: give the reason below.
      </p>
      <ol v-if="step.steps && !relaxing" class="inner">
        <li v-for="i in step.steps" :key="i.id">{{ stepWords(i) }}</li>
      </ol>
      <InspectionChoice v-if="step.verdicts" :step="step" @found="done($event)" />
      <RelaxingRounds v-else-if="relaxing" :step="step" :relaxing="relaxing" @done="done()" />
      <StepClock v-else-if="step.hold" :step="step" @done="done()" />
      <ThrowsForm v-else-if="step.measure === 'throws'" @measured="done({ throws: $event })" />
      <GroovesForm
        v-else-if="step.measure === 'grooves'"
        :step="step"
        @counted="done({ counted: $event })"
      />
      <PiecesForm
        v-else-if="pieces !== undefined"
        :key="step.id"
        :wanted="pieces"
        :action="action"
        :blind="Boolean(step.count)"
        @counted="done({ pieces: $event })"
      />
      <TorqueCard
        v-else-if="step.tighten && (step.to.torque ?? step.to.ceiling)"
        :step="step"
        :fastener="step.tighten"
        @tightened="done({ tightened: $event })"
      />
      <TemporaryForm v-else-if="step.temporary" @given="done({ temporary: $event })" />
      <ProofForm v-else-if="step.prove" :zone="step.prove" @proved="done()" />
      <KitCount
        v-else-if="counting"
        :key="uncounted[0] ?? ''"
        writable
        :job="uncounted[0]"
        @counted="kitCounted"
      />
      <KitCount v-else-if="lacking" :key="lacking" writable :job="lacking" />
      <div v-else-if="step.answers" class="answers" role="group" :aria-label="stepWords(step)">
        <BButton
          v-for="a in step.answers"
          :key="a.id"
          size="lg"
          variant="outline-primary"
          @click="done({ finding: a.id })"
          >{{ a.title
          }}<small v-if="a.widens" class="widens">
            Widens the work: {{ jobTitle(a.widens) }}</small
          ></BButton
        >
      </div>
      <div v-else-if="step.photograph && !step.writes" class="actions">
        <BButton v-if="pictured" variant="primary" size="lg" class="main" @click="done()"
          >Photographed – done</BButton
        >
        <BButton
          v-else
          variant="outline-primary"
          size="lg"
          class="main"
          @click="done({ unphotographed: true })"
          >Go on without a photograph</BButton
        >
      </div>
      <SettingForm
        v-else-if="step.snapshot || step.writes"
        :key="step.id"
        :label="step.writes"
        :without-picture="Boolean(step.photograph) && !pictured"
        @written="
          done({
            setting: $event,
            ...(step.photograph && !pictured ? { unphotographed: true } : {}),
          })
        "
      />
      <div v-else class="actions">
        <label v-if="step.repeat" class="rounds"
          >Rounds
          <BFormInput
            v-model.number="rounds"
            type="number"
            min="1"
            :max="step.most ?? 50"
            class="mono"
          />
        </label>
        <BButton
          variant="primary"
          size="lg"
          class="main"
          @click="done({}, { leaving: ends !== undefined })"
          >{{ action }}<small v-if="ends" class="widens">{{ ends }}</small></BButton
        >
        <BButton v-if="checks" variant="outline-primary" @click="failed = true">{{
          step.require ? 'No, it is not' : 'No, it does not'
        }}</BButton>
      </div>
    </template>
    <BoltGuide
      v-if="missing.length === 0 && (step.tighten || step.loosen)"
      :step="step"
      class="mt-3"
    />
    <CheckFailed v-if="failed" :step="step" :back="back" @again="emit('done')" />
    <ProblemNote :refusal="refusal" />
    <ReasonForm
      v-if="mayDepart && atStation"
      class="depart"
      label="Reason for the departure"
      action="Record it so"
      variant="outline-primary"
      placeholder="It stays on the record"
      @given="done(waiting ?? {}, { departure: $event })"
    />
    <StepWhy v-for="s in first ? [first, step] : [step]" :key="s.id" :step="s" />
    <StepMachine :step="step" @judge="judge" />
    <PhotoStrip
      v-if="step.inspect || step.mark || step.match || step.photograph"
      :station="step.at"
      :step="step.id"
      :caption="stepWords(step)"
    />
  </div>
</template>

<style scoped>
.guide-step :deep(form) {
  scroll-margin-bottom: 5rem;
}

.say {
  outline: none;
  scroll-margin-top: 5rem;
  font-size: 1.75rem;
  line-height: 1.2;
  text-wrap: pretty;
  margin-bottom: 0.6rem;
}

.then {
  font-size: 1.25rem;
  font-weight: 650;
  border-top: 1px solid var(--rule-strong);
  padding-top: 0.6rem;
  margin-bottom: 0.6rem;
}

.caution {
  margin-bottom: 0.6rem;
}

.rounds input {
  width: 6rem;
}

.answers {
  display: grid;
  gap: 0.6rem;
  max-width: 36rem;
}

.widens {
  display: block;
  font-weight: 400;
}

.answers .btn {
  flex-direction: column;
  align-items: flex-start;
  justify-content: center;
  text-align: left;
}

.depart {
  margin-top: 0.5rem;
  max-width: 36rem;
}

@media (max-width: 43.75em) {
  .say {
    font-size: 1.375rem;
  }

  .main {
    width: 100%;
  }
}
</style>
