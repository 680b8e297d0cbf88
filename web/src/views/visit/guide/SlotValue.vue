<script setup lang="ts">
import { type Dimension, unitLabel, unitsOf } from '@uvanta/core/quantity'
import type { Refusal } from '@uvanta/core/visit'
import { ref, shallowRef } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useVisit } from '@/stores/visit'

/** A figure that the spec sheet lacks: asked for with its source, and nothing goes on without it. */
const props = defineProps<{
  slotId: string
  slotTitle: string
  dimension?: Dimension | undefined
}>()
const store = useVisit()
const value = ref('')
const units = props.dimension ? unitsOf(props.dimension) : []
const unit = ref<string>(units[0] ?? '')
const source = ref('')
const message = ref('')
const refusal = shallowRef<Refusal | null>(null)

function keep() {
  message.value = ''
  if (!value.value.trim() || !source.value.trim()) {
    message.value = 'Enter the value, and where it comes from: sheet, page, date.'
    return
  }
  if (props.dimension && !/^\d{1,6}(\.\d{1,4})?$/.test(value.value.trim())) {
    message.value = 'Write the value in digits with a point, as 12.5.'
    return
  }
  refusal.value = store.record('guide-value', {
    slot: props.slotId,
    value: value.value.trim(),
    ...(unit.value ? { unit: unit.value } : {}),
    source: source.value.trim(),
  })
}
</script>

<template>
  <form class="ask" novalidate @submit.prevent="keep">
    <p><strong>The sheet in the library has no figure here.</strong> {{ slotTitle }}:</p>
    <div class="fields">
      <label
        >Value
        <input v-model="value" class="form-control mono" inputmode="decimal" autocomplete="off"
      /></label>
      <label v-if="units.length > 0"
        >Unit
        <select v-model="unit" class="form-select">
          <option v-for="u in units" :key="u" :value="u">
            {{ dimension ? unitLabel(dimension, u) : u }}
          </option>
        </select>
      </label>
      <label
        >Where from
        <input v-model="source" class="form-control" placeholder="Maker’s sheet, page 4, 2024"
      /></label>
      <BButton type="submit" variant="primary">Keep it</BButton>
    </div>
    <ProblemNote
      :problem="null"
      :message="message || (refusal ? `${refusal.why} ${refusal.todo}` : '')"
    />
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

@media (max-width: 700px) {
  .fields {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
