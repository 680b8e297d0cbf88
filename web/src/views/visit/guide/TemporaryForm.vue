<script setup lang="ts">
import type { PayloadOf } from '@uvanta/core/visit'
import { reactive, ref } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'

/** A temporary repair: who permitted it, and the date by which it is renewed. */
type Temporary = NonNullable<PayloadOf<'guide-step'>['temporary']>
const emit = defineEmits<{ given: [temporary: Temporary] }>()
const form = reactive({ until: '', permittedBy: '' })
const message = ref('')

function keep() {
  message.value =
    form.until && form.permittedBy.trim()
      ? ''
      : 'Enter who permitted it and the date by which it is renewed.'
  if (!message.value) emit('given', { until: form.until, permittedBy: form.permittedBy.trim() })
}
</script>

<template>
  <form class="temporary" novalidate @submit.prevent="keep">
    <label>Permitted by <input v-model="form.permittedBy" class="form-control" /></label>
    <label>Renew by <input v-model="form.until" class="form-control mono" type="date" /></label>
    <BButton type="submit" variant="primary" size="lg">Record the temporary repair</BButton>
    <ProblemNote :problem="null" :message="message" />
    <p class="soft small">A visit to renew it is planned for that day when this one is signed.</p>
  </form>
</template>

<style scoped>
.temporary {
  display: grid;
  gap: 0.75rem;
  max-width: 28rem;
}

label {
  font-weight: 600;
}
</style>
