<script setup lang="ts" generic="T extends object">
import type * as yup from 'yup'
import EntryField from './EntryField.vue'
import type { FormField } from './formField'
import { useEntry } from './useEntry'

/** A form made from a list of fields and the schema of what it saves. */
const props = defineProps<{
  fields: readonly FormField<Extract<keyof T, string>>[]
  schema: yup.Schema<T>
  /** What is there already, and what is saved beside what is asked for. */
  initial: Partial<T>
  action: string
  busy?: boolean
  /** Place under which what is typed is kept until it is saved; not for secrets. */
  typed?: string
}>()
const emit = defineEmits<{ submit: [values: T]; cancel: [] }>()
const { values, submit, together, forget } = useEntry(
  props.schema,
  props.initial,
  (values) => {
    emit('submit', values)
    // Whoever saves it may still refuse: what was typed goes with the page that shows it as saved.
    return true
  },
  props.typed,
)
defineExpose({ forget })
</script>

<template>
  <form novalidate @submit.prevent="submit">
    <div class="fields">
      <EntryField
        v-for="{ wide, ...f } in fields"
        :key="f.name"
        v-bind="f"
        :class="{ whole: wide }"
      />
    </div>
    <slot :values="values" />
    <p v-if="together" class="fault" role="alert">Check the entries: {{ together }}.</p>
    <div class="actions">
      <BButton type="submit" variant="primary" :disabled="busy">{{ action }}</BButton>
      <BButton variant="link" @click="emit('cancel')">Cancel</BButton>
    </div>
  </form>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(15rem, 1fr));
  gap: 1rem 1.25rem;
  margin-bottom: 1.25rem;
}

.whole {
  grid-column: 1 / -1;
}

.fault {
  color: var(--fail);
}
</style>
