<script setup lang="ts">
import { type Dimension, unitLabel, unitsOf } from '@uvanta/core/quantity'
import { displayed, line } from '@uvanta/core/schema'
import { computed, watch } from 'vue'
import { object, string } from 'yup'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'
import { useSession } from '@/stores/session'

/** One reading beside what was seen: its name, and its value as displayed. */
interface Seen {
  title: string
  dimension: Dimension
  value: string
  unit: string
}
const emit = defineEmits<{ read: [reading: Seen] }>()
const session = useSession()
const KINDS = {
  gaugePressure: 'pressure',
  differential: 'differential',
  length: 'length',
  temperature: 'temperature',
} satisfies Partial<Record<Dimension, string>>
const kinds = Object.entries(KINDS).map(([value, text]) => ({ value, text }))

const { values, submit, set } = useEntry<Seen>(
  object({
    title: line(80).required('is missing'),
    dimension: string<Dimension>().required(),
    value: displayed().required('is missing'),
    unit: string().required(),
  }),
  { dimension: 'gaugePressure', unit: session.units.gaugePressure },
  (seen) => {
    emit('read', { ...seen, title: seen.title.trim(), value: seen.value.trim() })
    set('title', '', false)
    set('value', '', false)
  },
)
const units = computed(() => {
  const { dimension = 'gaugePressure' } = values
  return unitsOf(dimension).map((value) => ({ value, text: unitLabel(dimension, value) }))
})
watch(
  () => values.dimension,
  () => set('unit', units.value[0]?.value ?? ''),
)
</script>

<template>
  <fieldset class="row-entry">
    <legend class="form-label">Readings (optional)</legend>
    <EntryField
      name="title"
      label="Name of the reading"
      quiet
      placeholder="Lock-up, first movement, travel"
    />
    <EntryField name="dimension" label="Kind of reading" quiet kind="choice" :options="kinds" />
    <EntryField name="value" label="Value of the reading" quiet mono inputmode="decimal" />
    <EntryField name="unit" label="Unit of the reading" quiet kind="choice" :options="units" />
    <BButton variant="outline-primary" @click="submit">Add</BButton>
  </fieldset>
</template>

<style scoped>
.row-entry {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 1fr) 7rem 6rem auto;
  align-items: start;
  gap: 0.5rem;
  margin-top: 1rem;
}

.row-entry legend {
  float: none;
  font-size: 1rem;
  grid-column: 1 / -1;
}

@media (max-width: 43.75em) {
  .row-entry {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
