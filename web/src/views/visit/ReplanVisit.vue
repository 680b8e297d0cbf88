<script setup lang="ts">
import { api, bodyOf, type Person, type Visit } from '@uvanta/contract'
import { computed, shallowRef, watch } from 'vue'
import type * as yup from 'yup'
import { ApiProblem, call } from '@/api/client'
import DialogSheet from '@/parts/DialogSheet.vue'
import RecordForm from '@/parts/form/RecordForm.vue'
import { useRecordDialog } from '@/parts/form/useRecordDialog'
import ProblemNote from '@/parts/ProblemNote.vue'
import PlanDoubts from './PlanDoubts.vue'

/** The office moves a visit to another day or time, or hands it to another technician. */
const props = defineProps<{ visit: Visit }>()
const emit = defineEmits<{ replanned: [] }>()
const people = shallowRef<readonly Person[]>([])
const body = bodyOf(api.visits.replan)
type Body = yup.InferType<typeof body>
const dialog = useRecordDialog<string, Body>(async (id, given) => {
  await call(api.visits.replan, { params: { id }, body: given })
  emit('replanned')
})
watch(dialog.shown, async (open) => {
  if (!open) return
  try {
    const { items } = await call(api.people.list)
    people.value = items.filter((p) => p.active && p.roles.includes('technician'))
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    dialog.problem.value = error
  }
})
const fields = computed(
  () =>
    [
      { name: 'plannedOn', label: 'Day', kind: 'date' },
      { name: 'time', label: 'Time', kind: 'time', hint: 'When the customer expects us.' },
      {
        name: 'technicianId',
        label: 'Technician',
        kind: 'choice',
        options: people.value.map((p) => ({ value: p.id, text: p.name })),
      },
      { name: 'why', label: 'Why', wide: true, hint: 'The technician reads it.' },
    ] as const,
)
const initial = computed<Partial<Body>>(() => ({
  plannedOn: props.visit.plannedOn,
  technicianId: props.visit.technicianId,
  ...(props.visit.time ? { time: props.visit.time } : {}),
}))
const plan = computed(() => props.visit.events[0]?.payload as { packId?: string } | undefined)
</script>

<template>
  <BButton variant="outline-primary" @click="dialog.open(visit.id)">Plan it otherwise</BButton>
  <DialogSheet
    v-model="dialog.shown.value"
    :title="`Plan ${visit.equipment.tag} otherwise`"
    no-footer
    size="lg"
  >
    <ProblemNote :problem="dialog.problem.value" />
    <RecordForm
      v-if="dialog.shown.value"
      v-slot="{ values }"
      :key="people.length"
      :schema="body"
      :fields="fields"
      :initial="initial"
      :busy="dialog.busy.value"
      action="Plan it so"
      @submit="dialog.submit"
      @cancel="dialog.shown.value = false"
    >
      <PlanDoubts
        :equipment-id="visit.equipment.id"
        :technician-id="values.technicianId"
        :planned-on="values.plannedOn"
        :rule-pack="plan?.packId"
        :visit="visit.id"
      />
    </RecordForm>
  </DialogSheet>
</template>
