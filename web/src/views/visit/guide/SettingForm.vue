<script setup lang="ts">
import { line } from '@uvanta/core/schema'
import { object } from 'yup'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'

/** What a step has written down; a setting as it was found, before anything disturbs it. */
defineProps<{
  label?: string | undefined
  /** A photograph is asked for as well, and none is there. */
  withoutPicture?: boolean
}>()
const emit = defineEmits<{ written: [setting: string] }>()
const { submit } = useEntry(
  object({ setting: line(80).required('is missing: write it down') }),
  {},
  ({ setting }) => emit('written', setting.trim()),
)
</script>

<template>
  <form class="setting" novalidate @submit.prevent="submit">
    <EntryField
      name="setting"
      :label="label ?? 'As found'"
      v-bind="label ? {} : { placeholder: 'Turns, height, scale' }"
    />
    <BButton type="submit" variant="primary" size="lg">{{
      withoutPicture ? 'Written down, without a photograph' : 'Written down'
    }}</BButton>
  </form>
</template>

<style scoped>
.setting {
  display: grid;
  gap: 0.75rem;
  max-width: 28rem;
}
</style>
