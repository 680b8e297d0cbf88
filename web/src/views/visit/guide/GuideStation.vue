<script setup lang="ts">
import { endsWork, handsTogether, type PlacedStep, stepWords } from '@uvanta/core/guide'
import {
  currentStation,
  kitsNeeded,
  kitTaken,
  type Notice,
  type Station,
  stationTitles,
} from '@uvanta/core/visit'
import { useMediaQuery } from '@vueuse/core'
import { computed, ref, shallowRef, useSlots, watch } from 'vue'
import ReasonForm from '@/parts/form/ReasonForm.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useVisit } from '@/stores/visit'
import PhotoStrip from '../PhotoStrip.vue'
import RepairForm from '../RepairForm.vue'
import LockList from '../safe/LockList.vue'
import PlanList from '../safe/PlanList.vue'
import SafePanel from '../safe/SafePanel.vue'
import StopCard from '../safe/StopCard.vue'
import StationFrame from '../StationFrame.vue'
import GuideStep from './GuideStep.vue'
import HandsCard from './HandsCard.vue'
import KitClosing from './KitClosing.vue'
import MachineState from './MachineState.vue'
import StepList from './StepList.vue'
import TrayPanel from './TrayPanel.vue'
import { useGuide } from '../bench/useGuide'
import { useStepEntries } from './useStepEntries'

/** A station carried out by the job guide: one step at a time, drawing, tray and kit beside it. */
const props = defineProps<{
  station: Station
  doneWords: string
  /** What is asked once before the station is left. */
  asks?: string | undefined
}>()
const store = useVisit()
const slots = useSlots()
const { guide, run, steps, due, jobTitle, missing, piecesOf, uncounted } = useGuide(
  () => props.station,
)
const { unlockedBy } = useStepEntries()
const narrow = useMediaQuery('(max-width: 62.5em)')
const refusal = shallowRef<Notice | null>(null)
const writable = computed(() => store.mine && !store.state.signed && !store.state.stopped)
const current = computed(() => currentStation(store.state) === props.station)
const active = computed(() => writable.value && current.value)
const variant = computed(() =>
  [
    guide.value?.variants.find((v) => v.id === store.state.guide?.variant)?.title,
    ...(run.value?.jobs ?? []).map(jobTitle),
  ].join(' · '),
)
/** A part is to come before the work goes on. */
const ordered = computed(() =>
  store.state.guideSteps.some((d) => d.step === halted.value?.id && d.finding === 'order'),
)
/** Valves are turned where the equipment is shut in and where it is brought back. */
const withDrawing = computed(() => ['make-safe', 'return', 'as-left'].includes(props.station))
const withBench = computed(() => ['open-up', 'rebuild'].includes(props.station))

const chosenId = ref<string | null>(null)
watch(due, () => (chosenId.value = null))
const chosen = computed(() => steps.value.find((s) => s.id === chosenId.value) ?? null)
const isDone = (s: PlacedStep) => run.value?.done.has(s.id) ?? false
const shown = computed(() => (chosen.value && !isDone(chosen.value) ? chosen.value : due.value))
const again = computed(() => (chosen.value && isDone(chosen.value) ? chosen.value : null))
/** Nothing is waited for or written down before it is done, and nothing has to be minded. */
const isPlain = (s: PlacedStep) =>
  !(s.hold ?? s.snapshot ?? s.writes ?? s.photograph ?? s.repeat) &&
  !(s.hazard ?? s.never ?? s.together ?? s.differs)
/** A part that comes off and is judged at once: both are answered by the one verdict. */
const judged = computed(() => {
  const step = shown.value
  if (!step?.remove || !isPlain(step) || step.id !== due.value?.id) return null
  if (piecesOf(step) !== undefined) return null
  const next = steps.value[steps.value.indexOf(step) + 1]
  return next && next.inspect === step.remove && !isDone(next) ? next : null
})
/** A step that was refused as one of several is shown by itself. */
const alone = ref<string | null>(null)
/** Nothing has to be entered, counted or unlocked before the step is done. */
const isReady = (s: PlacedStep) => {
  const kit = run.value?.kit.find((k) => k.id === s.from)
  const counted = !kit || !uncounted.value.includes(kit.job)
  const single = piecesOf(s) === undefined
  return counted && single && missing(s).length === 0 && unlockedBy(s).length === 0
}
/** What hands do in one go with the step that is due. */
const together = computed(() =>
  shown.value && shown.value.id === due.value?.id && shown.value.id !== alone.value
    ? handsTogether(steps.value, shown.value, isReady)
    : [],
)
/** What the last step of a station ends, where nothing else is asked for. */
const ends = computed(() => {
  const left = steps.value.filter((s) => !isDone(s))
  const last = left.length === 1 || left.every((s) => together.value.includes(s))
  const more = props.asks || props.station === 'rebuild' || slots['finish']
  return last && !more ? props.doneWords : undefined
})
/** An inspection that ended the work: nothing goes on but stopping, or taking it up again. */
const halted = computed(() =>
  steps.value.find((s) =>
    store.state.guideSteps.some((d) => d.step === s.id && endsWork(d.finding)),
  ),
)

/** At the end of Rebuild one thing after the other: the kit, the repair, then it is rebuilt. */
const kitDue = computed(
  () =>
    props.station === 'rebuild' &&
    run.value !== null &&
    !store.state.kitClosed &&
    kitsNeeded(run.value).some((job) => kitTaken(store.state, job)),
)
const repairDue = computed(() => props.station === 'rebuild' && store.state.repairs.length === 0)

const asked = ref(false)
function finish() {
  if (props.asks && !asked.value) {
    asked.value = true
    return
  }
  refusal.value = store.record('station-done', { station: props.station })
}
function redo(reason: string) {
  if (!again.value) return
  refusal.value = store.record('guide-redo', { from: again.value.id, reason })
  if (!refusal.value) chosenId.value = null
}
</script>

<template>
  <StationFrame :title="stationTitles[station]">
    <p class="soft sheet">
      {{ guide?.title }} · {{ variant }} · version {{ store.state.guide?.version }}
    </p>
    <StopCard
      v-if="active && (station === 'make-safe' || withBench)"
      :now="again ? undefined : shown?.id"
    />
    <MachineState v-if="active" :station="station" />
    <slot name="before" />
    <p v-if="halted && active && !again" class="caution halted">
      <strong
        >{{ ordered ? 'Waits for a part' : 'The work ends here' }}: {{ stepWords(halted) }}.</strong
      >
      <template v-if="ordered">
        Cover what is open, leave the equipment shut in, locked and tagged, and stop the visit at
        the foot of this page: what is ordered, and the day on which the work goes on.</template
      >
      <template v-else>
        Leave the equipment shut in and stop the visit with its reason, at the foot of this
        page.</template
      >
      If the finding was a slip, take that step up again among those that are done.
    </p>
    <HandsCard
      v-else-if="together.length > 0 && active && !again"
      :key="together[0]?.id"
      :steps="together"
      :number="steps.indexOf(together[0]!) + 1"
      :of="steps.length"
      :ends="ends"
      @alone="alone = due?.id ?? null"
    />
    <GuideStep
      v-else-if="shown && active && !again"
      :key="shown.id"
      :step="judged ?? shown"
      :first="judged ? shown : undefined"
      :number="steps.indexOf(judged ?? shown) + 1"
      :of="steps.length"
      :early="shown.id !== due?.id"
      :ends="ends"
      @done="chosenId = null"
    />
    <div v-else-if="again && active" class="again">
      <p class="say">{{ stepWords(again) }}</p>
      <p>
        It is done. Taking it up again does this step and all that were done after it anew; what is
        on record stays in the log.
      </p>
      <ReasonForm label="What failed" action="Take up again from here" @given="redo">
        <template #beside>
          <BButton variant="link" @click="chosenId = null">Leave it done</BButton>
        </template>
      </ReasonForm>
    </div>
    <template v-else-if="active">
      <p class="all">All {{ steps.length }} steps of this station are done.</p>
      <KitClosing v-if="station === 'rebuild'" />
      <RepairForm
        v-if="station === 'rebuild' && !kitDue"
        :ends="slots['finish'] ? undefined : doneWords"
      />
      <slot v-if="!kitDue && !repairDue" name="finish">
        <p v-if="asks && asked" class="caution mt-3" role="alert">{{ asks }}</p>
        <div class="actions mt-3">
          <BButton variant="primary" size="lg" @click="finish">{{
            asks && asked ? 'Go all the same' : doneWords
          }}</BButton>
        </div>
      </slot>
    </template>
    <ProblemNote :refusal="refusal" />
    <SafePanel
      v-if="withDrawing"
      class="drawing"
      :station="station"
      :step="active ? shown : null"
      :pressable="active"
    />
    <TrayPanel v-if="run && narrow && withBench" :run="run" :step="shown" class="mt-3" />
    <LockList v-if="narrow && withDrawing && !shown?.locked" :writable="writable" class="mt-3" />
    <StepList
      v-if="run"
      :steps="steps"
      :done="run.done"
      :current="current ? shown?.id : undefined"
      :pressable="active"
      @choose="chosenId = $event === due?.id ? null : $event"
    />
    <PhotoStrip :station="station" :caption="stationTitles[station]" />
    <slot name="below" />
    <div v-if="narrow && $slots.beside" class="mt-3"><slot name="beside" /></div>
    <template v-if="run && !narrow && (withBench || withDrawing || $slots.beside)" #aside>
      <TrayPanel v-if="withBench" :run="run" :step="shown" />
      <template v-else-if="withDrawing">
        <PlanList v-if="station === 'make-safe'" class="mb-4" />
        <LockList v-if="!shown?.locked" :writable="writable" />
      </template>
      <slot name="beside" />
    </template>
  </StationFrame>
</template>

<style scoped>
.sheet {
  margin-bottom: 0.5rem;
}

@media (max-width: 43.75em) {
  /* What is in force is known since Prepare; the step comes first. */
  .sheet {
    display: none;
  }
}

.all,
.say {
  font-size: 1.25rem;
}

.halted {
  font-size: 1.125rem;
}

.drawing {
  margin-top: 1.5rem;
}

.again {
  max-width: 36rem;
}
</style>
