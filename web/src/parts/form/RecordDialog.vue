<script setup lang="ts" generic="T extends object">
import type * as yup from 'yup'
import type { ApiProblem } from '@/api/client'
import DialogSheet from '../DialogSheet.vue'
import ProblemNote from '../ProblemNote.vue'
import type { FormField } from './formField'
import RecordForm from './RecordForm.vue'

defineProps<{
  title: string
  fields: readonly FormField<Extract<keyof T, string>>[]
  schema: yup.Schema<T>
  initial: Partial<T>
  action: string
  busy: boolean
  problem: ApiProblem | null
}>()
const shown = defineModel<boolean>({ required: true })
const emit = defineEmits<{ submit: [values: T] }>()
</script>

<template>
  <DialogSheet v-model="shown" :title="title" no-footer size="lg">
    <ProblemNote :problem="problem" />
    <RecordForm
      v-if="shown"
      :schema="schema"
      :fields="fields"
      :initial="initial"
      :action="action"
      :busy="busy"
      @submit="emit('submit', $event)"
      @cancel="shown = false"
    />
  </DialogSheet>
</template>
