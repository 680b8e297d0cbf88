<script setup lang="ts">
import { integer, line } from '@uvanta/core/schema'
import type { PayloadOf } from '@uvanta/core/visit'
import { object } from 'yup'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'

/** One part or kit that was used: its name, the maker’s number of it, how many. */
type Part = PayloadOf<'repair'>['parts'][number]
const emit = defineEmits<{ used: [part: Part] }>()
const { values, submit, reset } = useEntry<Part>(
  object({
    name: line(80).required('is missing'),
    number: line(60),
    quantity: integer(1, 999).required('is missing'),
  }),
  { quantity: 1 },
  ({ name, number, quantity }) => {
    emit('used', { name: name.trim(), quantity, ...(number ? { number: number.trim() } : {}) })
    reset({ values: { name: undefined, number: undefined, quantity: 1 } as never })
    return true
  },
)
/** Takes what is entered and not yet added; false where that does not fit. */
const take = async () => ((values.name ?? values.number) ? (await submit()) === true : true)
defineExpose({ take })
</script>

<template>
  <div class="part">
    <EntryField name="name" label="Part or kit used" />
    <EntryField name="number" label="Part number" mono />
    <EntryField name="quantity" label="Count" kind="number" mono min="1" max="999" />
    <BButton variant="outline-primary" class="add" :disabled="!values.name" @click="submit"
      >Add</BButton
    >
  </div>
</template>

<style scoped>
.part {
  display: grid;
  grid-template-columns: 2fr 1fr 6rem auto;
  align-items: end;
  gap: 0.75rem;
  width: 100%;
}

@media (max-width: 43.75em) {
  .part {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
