<script setup lang="ts">
import { type Dimension, unitLabel, unitsOf } from '@uvanta/core/quantity'
import { displayed, line } from '@uvanta/core/schema'
import type { Notice } from '@uvanta/core/visit'
import { shallowRef } from 'vue'
import { object } from 'yup'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useVisit } from '@/stores/visit'

/** A figure that the spec sheet lacks: asked for with its source, and nothing goes on without it. */
const props = defineProps<{
  slotId: string
  slotTitle: string
  dimension?: Dimension | undefined
}>()
const store = useVisit()
const { dimension } = props
const units = dimension
  ? unitsOf(dimension).map((u) => ({ value: u, text: unitLabel(dimension, u) }))
  : []
const refusal = shallowRef<Notice | null>(null)
const { submit } = useEntry(
  object({
    value: (dimension ? displayed() : line(60)).required('is missing'),
    unit: line(12),
    source: line(200).required('is missing: sheet, page, date'),
  }),
  units[0] ? { unit: units[0].value } : {},
  ({ value, unit, source }) =>
    (refusal.value = store.record('guide-value', {
      slot: props.slotId,
      value: value.trim(),
      ...(unit ? { unit } : {}),
      source: source.trim(),
    })),
  `${store.visit?.id}/slot-${props.slotId}`,
)
</script>

<template>
  <form class="ask" novalidate @submit.prevent="submit">
    <p><strong>The sheet in the library has no figure here.</strong> {{ slotTitle }}:</p>
    <div class="fields">
      <EntryField name="value" label="Value" inputmode="decimal" mono />
      <EntryField v-if="units.length > 0" name="unit" label="Unit" kind="choice" :options="units" />
      <EntryField name="source" label="Where from" placeholder="Maker’s sheet, page 4, 2024" />
      <BButton type="submit" variant="primary">Keep it</BButton>
    </div>
    <ProblemNote :refusal="refusal" />
  </form>
</template>

<style scoped>
.ask {
  border: 2px solid var(--rule-strong);
  padding: 0.75rem 1rem;
  margin: 0.75rem 0;
}

.ask p {
  margin-bottom: 0.4rem;
}

.fields {
  display: grid;
  grid-template-columns: minmax(6rem, 9rem) minmax(5rem, 7rem) minmax(0, 1fr) auto;
  gap: 0.6rem;
  align-items: end;
}

@media (max-width: 43.75em) {
  .fields {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
