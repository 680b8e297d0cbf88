<script setup lang="ts">
import { type PlacedStep, stepWords } from '@uvanta/core/guide'
import type { Refusal } from '@uvanta/core/visit'
import { ref, shallowRef } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useVisit } from '@/stores/visit'

/** A check that failed: the work is taken up again from the step that the guide names. */
const props = defineProps<{ step: PlacedStep; back?: PlacedStep | undefined }>()
const emit = defineEmits<{ again: [] }>()
const store = useVisit()
const what = ref('')
const refusal = shallowRef<Refusal | null>(null)

function again() {
  if (!props.back) return
  const reason = what.value.trim() || `Failed: ${props.step.trial ?? stepWords(props.step)}`
  refusal.value = store.record('guide-redo', { from: props.back.id, reason })
  if (!refusal.value) emit('again')
}
</script>

<template>
  <div class="caution failed" role="status">
    <template v-if="back">
      <p>Then do not go on. Take it up again from: {{ stepWords(back) }}.</p>
      <form novalidate @submit.prevent="again">
        <label
          >What was wrong
          <BFormInput
            v-model="what"
            placeholder="A lump, a cut ring, something binds"
            autocomplete="off"
        /></label>
        <BButton type="submit" variant="primary">Take up again from there</BButton>
      </form>
      <ProblemNote :refusal="refusal" />
    </template>
    <p v-else>
      Then do not go on. Press the step from which the work is taken up again, and say what failed.
    </p>
  </div>
</template>

<style scoped>
.failed p {
  margin-bottom: 0.5rem;
}

.failed p:last-child {
  margin-bottom: 0;
}

form {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: end;
}

label {
  flex: 1 1 16rem;
  font-weight: 600;
}
</style>
