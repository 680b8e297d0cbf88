<script setup lang="ts">
import type { StepRecord } from '@uvanta/core/procedure'
import { type Dimension, parseDisplayed, unitLabel, unitsOf } from '@uvanta/core/quantity'
import { doubtOf, type RunState } from '@uvanta/core/visit'
import { useStorage } from '@vueuse/core'
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { withPoint } from '@/parts/form/withPoint'

/**
 * A reading typed as it is displayed, in the unit in which it is displayed. One that the gauge cannot
 * have shown is questioned here; who insists says why.
 */
const props = defineProps<{ record: StepRecord; stepId: string; run: RunState }>()
const emit = defineEmits<{
  /** Something is being typed: an instrument that comes on the line does not take it away. */
  typing: []
  take: [value: string, unit: string, insisted: string | undefined]
}>()

const dimension = (props.record.dimension ?? 'differential') as Dimension
const units = useStorage<Record<string, string>>('uvanta-units', {})
const unit = ref(units.value[dimension] ?? props.record.unit ?? '')
const value = ref('')
/** The reading that was questioned, as “48 psi”. */
const questioned = ref('')
const insisting = ref(false)
const reason = ref('')
const why = useTemplateRef<HTMLInputElement>('why')

const doubt = computed(() => {
  try {
    parseDisplayed(value.value)
    return doubtOf({ dimension, value: value.value.trim(), unit: unit.value }, props.run)
  } catch {
    // No number yet: the guard says so when it is taken.
    return null
  }
})
const asked = computed(() =>
  doubt.value && questioned.value === `${value.value} ${unit.value}` ? doubt.value : null,
)

function take() {
  units.value = { ...units.value, [dimension]: unit.value }
  if (doubt.value && !(asked.value && insisting.value && reason.value.trim())) {
    questioned.value = `${value.value} ${unit.value}`
    return
  }
  emit('take', value.value, unit.value, doubt.value ? reason.value.trim() : undefined)
}
function typed() {
  value.value = withPoint(value.value)
  emit('typing')
}
function mend(meant: string) {
  value.value = meant
  questioned.value = ''
  take()
}
function insist() {
  insisting.value = true
  void nextTick(() => why.value?.focus())
}
</script>

<template>
  <form class="reading" novalidate @submit.prevent="take">
    <label :for="`value-${stepId}`">{{ record.title }}</label>
    <div class="entry">
      <BFormInput
        :id="`value-${stepId}`"
        v-model="value"
        class="mono"
        inputmode="decimal"
        autocomplete="off"
        placeholder="0.0"
        :aria-describedby="asked ? `doubt-${stepId}` : undefined"
        @update:model-value="typed"
      />
      <BFormSelect v-model="unit" aria-label="Unit">
        <option v-for="u in unitsOf(dimension)" :key="u" :value="u">
          {{ unitLabel(dimension, u) }}
        </option>
      </BFormSelect>
      <BButton type="submit" :variant="asked ? 'outline-primary' : 'primary'" size="lg"
        >Take the reading</BButton
      >
    </div>
    <div v-if="asked" :id="`doubt-${stepId}`" class="caution doubt" role="alert">
      <p>{{ asked.why }}{{ asked.meant ? `: ${asked.meant}?` : '.' }}</p>
      <div class="actions">
        <BButton v-if="asked.meant" variant="primary" size="lg" @click="mend(asked.meant)"
          >Take {{ asked.meant }}</BButton
        >
        <BButton v-if="!insisting" variant="link" @click="insist"
          >It really shows {{ value }}</BButton
        >
      </div>
      <template v-if="insisting">
        <label :for="`insist-${stepId}`">How can that be? It is recorded, and not assessed.</label>
        <BFormInput :id="`insist-${stepId}`" ref="why" v-model="reason" />
      </template>
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

.doubt {
  margin: 0.75rem 0 0;
}

.doubt p {
  margin: 0 0 0.5rem;
  font-weight: 600;
}

@media (max-width: 43.75em) {
  .entry {
    grid-template-columns: 1fr 7rem;
  }

  .entry .btn {
    grid-column: 1 / -1;
  }
}
</style>
