<script setup lang="ts">
import { passes } from '@uvanta/core/rules'
import { planOfVisit, type Notice } from '@uvanta/core/visit'
import { computed, shallowRef } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'
import LockList from './safe/LockList.vue'

/** The valve to the customer, which stayed shut during the test as left: opened once it has passed. */
const props = defineProps<{ outcome: string | null }>()
const store = useVisit()
const library = useLibrary()
const refusal = shallowRef<Notice | null>(null)
const held = computed(() =>
  store.state.runs['as-left'] && library.library
    ? planOfVisit(store.state, library.library, 'as-left')?.procedure.steps.find(
        (s) => s.untilPassed,
      )?.untilPassed
    : undefined,
)
const shut = computed(() => held.value && store.state.valves[held.value.element] === 'shut')
const passed = computed(() => passes(props.outcome as never))
function open() {
  if (!held.value) return
  refusal.value = store.record('valve-moved', { element: held.value.element, to: 'open' })
}
</script>

<template>
  <section v-if="held && shut" class="customer">
    <template v-if="passed">
      <h3>{{ held.then }}</h3>
      <p class="soft">The test has passed: the customer’s side may be opened by the local rule.</p>
      <LockList v-if="store.state.locks[held.element]" writable class="mb-3" />
      <BButton variant="primary" size="lg" @click="open">It is open</BButton>
    </template>
    <p v-else class="caution">
      The customer’s side stays shut: the test has not passed. Open it only where the local rule
      allows that, and say so in a note.
    </p>
    <ProblemNote :refusal="refusal" />
  </section>
</template>

<style scoped>
.customer {
  border: 2px solid var(--rule-strong);
  padding: 0.75rem 1rem 1rem;
  margin-bottom: 1.5rem;
  max-width: 44rem;
}

h3 {
  font-size: 1.375rem;
}
</style>
