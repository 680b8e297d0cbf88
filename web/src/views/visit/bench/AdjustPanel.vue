<script setup lang="ts">
import { type Adjusting, adjustingOf, type PayloadOf, type Notice } from '@uvanta/core/visit'
import { computed, ref, shallowRef } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useGauge } from '@/stores/gauge'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'

/** The screws by which equipment is set: which way, how much, and what was turned so far. */
const props = defineProps<{
  /** Only the adjuster that this item is set by. */
  item?: string
}>()
const store = useVisit()
const library = useLibrary()
const gauge = useGauge()
const refusal = shallowRef<Notice | null>(null)
const TURNS = [
  { value: '0.125', text: '⅛' },
  { value: '0.25', text: '¼' },
  { value: '0.5', text: '½' },
  { value: '1', text: '1' },
]
const turns = ref('0.25')

const shown = computed<readonly Adjusting[]>(() => {
  const all = library.library ? adjustingOf(store.state, library.library) : []
  return props.item ? all.filter((a) => a.adjuster.reads.item === props.item) : all
})
/** Turns on record by adjuster, inwards positive. */
const turned = (id: string) => {
  const sum = store.state.adjusted
    .filter((a) => a.adjuster === id)
    .reduce((total, a) => total + Number(a.turns) * (a.way === 'in' ? 1 : -1), 0)
  if (sum === 0)
    return store.state.adjusted.some((a) => a.adjuster === id) ? 'back where it was' : ''
  return `${Math.abs(sum)} turns ${sum > 0 ? 'in' : 'out'} so far`
}

function turn(adjuster: string, way: PayloadOf<'adjusted'>['way']) {
  const payload = { adjuster, way, turns: turns.value }
  refusal.value = store.record('adjusted', payload)
  if (!refusal.value) gauge.adjusted(payload)
}
</script>

<template>
  <section v-if="shown.length > 0" class="adjust" aria-labelledby="adjust-title">
    <h3 id="adjust-title">Set it</h3>
    <fieldset class="amount">
      <legend>Turns</legend>
      <BFormRadioGroup v-model="turns" name="turns" :options="TURNS" buttons size="lg" />
    </fieldset>
    <div v-for="a in shown" :key="a.adjuster.id" class="screw">
      <p class="name">
        {{ a.adjuster.label }} <span class="soft small">{{ turned(a.adjuster.id) }}</span>
      </p>
      <p class="says">{{ a.says }}</p>
      <p class="soft small">Inwards {{ a.adjuster.inwards }}.</p>
      <div class="actions">
        <BButton variant="outline-primary" size="lg" @click="turn(a.adjuster.id, 'in')"
          >Turned in</BButton
        >
        <BButton variant="outline-primary" size="lg" @click="turn(a.adjuster.id, 'out')"
          >Turned out</BButton
        >
      </div>
    </div>
    <ProblemNote :refusal="refusal" />
    <p class="soft small">What was read before a turn is read again after it.</p>
  </section>
</template>

<style scoped>
.adjust {
  border: 2px solid var(--rule-strong);
  background: var(--paper-raised);
  padding: 0.75rem 1rem;
  margin: 0.75rem 0;
}

h3 {
  font-size: 1.125rem;
}

.amount {
  display: flex;
  align-items: center;
  gap: 0.75rem;
}

.amount legend {
  float: none;
  width: auto;
  font-size: 1rem;
  margin: 0;
}

.screw {
  margin-top: 0.6rem;
}

.screw p {
  margin: 0;
}

.name {
  font-weight: 600;
}

.actions {
  margin-top: 0.4rem;
}
</style>
