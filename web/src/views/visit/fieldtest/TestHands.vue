<script setup lang="ts">
import { apparatusOf } from '@uvanta/core/apparatus'
import { actionsOf, type ProcedureStep } from '@uvanta/core/procedure'
import type { Notice, RunName } from '@uvanta/core/visit'
import { useMediaQuery } from '@vueuse/core'
import { computed, onMounted, shallowRef } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useGauge } from '@/stores/gauge'
import { useVisit } from '@/stores/visit'
import StrokeLines from '../bench/StrokeLines.vue'
import GaugePanel from './GaugePanel.vue'
import StepWhy from './StepWhy.vue'
import TestDrawing from './TestDrawing.vue'
import { handsWords } from './handMoveWords'
import { handsDone } from './handsInOneGo'
import { useStepActions } from './useStepActions'

/** Steps of a procedure in which nothing is read, and the hands of the one that is read after them: a line each. */
const props = defineProps<{
  run: RunName
  steps: readonly ProcedureStep[]
  number: number
  of: number
}>()
const store = useVisit()
const gauge = useGauge()
const narrow = useMediaQuery('(max-width: 43.75em)')
const refusal = shallowRef<Notice | null>(null)
const apparatus = computed(() => apparatusOf(store.state.plan?.equipment.kind ?? ''))
const isDone = (s: ProcedureStep) => handsDone(s, store.state, props.run)
const open = computed(() => props.steps.filter((s) => !isDone(s)))
const lines = computed(() =>
  props.steps.map((s) => ({
    id: s.id,
    words: s.title,
    states: handsWords(actionsOf(s), apparatus.value),
    done: isDone(s),
  })),
)
const stepOf = (id: string) => props.steps.find((s) => s.id === id)!
/** The step whose turn it is: its valves can be pressed on the drawing too. */
const turn = shallowRef(props.steps.find((s) => !isDone(s)) ?? props.steps[0]!)
const hands = useStepActions(() => turn.value)
onMounted(() => gauge.begin())

/** Carries the next lines out, one after the other. */
async function done(count: number) {
  for (const step of open.value.slice(0, count)) {
    turn.value = step
    if (!(await hands.carryOut())) {
      refusal.value = hands.refusal.value
      return
    }
    if (step.record) continue
    refusal.value = store.record('step-done', { run: props.run, step: step.id })
    if (refusal.value) return
  }
  const [next] = open.value
  if (next) turn.value = next
}
</script>

<template>
  <div class="test-step hands">
    <p class="soft small count place">
      Steps {{ number }} to {{ number + steps.length - 1 }} of {{ of }} · {{ open.length }} left
    </p>
    <GaugePanel v-if="narrow && gauge.streaming" slim />
    <p v-if="hands.busy.value" class="turning" role="status">
      Turning {{ hands.done.value }} of {{ hands.actions.value.length }}
    </p>
    <StrokeLines v-slot="{ line }" :lines="lines" :busy="hands.busy.value" @done="done">
      <p v-if="stepOf(line.id).how" class="how">{{ stepOf(line.id).how }}</p>
    </StrokeLines>
    <ProblemNote :refusal="refusal" />
    <TestDrawing :hands="hands" :height-mm="null" />
    <StepWhy v-for="s in open.slice(0, 1)" :key="s.id" :step="s" />
  </div>
</template>

<style scoped>
.how,
.turning {
  margin: 0 0 0.35rem;
}
</style>
