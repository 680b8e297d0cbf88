<script setup lang="ts">
import { compounds, lubricants } from '@uvanta/core/craft'
import { type PlacedStep, seatChecks } from '@uvanta/core/guide'
import { computed } from 'vue'
import TurnArrow from './TurnArrow.vue'

/** How a step is carried out, beyond its sentence: hands, turns, sequence, what goes on where, how it is checked. */
const props = defineProps<{
  step: PlacedStep
  /** Title of a part or of fasteners, by its id. */
  titleOf: (id: string) => string
}>()

const film = computed(() => {
  const { with: lubricant, compound, amount, where } = props.step
  const what = compound ? compounds[compound] : lubricant ? lubricants[lubricant] : ''
  return what && [what, amount, where].filter(Boolean).join(', ')
})
/** What a trial, a test or a precondition is held against, where its sentence does not say so itself. */
const wanted = computed(() => {
  const { trial, test, require, say } = props.step
  const text = trial ?? test ?? require
  return text === say ? undefined : text
})
const check = computed(() => props.step.verify?.map((v) => seatChecks[v]).join(' · '))
const thread = computed(() => {
  const of = props.step.to?.thread
  if (!of) return ''
  return of === 'dry' ? 'the thread is dry' : 'the thread has its compound on'
})
</script>

<template>
  <p v-if="wanted" class="note wanted"><strong>Wanted</strong> {{ wanted }}</p>
  <p v-if="step.otherwise" class="note"><strong>If not</strong> {{ step.otherwise }}</p>
  <p v-if="step.position" class="note"><strong>Position</strong> {{ step.position }}</p>
  <p v-if="step.people" class="note"><strong>Lift</strong> {{ step.people }} people, together</p>
  <p v-if="step.together" class="note"><strong>Together</strong> {{ step.together }}</p>
  <div v-for="t in step.turns" :key="t.way" class="note turn">
    <TurnArrow :way="t.way" />
    <span>
      <b>{{ t.way === 'clockwise' ? 'Clockwise' : 'Counter-clockwise' }}</b>{{
        t.by ? ` by ${t.by}` : ''
      }}: {{ t.effect }}
    </span>
  </div>
  <ol v-if="step.inTurn" class="in-turn">
    <li v-for="a in step.inTurn" :key="a">{{ a }}</li>
  </ol>
  <p v-if="film" class="note"><strong>Use</strong> {{ film }}</p>
  <p v-if="step.mayComeWith" class="note">
    <strong>Look in both places</strong> It may have come away with
    {{ titleOf(step.mayComeWith).toLowerCase() }}, or have stayed behind.
  </p>
  <p v-if="thread" class="note"><strong>The figure holds when</strong> {{ thread }}</p>
  <p v-if="check" class="note"><strong>Make sure</strong> {{ check }}</p>
</template>

<style scoped>
.note {
  margin: 0 0 0.35rem;
}

.note strong {
  margin-right: 0.4rem;
}

.wanted {
  font-size: 1.125rem;
}

.turn {
  display: flex;
  gap: 0.6rem;
  align-items: center;
}

.in-turn {
  margin: 0 0 0.6rem;
  padding-left: 2rem;
}

.in-turn li::marker {
  font-family: var(--bs-font-monospace);
  font-weight: 600;
  color: var(--blue);
}
</style>
