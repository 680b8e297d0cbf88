<script setup lang="ts">
import { integer } from '@uvanta/core/schema'
import { ref } from 'vue'
import { object } from 'yup'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'

/**
 * Records how many pieces came off, went in or were counted. The button names the expected number, except at a count:
 * there the number is entered, so that someone really counts.
 */
const props = defineProps<{ wanted: number; action: string; blind?: boolean }>()
const emit = defineEmits<{ counted: [pieces: number] }>()
const entering = ref(props.blind)
const { submit } = useEntry(
  object({ pieces: integer(0, 200).required('are counted first') }),
  {},
  ({ pieces }) => emit('counted', pieces),
)
</script>

<template>
  <form v-if="entering" class="pieces" novalidate @submit.prevent="submit">
    <EntryField name="pieces" label="Pieces counted" kind="number" inputmode="numeric" mono />
    <BButton type="submit" variant="primary" size="lg">Record the number</BButton>
  </form>
  <div v-else class="actions">
    <BButton variant="primary" size="lg" class="main" @click="emit('counted', wanted)">{{
      wanted === 1 ? action : `${action}, all ${wanted}`
    }}</BButton>
    <BButton variant="outline-primary" @click="entering = true">Another number</BButton>
  </div>
</template>

<style scoped>
.pieces {
  display: grid;
  gap: 0.6rem;
  max-width: 18rem;
}

.pieces :deep(input) {
  font-size: 1.5rem;
}

.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}
</style>
