<script setup lang="ts">
import { line, localDate } from '@uvanta/core/schema'
import type { PayloadOf } from '@uvanta/core/visit'
import { object } from 'yup'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'

/** A temporary repair: who permitted it, and the date by which it is renewed. */
type Temporary = NonNullable<PayloadOf<'guide-step'>['temporary']>
const emit = defineEmits<{ given: [temporary: Temporary] }>()
const { submit } = useEntry(
  object({
    permittedBy: line(120).required('is missing: a temporary repair is permitted by somebody'),
    until: localDate().required('is missing: a temporary repair has an end'),
  }),
  {},
  ({ permittedBy, until }) => emit('given', { until, permittedBy: permittedBy.trim() }),
)
</script>

<template>
  <form class="temporary" novalidate @submit.prevent="submit">
    <EntryField name="permittedBy" label="Permitted by" />
    <EntryField name="until" label="Renew by" kind="date" mono />
    <BButton type="submit" variant="primary" size="lg">Record the temporary repair</BButton>
    <p class="soft small">A visit to renew it is planned for that day when this one is signed.</p>
  </form>
</template>

<style scoped>
.temporary {
  display: grid;
  gap: 0.75rem;
  max-width: 28rem;
}
</style>
