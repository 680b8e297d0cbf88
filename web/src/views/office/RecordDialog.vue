<script setup lang="ts">
import type { ApiProblem } from '@/api/client'
import type { FormField } from '@/parts/formField'
import ProblemNote from '@/parts/ProblemNote.vue'
import RecordForm from '@/parts/RecordForm.vue'

defineProps<{
  title: string
  fields: readonly FormField[]
  schema: unknown
  initial: Record<string, unknown>
  action: string
  busy: boolean
  problem: ApiProblem | null
}>()
const shown = defineModel<boolean>({ required: true })
const emit = defineEmits<{ submit: [values: Record<string, unknown>] }>()
</script>

<template>
  <BModal v-model="shown" :title="title" no-footer size="lg">
    <ProblemNote :problem="problem" />
    <RecordForm
      v-if="shown"
      :schema="schema as never"
      :fields="fields"
      :initial="initial"
      :action="action"
      :busy="busy"
      @submit="emit('submit', $event)"
      @cancel="shown = false"
    />
  </BModal>
</template>
