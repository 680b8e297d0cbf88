<script setup lang="ts">
import {
  currentStation,
  purposeTitles,
  type Notice,
  type Station,
  stationRefusal,
  stationTitles,
} from '@uvanta/core/visit'
import {
  computed,
  defineAsyncComponent,
  nextTick,
  ref,
  shallowRef,
  useTemplateRef,
  watch,
} from 'vue'
import { ApiProblem } from '@/api/client'
import { useSettling } from '@/composables/useSettling'
import { useTitle } from '@/composables/useTitle'
import { dateWords, visitStateWords } from '@/composables/words'
import LinkButton from '@/parts/LinkButton.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import TitleBlock from '@/parts/TitleBlock.vue'
import VisitLine from '@/parts/VisitLine.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { useSession } from '@/stores/session'
import { useVisit } from '@/stores/visit'
import ArriveStation from './ArriveStation.vue'
import CheckStation from './CheckStation.vue'
import ConflictDialog from './ConflictDialog.vue'
import AskOffice from './AskOffice.vue'
import NoteStation from './NoteStation.vue'
import SignStation from './SignStation.vue'
import StopVisit from './StopVisit.vue'
import SymptomPanel from './SymptomPanel.vue'
import TimesInDoubt from './TimesInDoubt.vue'
import UndoLine from './UndoLine.vue'
import GuideProposal from './guide/GuideProposal.vue'
import StepsHere from './guide/StepsHere.vue'
import TestStation from './fieldtest/TestStation.vue'
import VisitLog from './VisitLog.vue'
import WaitingEntries from './WaitingEntries.vue'

/** For the office alone. */
const ReplanVisit = defineAsyncComponent(() => import('./ReplanVisit.vue'))

const props = defineProps<{ id: string }>()
const store = useVisit()
const problem = shallowRef<ApiProblem | null>(null)
const shown = ref<Station>('prepare')
const refused = shallowRef<Notice | null>(null)

async function load() {
  problem.value = null
  try {
    await store.open(props.id)
    shown.value = currentStation(store.state)
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error
  }
}
watch(() => props.id, load, { immediate: true })
const screen = useTemplateRef<HTMLElement>('screen')
useSettling(screen)
// The view follows the work: when a station is finished, the next one comes up.
const stations = useTemplateRef<HTMLElement>('stations')
watch(
  () => currentStation(store.state),
  (station) => {
    choose(station)
    // Its first step may lie above what is seen.
    void nextTick(() => stations.value?.scrollIntoView({ block: 'nearest' }))
  },
)

function choose(station: Station) {
  refused.value = stationRefusal(store.state, station)
  if (!refused.value) shown.value = station
}

const session = useSession()
const plans = computed(() => session.has('planner'))
const equipment = computed(() => store.visit?.equipment)
useTitle(() => equipment.value?.tag)
const closed = computed(() => Boolean(store.state.signed ?? store.state.stopped))
const stateName = computed(() => {
  if (store.state.signed) return 'signed'
  if (store.state.stopped) return 'stopped'
  const begun = store.state.begun
  return begun ? 'under-way' : 'planned'
})
const done = computed<Station[]>(() =>
  store.state.signed ? [...store.state.done, 'as-left'] : [...store.state.done],
)
const cells = computed(() => {
  const e = equipment.value
  if (!e || !store.visit) return []
  return [
    { label: 'Site', value: `${e.site}, ${e.address}`, span: 3 },
    { label: 'Position', value: e.position, span: 3, wideOnly: true },
    { label: 'Kind', value: `${e.kind} ${e.sizeIn} in · ${e.service}`, span: 2, wideOnly: true },
    { label: 'Serial', value: e.serial, mono: true, span: 2, wideOnly: true },
    { label: 'State', span: 2, wideOnly: true, value: visitStateWords[stateName.value] ?? '' },
  ]
})
const errand = computed(() =>
  store.visit
    ? [
        purposeTitles[store.visit.purpose],
        dateWords(store.visit.plannedOn),
        ...(store.mine ? [] : [store.visit.technician]),
      ].join(' · ')
    : undefined,
)
</script>

<template>
  <div ref="screen">
    <ProblemNote :problem="problem" @retry="load" />
    <WaitingLine v-if="!store.visit && !problem" what="the visit" />
    <template v-if="store.visit && equipment">
      <TitleBlock :title="equipment.tag" :subtitle="errand" :cells="cells" class="block" />
      <VisitLine
        :done="done"
        :skipped="store.state.skipped"
        :shown="shown"
        :closed="closed"
        @choose="choose"
      />
      <p v-if="refused" class="caution refused" role="alert">
        {{ refused.why }} {{ refused.remedy }}
        <BButton v-if="refused.station" variant="link" @click="choose(refused.station)"
          >Go to {{ stationTitles[refused.station] }}</BButton
        >
      </p>
      <WaitingEntries />
      <p v-if="store.state.stopped" class="caution">
        This visit was stopped: {{ store.state.stopped.reason }}
      </p>

      <TimesInDoubt v-if="!closed" />
      <div ref="stations" class="anchor"></div>
      <NoteStation
        v-if="['prepare', 'make-safe', 'open-up', 'rebuild', 'return'].includes(shown)"
        :key="shown"
        :station="shown"
      />
      <ArriveStation v-else-if="shown === 'arrive'" />
      <template v-else-if="shown === 'as-found'">
        <TestStation v-if="store.state.plan?.packId" key="as-found" run="as-found">
          <template #first="{ active }">
            <StepsHere station="as-found" :active="active" />
          </template>
          <template #failed="{ suspects }">
            <GuideProposal :suspects="suspects" />
          </template>
        </TestStation>
        <CheckStation v-else run="as-found" />
      </template>
      <SignStation v-else />

      <SymptomPanel
        v-if="!closed && store.mine && ['prepare', 'arrive', 'as-found'].includes(shown)"
      />
      <UndoLine v-if="store.mine" />
      <VisitLog />
      <p class="no-print">
        <LinkButton :to="{ name: 'visit-record', params: { id } }"
          >The whole record, to print</LinkButton
        >
      </p>
      <p v-if="store.state.replanAsked && !closed" class="caution">
        {{ store.state.replanAsked.recordedBy }} asks the office: {{ store.state.replanAsked.why }}
      </p>
      <div v-if="!closed" class="actions no-print mt-3">
        <ReplanVisit v-if="plans" :visit="store.visit" @replanned="load" />
        <AskOffice v-else-if="store.mine" />
        <StopVisit v-if="store.mine || plans" />
      </div>
      <ConflictDialog />
    </template>
  </div>
</template>

<style scoped>
.anchor {
  scroll-margin-top: 5rem;
}

.refused {
  margin-bottom: 1rem;
}

.refused :deep(.btn) {
  min-height: 0;
  padding: 0 0.25rem;
}
</style>
