<script setup lang="ts">
import { countGrooves } from '@uvanta/core/craft'
import type { PlacedStep } from '@uvanta/core/guide'
import { integer } from '@uvanta/core/schema'
import type { PayloadOf } from '@uvanta/core/visit'
import { computed } from 'vue'
import { object } from 'yup'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'

/** Grooves and rings, counted before the first ring goes on, with what the counts say. */
type Counted = NonNullable<PayloadOf<'guide-step'>['counted']>
const props = defineProps<{ step: PlacedStep }>()
const emit = defineEmits<{ counted: [counted: Counted] }>()
const { values, submit } = useEntry(
  object({
    grooves: integer(1, 99).required('are counted first'),
    rings: integer(0, 99).required('are counted first'),
  }),
  {},
  (counted) => emit('counted', counted),
)

const known = computed(() => ({
  emptyOnPurpose: props.step.emptyOnPurpose ?? 0,
  doubled: props.step.doubled ?? 0,
}))
const verdict = computed(() => {
  const { grooves, rings } = values
  if (grooves === undefined || rings === undefined) return null
  if (!Number.isInteger(grooves) || !Number.isInteger(rings)) return null
  if (grooves < known.value.emptyOnPurpose + known.value.doubled || rings < 0) return null
  return countGrooves({ grooves, rings, ...known.value })
})
</script>

<template>
  <form class="grooves" novalidate @submit.prevent="submit">
    <p v-if="known.emptyOnPurpose > 0" class="soft">
      {{ known.emptyOnPurpose }}
      {{ known.emptyOnPurpose === 1 ? 'groove stays' : 'grooves stay' }} empty on purpose.
    </p>
    <div class="pair">
      <EntryField name="grooves" label="Grooves" kind="number" inputmode="numeric" mono />
      <EntryField name="rings" label="Rings" kind="number" inputmode="numeric" mono />
    </div>
    <p v-if="verdict" :class="{ caution: !verdict.fits }">{{ verdict.says }}</p>
    <BButton type="submit" variant="primary" size="lg">Record both counts</BButton>
  </form>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 8rem));
  gap: 0.6rem;
  margin-bottom: 0.6rem;
}

.pair :deep(input) {
  font-size: 1.5rem;
}
</style>
