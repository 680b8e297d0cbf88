<script setup lang="ts">
import type { Refusal } from '@uvanta/core/visit'
import { ref, shallowRef } from 'vue'
import ReasonForm from '@/parts/form/ReasonForm.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useVisit } from '@/stores/visit'

/** Ends a visit that cannot be finished; its log stays, and another visit is planned. */
const store = useVisit()
const shown = ref(false)
const refusal = shallowRef<Refusal | null>(null)

function stop(reason: string) {
  refusal.value = store.record('stopped', { reason })
  if (!refusal.value) shown.value = false
}
</script>

<template>
  <div class="no-print">
    <BButton variant="link" @click="shown = true">Stop this visit</BButton>
    <BModal v-model="shown" title="Stop this visit" no-footer>
      <p>
        What is on record stays. Nothing more can be recorded on this visit; plan another when it
        can go on. Leave the equipment so that nobody is hurt by it, and say so.
      </p>
      <ReasonForm
        label="Why the work ends here"
        action="Stop the visit"
        variant="outline-danger"
        @given="stop"
      >
        <ProblemNote :refusal="refusal" />
        <template #beside>
          <BButton variant="link" @click="shown = false">Carry on</BButton>
        </template>
      </ReasonForm>
    </BModal>
  </div>
</template>
