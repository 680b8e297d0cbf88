<script setup lang="ts">
import type { Refusal } from '@uvanta/core/visit'
import { ref, shallowRef } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useVisit } from '@/stores/visit'

/** Ends a visit that cannot be finished; its log stays, and another visit is planned. */
const store = useVisit()
const shown = ref(false)
const reason = ref('')
const refusal = shallowRef<Refusal | null>(null)

function stop() {
  refusal.value = reason.value.trim()
    ? store.record('stopped', { reason: reason.value.trim() })
    : { why: 'The reason is missing.', remedy: 'Say why the work ends here.' }
  if (!refusal.value) shown.value = false
}
</script>

<template>
  <div class="no-print">
    <BButton variant="link" @click="shown = true">Stop this visit</BButton>
    <BModal v-model="shown" title="Stop this visit" no-footer>
      <form novalidate @submit.prevent="stop">
        <p>
          What is on record stays. Nothing more can be recorded on this visit; plan another when it
          can go on. Leave the equipment so that nobody is hurt by it, and say so.
        </p>
        <label class="form-label" for="stop-reason">Why the work ends here</label>
        <BFormInput id="stop-reason" v-model="reason" autocomplete="off" />
        <ProblemNote :refusal="refusal" />
        <div class="actions mt-3">
          <BButton type="submit" variant="outline-danger">Stop the visit</BButton>
          <BButton variant="link" @click="shown = false">Carry on</BButton>
        </div>
      </form>
    </BModal>
  </div>
</template>
