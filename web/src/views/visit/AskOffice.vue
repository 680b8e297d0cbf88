<script setup lang="ts">
import type { Notice } from '@uvanta/core/visit'
import { ref, shallowRef } from 'vue'
import DialogSheet from '@/parts/DialogSheet.vue'
import ReasonForm from '@/parts/form/ReasonForm.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useVisit } from '@/stores/visit'

/** The technician asks the office to hand the visit over, move it or let it be. */
const store = useVisit()
const shown = ref(false)
const refusal = shallowRef<Notice | null>(null)
function ask(why: string) {
  refusal.value = store.record('replan-asked', { why })
  if (!refusal.value) shown.value = false
}
</script>

<template>
  <BButton variant="link" @click="shown = true">Ask the office to plan it otherwise</BButton>
  <DialogSheet v-model="shown" title="Ask the office" no-footer>
    <p>The planner hands it over, moves it or lets it be. Until then it stays yours.</p>
    <ReasonForm
      label="What is asked, and why"
      action="Ask"
      placeholder="Move it: the customer is away until Thursday"
      @given="ask"
    >
      <ProblemNote :refusal="refusal" />
    </ReasonForm>
  </DialogSheet>
</template>
