<script setup lang="ts">
import { unitLabel, unitsOf } from '@uvanta/core/quantity'
import { displayed, line, number, unitField } from '@uvanta/core/schema'
import type { Notice } from '@uvanta/core/visit'
import { useStorage } from '@vueuse/core'
import { shallowRef } from 'vue'
import { object } from 'yup'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useSession } from '@/stores/session'
import { useVisit } from '@/stores/visit'

/** Zero, as it was read: the reading, how long it was watched, by whom. */
const props = defineProps<{ zone: string }>()
const emit = defineEmits<{ proved: [] }>()
const store = useVisit()
const session = useSession()
const refusal = shallowRef<Notice | null>(null)
const unit = useStorage<string>('uvanta-line-unit', session.units.gaugePressure)
const units = unitsOf('gaugePressure').map((u) => ({
  value: u,
  text: unitLabel('gaugePressure', u),
}))
const { submit } = useEntry(
  object({
    value: displayed().required('is missing: what the gauge shows, as 0 or 0.0'),
    unit: unitField('gaugePressure').required(),
    heldMinutes: number(0, 240).required('is missing: for how many minutes it was watched'),
    by: line(120).required('is missing: who read it'),
  }),
  { unit: unit.value, heldMinutes: 2, by: session.person?.name ?? '' },
  (read) => {
    unit.value = read.unit
    refusal.value = store.record('zone-proved', {
      zone: props.zone,
      reading: { dimension: 'gaugePressure', value: read.value.trim(), unit: read.unit },
      heldMinutes: read.heldMinutes,
      by: read.by.trim(),
    })
    if (!refusal.value) emit('proved')
  },
)
</script>

<template>
  <form class="proof" novalidate @submit.prevent="submit">
    <div class="fields">
      <EntryField
        class="reading"
        name="value"
        label="Reading"
        inputmode="decimal"
        placeholder="0.0"
        mono
      />
      <EntryField name="unit" label="Unit" kind="choice" :options="units" />
      <EntryField name="heldMinutes" label="Watched, min" kind="number" inputmode="decimal" mono />
      <EntryField name="by" label="Read by" />
    </div>
    <BButton type="submit" variant="primary" size="lg">Zero is read – record it</BButton>
    <ProblemNote :refusal="refusal" />
  </form>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: minmax(6rem, 8rem) 6.5rem 7rem minmax(0, 1fr);
  gap: 0.6rem;
  align-items: start;
  margin-bottom: 0.75rem;
}

.reading :deep(input) {
  font-size: 1.5rem;
  padding-block: 0.2rem;
}

@media (max-width: 43.75em) {
  .fields {
    grid-template-columns: 1fr 1fr;
  }

  .proof .btn {
    width: 100%;
  }
}
</style>
