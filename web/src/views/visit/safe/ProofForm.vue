<script setup lang="ts">
import { unitLabel, unitsOf } from '@uvanta/core/quantity'
import type { Refusal } from '@uvanta/core/visit'
import { useStorage } from '@vueuse/core'
import { reactive, ref, shallowRef } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useSession } from '@/stores/session'
import { useVisit } from '@/stores/visit'

/** Zero, as it was read: the reading, how long it was watched, by whom. */
const props = defineProps<{ zone: string }>()
const emit = defineEmits<{ proved: [] }>()
const store = useVisit()
const session = useSession()
const refusal = shallowRef<Refusal | null>(null)
const message = ref('')
const unit = useStorage<string>('uvanta-line-unit', 'psi')
const form = reactive({ value: '', minutes: '2', by: session.person?.name ?? '' })

function prove() {
  message.value = ''
  refusal.value = null
  if (!/^-?\d{1,4}(\.\d{1,3})?$/.test(form.value.trim()))
    message.value = 'Enter what the gauge shows, in digits: 0 or 0.0.'
  else if (!/^\d{1,3}(\.\d)?$/.test(form.minutes.trim()))
    message.value = 'Enter for how many minutes it was watched.'
  else if (!form.by.trim()) message.value = 'Enter who read it.'
  if (message.value) return
  refusal.value = store.record('zone-proved', {
    zone: props.zone,
    reading: { dimension: 'gaugePressure', value: form.value.trim(), unit: unit.value },
    heldMinutes: Number(form.minutes),
    by: form.by.trim(),
  })
  if (!refusal.value) emit('proved')
}
</script>

<template>
  <form class="proof" novalidate @submit.prevent="prove">
    <div class="fields">
      <label
        >Reading
        <input
          v-model="form.value"
          class="form-control mono reading"
          inputmode="decimal"
          autocomplete="off"
          placeholder="0.0"
      /></label>
      <label
        >Unit
        <select v-model="unit" class="form-select">
          <option v-for="u in unitsOf('gaugePressure')" :key="u" :value="u">
            {{ unitLabel('gaugePressure', u) }}
          </option>
        </select>
      </label>
      <label
        >Watched, min <input v-model="form.minutes" class="form-control mono" inputmode="decimal"
      /></label>
      <label>Read by <input v-model="form.by" class="form-control" /></label>
    </div>
    <BButton type="submit" variant="primary" size="lg">Zero is read – record it</BButton>
    <ProblemNote
      :problem="null"
      :message="message || (refusal ? `${refusal.why} ${refusal.todo}` : '')"
    />
  </form>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: minmax(6rem, 8rem) 6.5rem 7rem minmax(0, 1fr);
  gap: 0.6rem;
  align-items: end;
  margin-bottom: 0.75rem;
}

label {
  font-weight: 600;
}

.reading {
  font-size: 1.5rem;
  padding-block: 0.2rem;
}

@media (max-width: 700px) {
  .fields {
    grid-template-columns: 1fr 1fr;
  }

  .proof .btn {
    width: 100%;
  }
}
</style>
