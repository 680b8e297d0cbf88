<script setup lang="ts">
import { throwSymmetry } from '@uvanta/core/craft'
import { displayed } from '@uvanta/core/schema'
import type { PayloadOf } from '@uvanta/core/visit'
import { computed } from 'vue'
import { object, string } from 'yup'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'

/** Both projections of a shuttle thrown both ways, with what their difference says. */
type Throws = NonNullable<PayloadOf<'guide-step'>['throws']>
const emit = defineEmits<{ measured: [throws: Throws] }>()
const { values, submit } = useEntry(
  object({
    one: displayed().required('is missing: a projection in digits, as 31.5'),
    other: displayed().required('is missing: a projection in digits, as 31.5'),
    unit: string()
      .oneOf(['mm', 'in'] as const)
      .required(),
  }),
  { unit: 'mm' },
  ({ one, other, unit }) => {
    const amount = (value: string) => ({ value: value.trim(), unit })
    emit('measured', { one: amount(one), other: amount(other) })
  },
)
const verdict = computed(() => {
  const [one, other] = [Number(values.one), Number(values.other)]
  if (!(one >= 0) || !(other >= 0) || one + other === 0) return null
  return throwSymmetry({ one, other })
})
</script>

<template>
  <form novalidate @submit.prevent="submit">
    <div class="pair">
      <EntryField name="one" label="One end" inputmode="decimal" mono />
      <EntryField name="other" label="Other end" inputmode="decimal" mono />
      <EntryField
        name="unit"
        label="Unit"
        kind="choice"
        :options="[
          { value: 'mm', text: 'mm' },
          { value: 'in', text: 'in' },
        ]"
      />
    </div>
    <p v-if="verdict" :class="{ caution: !verdict.equal }">{{ verdict.says }}</p>
    <BButton type="submit" variant="primary" size="lg">Record both throws</BButton>
  </form>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 8rem));
  gap: 0.6rem;
  margin-bottom: 0.6rem;
}

.pair :deep(input) {
  font-size: 1.5rem;
}
</style>
