<script setup lang="ts">
import { line } from '@uvanta/core/schema'
import { object } from 'yup'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'

/** A setting as it was found, written down before anything disturbs it. */
const emit = defineEmits<{ written: [setting: string] }>()
const { submit } = useEntry(
  object({ setting: line(200).required('is missing: turns, height or scale') }),
  {},
  ({ setting }) => emit('written', setting.trim()),
)
</script>

<template>
  <form class="setting" novalidate @submit.prevent="submit">
    <EntryField name="setting" label="As found" placeholder="Turns, height, scale" />
    <BButton type="submit" variant="primary" size="lg">Written down</BButton>
  </form>
</template>

<style scoped>
.setting {
  display: grid;
  gap: 0.75rem;
  max-width: 28rem;
}
</style>
