<script setup lang="ts">
import type { StepRecord } from '@uvanta/core/procedure'
import { type Dimension, unitLabel, unitsOf } from '@uvanta/core/quantity'
import { useStorage } from '@vueuse/core'
import { ref } from 'vue'

/** A reading typed as it is displayed, in the unit in which it is displayed. */
const props = defineProps<{ record: StepRecord; stepId: string }>()
const emit = defineEmits<{ take: [value: string, unit: string] }>()

const dimension = (props.record.dimension ?? 'differential') as Dimension
const units = useStorage<Record<string, string>>('uvanta-units', {})
const unit = ref(units.value[dimension] ?? props.record.unit ?? '')
const value = ref('')

function take() {
  units.value = { ...units.value, [dimension]: unit.value }
  emit('take', value.value, unit.value)
}
</script>

<template>
  <form class="reading" novalidate @submit.prevent="take">
    <label :for="`value-${stepId}`">{{ record.title }}</label>
    <div class="entry">
      <input
        :id="`value-${stepId}`"
        v-model="value"
        class="form-control mono"
        inputmode="decimal"
        autocomplete="off"
        placeholder="0.0"
      />
      <select v-model="unit" class="form-select" aria-label="Unit">
        <option v-for="u in unitsOf(dimension)" :key="u" :value="u">
          {{ unitLabel(dimension, u) }}
        </option>
      </select>
      <BButton type="submit" variant="primary" size="lg">Take the reading</BButton>
    </div>
  </form>
</template>

<style scoped>
label {
  font-weight: 600;
}

.entry {
  display: grid;
  grid-template-columns: minmax(7rem, 11rem) 7rem auto;
  gap: 0.6rem;
  align-items: stretch;
  justify-content: start;
}

.entry input {
  font-size: 2rem;
  padding: 0.1rem 0.75rem;
}

@media (max-width: 700px) {
  .entry {
    grid-template-columns: 1fr 7rem;
  }

  .entry .btn {
    grid-column: 1 / -1;
  }
}
</style>
