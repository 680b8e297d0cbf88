<script setup lang="ts">
import { throwSymmetry } from '@uvanta/core/craft'
import type { PayloadOf } from '@uvanta/core/visit'
import { computed, reactive, ref } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'

/** Both projections of a shuttle thrown both ways, with what their difference says. */
type Throws = NonNullable<PayloadOf<'guide-step'>['throws']>
const emit = defineEmits<{ measured: [throws: Throws] }>()
const form = reactive({ one: '', other: '' })
const unit = ref<'mm' | 'in'>('mm')
const message = ref('')

const isNumber = (text: string) => /^\d{1,4}(\.\d{1,3})?$/.test(text.trim())
const verdict = computed(() => {
  const [one, other] = [Number(form.one), Number(form.other)]
  if (!isNumber(form.one) || !isNumber(form.other) || one + other === 0) return null
  return throwSymmetry({ one, other })
})
function keep() {
  message.value =
    isNumber(form.one) && isNumber(form.other) ? '' : 'Enter both projections in digits, as 31.5.'
  if (message.value) return
  const amount = (value: string) => ({ value: value.trim(), unit: unit.value })
  emit('measured', { one: amount(form.one), other: amount(form.other) })
}
</script>

<template>
  <form novalidate @submit.prevent="keep">
    <div class="pair">
      <label
        >One end
        <input v-model="form.one" class="form-control mono" inputmode="decimal" autocomplete="off"
      /></label>
      <label
        >Other end
        <input
          v-model="form.other"
          class="form-control mono"
          inputmode="decimal"
          autocomplete="off"
      /></label>
      <label
        >Unit
        <select v-model="unit" class="form-select">
          <option>mm</option>
          <option>in</option>
        </select>
      </label>
    </div>
    <p v-if="verdict" :class="{ caution: !verdict.equal }">{{ verdict.says }}</p>
    <ProblemNote :problem="null" :message="message" />
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

.pair input {
  font-size: 1.5rem;
}

label {
  font-weight: 600;
}
</style>
