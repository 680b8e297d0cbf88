<script setup lang="ts">
import { type PlacedStep, stepWords } from '@uvanta/core/guide'
import type { Notice } from '@uvanta/core/visit'
import { computed, shallowRef } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useVisit } from '@/stores/visit'
import StrokeLines from '../bench/StrokeLines.vue'
import { useGuide } from '../bench/useGuide'
import { useMachine } from '../bench/useMachine'
import { actionWords } from './actionWords'
import BoltGuide from './BoltGuide.vue'
import StepGuidance from './StepGuidance.vue'
import StepMachine from './StepMachine.vue'
import StepWhy from './StepWhy.vue'
import { useStepEntries } from './useStepEntries'

/** Steps that hands do in one go: a line each, pressed one by one or with one stroke down their boxes. */
const props = defineProps<{
  steps: readonly PlacedStep[]
  /** Number of the first of them at its station. */
  number: number
  of: number
  /** What else is true once the last of them is done, where that ends the station. */
  ends?: string | undefined
}>()
const emit = defineEmits<{ alone: [] }>()
const store = useVisit()
const at = () => props.steps[0]?.at ?? 'rebuild'
const { guide, run } = useGuide(at)
const { numberOf } = useMachine(at)
const { entriesOfAll } = useStepEntries()
const refusal = shallowRef<Notice | null>(null)

const isDone = (s: PlacedStep) => run.value?.done.has(s.id) ?? false
/** Lines whose turn it is, the next one first. */
const open = computed(() => props.steps.filter((s) => !isDone(s)))
const due = computed(() => open.value[0])
const lines = computed(() =>
  props.steps.map((s) => ({
    id: s.id,
    words: stepWords(s),
    states: actionWords(s, guide.value),
    done: isDone(s),
    drawn: numberOf(s.remove ?? s.fit ?? s.renew),
  })),
)
const stepOf = (id: string) => props.steps.find((s) => s.id === id)!

/** Records the next lines, all of them or none. */
function done(count: number) {
  const pressed = open.value.slice(0, count)
  const last = pressed.at(-1)
  if (!last) return
  const entries = entriesOfAll(pressed)
  const leaves = props.ends !== undefined && last === props.steps.at(-1)
  refusal.value = leaves
    ? store.recordAll([...entries, ['station-done', { station: last.at }]])
    : store.recordAll(entries)
  // What keeps the station open keeps nobody from doing its last step.
  if (refusal.value && leaves) refusal.value = store.recordAll(entries)
}
</script>

<template>
  <div class="guide-step hands">
    <p class="soft small place">
      Steps {{ number }} to {{ number + steps.length - 1 }} of {{ of }} · {{ open.length }} left
    </p>
    <h3 class="title">By hand, one after the other</h3>
    <StrokeLines v-slot="{ line }" :lines="lines" @done="done">
      <StepGuidance :step="stepOf(line.id)" />
    </StrokeLines>
    <p v-if="ends" class="soft">With the last of them: {{ ends }}.</p>
    <ProblemNote :refusal="refusal" />
    <BButton v-if="refusal" variant="outline-primary" @click="emit('alone')"
      >Show this step by itself</BButton
    >
    <template v-if="due">
      <StepWhy :step="due" />
      <BoltGuide v-if="due.tighten || due.loosen" :key="due.id" :step="due" class="mt-3" />
      <StepMachine :step="due" />
    </template>
  </div>
</template>

<style scoped>
.title {
  font-size: 1.25rem;
  margin-bottom: 0.15rem;
}
</style>
