<script setup lang="ts">
import { countGrooves } from '@uvanta/core/craft'
import type { PlacedStep } from '@uvanta/core/guide'
import type { PayloadOf } from '@uvanta/core/visit'
import { computed, reactive, ref } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'

/** Grooves and rings, counted before the first ring goes on, with what the counts say. */
type Counted = NonNullable<PayloadOf<'guide-step'>['counted']>
const props = defineProps<{ step: PlacedStep }>()
const emit = defineEmits<{ counted: [counted: Counted] }>()
const form = reactive({ grooves: '', rings: '' })
const message = ref('')

const count = (text: string) => (/^\d{1,2}$/.test(text.trim()) ? Number(text) : null)
const known = computed(() => ({
  emptyOnPurpose: props.step.emptyOnPurpose ?? 0,
  doubled: props.step.doubled ?? 0,
}))
const verdict = computed(() => {
  const [grooves, rings] = [count(form.grooves), count(form.rings)]
  if (grooves === null || rings === null) return null
  if (grooves < known.value.emptyOnPurpose + known.value.doubled) return null
  return countGrooves({ grooves, rings, ...known.value })
})
function keep() {
  const [grooves, rings] = [count(form.grooves), count(form.rings)]
  message.value =
    grooves === null || rings === null || grooves === 0
      ? 'Enter both counts in digits, as 6 and 5.'
      : ''
  if (grooves && rings !== null) emit('counted', { grooves, rings })
}
</script>

<template>
  <form class="grooves" novalidate @submit.prevent="keep">
    <p v-if="known.emptyOnPurpose > 0" class="soft">
      {{ known.emptyOnPurpose }}
      {{ known.emptyOnPurpose === 1 ? 'groove stays' : 'grooves stay' }} empty on purpose.
    </p>
    <div class="pair">
      <label
        >Grooves
        <input
          v-model="form.grooves"
          class="form-control mono"
          inputmode="numeric"
          autocomplete="off"
      /></label>
      <label
        >Rings
        <input
          v-model="form.rings"
          class="form-control mono"
          inputmode="numeric"
          autocomplete="off"
      /></label>
    </div>
    <p v-if="verdict" :class="{ caution: !verdict.fits }">{{ verdict.says }}</p>
    <ProblemNote :problem="null" :message="message" />
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

.pair input {
  font-size: 1.5rem;
}

label {
  font-weight: 600;
}
</style>
