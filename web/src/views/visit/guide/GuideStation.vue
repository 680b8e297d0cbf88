<script setup lang="ts">
import { stepWords } from '@uvanta/core/guide'
import { type Refusal, type Station, stationTitles } from '@uvanta/core/visit'
import { useMediaQuery } from '@vueuse/core'
import { computed, shallowRef } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import { useVisit } from '@/stores/visit'
import RepairForm from '../RepairForm.vue'
import StationFrame from '../StationFrame.vue'
import GuideStep from './GuideStep.vue'
import TrayPanel from './TrayPanel.vue'
import { useGuide } from './useGuide'

/** A station carried out by the job guide: one step at a time, tray and kit beside it. */
const props = defineProps<{ station: Station; doneWords: string }>()
const store = useVisit()
const { guide, run, steps, due } = useGuide(() => props.station)
const narrow = useMediaQuery('(max-width: 1000px)')
const refusal = shallowRef<Refusal | null>(null)
const writable = computed(() => store.mine && !store.state.signed && !store.state.stopped)
const current = computed(() => !store.state.done.includes(props.station))
const variant = computed(
  () => guide.value?.variants.find((v) => v.id === store.state.guide?.variant)?.title,
)

function finish() {
  refusal.value = store.record('station-done', { station: props.station })
}
</script>

<template>
  <StationFrame :title="stationTitles[station]">
    <p class="soft">
      {{ guide?.title }} · {{ variant }} · version {{ store.state.guide?.version }}
    </p>
    <GuideStep
      v-if="due && writable && current"
      :key="due.id"
      :step="due"
      :number="steps.indexOf(due) + 1"
      :of="steps.length"
    />
    <template v-else-if="writable && current">
      <p class="all">All {{ steps.length }} steps of this station are done.</p>
      <RepairForm v-if="station === 'rebuild'" />
      <div class="actions mt-3">
        <BButton variant="primary" size="lg" @click="finish">{{ doneWords }}</BButton>
      </div>
      <ProblemNote :problem="null" :message="refusal ? `${refusal.why} ${refusal.todo}` : ''" />
    </template>
    <TrayPanel v-if="run && narrow" :run="run" class="mt-3" />
    <ol v-if="run" class="rows list" aria-label="Steps of this station">
      <li v-for="s in steps" :key="s.id" :class="{ now: s.id === due?.id && current }">
        <StateMark :state="run.done.has(s.id) ? 'pass' : 'open'" />
        <span>{{ stepWords(s) }}</span>
      </li>
    </ol>
    <template v-if="run && !narrow" #aside><TrayPanel :run="run" /></template>
  </StationFrame>
</template>

<style scoped>
.all {
  font-size: 1.25rem;
}

.list {
  margin-top: 1.5rem;
}

.list li {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.6rem;
  padding: 0.35rem 0;
  color: var(--ink-soft);
}

.list .now {
  color: var(--ink);
  font-weight: 600;
}
</style>
