<script setup lang="ts">
import { api, bodyOf, type Equipment, type Person } from '@uvanta/contract'
import { purposes, purposeTitles } from '@uvanta/core/visit'
import { v7 as uuidv7 } from 'uuid'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type * as yup from 'yup'
import { ApiProblem, call } from '@/api/client'
import DialogSheet from '@/parts/DialogSheet.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import type { FormField } from '@/parts/form/formField'
import RecordForm from '@/parts/form/RecordForm.vue'
import PlanDoubts from '@/views/visit/PlanDoubts.vue'
import { useLibrary } from '@/stores/library'
import { useSession } from '@/stores/session'

const props = defineProps<{ equipment: Equipment }>()
const shown = defineModel<boolean>({ required: true })
const session = useSession()
const library = useLibrary()
const router = useRouter()
const people = ref<Person[]>([])
const problem = ref<ApiProblem | null>(null)
const busy = ref(false)
let id = uuidv7()

watch(shown, async (open) => {
  if (!open) return
  id = uuidv7()
  problem.value = null
  const all = session.has('planner', 'administrator')
    ? (await call(api.people.list)).items
    : [session.person as Person]
  people.value = all.filter((p) => p.active && p.roles.includes('technician'))
})

const packs = computed(() =>
  (library.library?.rulePacks ?? []).filter((p) =>
    p.tests.some((t) => t.kind === props.equipment.kind),
  ),
)
const body = bodyOf(api.visits.plan)
type Plan = yup.InferType<typeof body>
const fields = computed<FormField<Extract<keyof Plan, string>>[]>(() => [
  { name: 'plannedOn', label: 'Date', kind: 'date' as const },
  { name: 'time', label: 'Time', kind: 'time' as const },
  {
    name: 'technicianId',
    label: 'Technician',
    kind: 'choice' as const,
    options: people.value.map((p) => ({ value: p.id, text: p.name })),
  },
  {
    name: 'purpose',
    label: 'Purpose',
    kind: 'choice' as const,
    options: purposes.map((p) => ({ value: p, text: purposeTitles[p] })),
  },
  // A family without a field test is serviced by its guide and judged by its function check.
  ...(packs.value.length > 0
    ? [
        {
          name: 'rulePack' as const,
          label: 'Rule pack',
          kind: 'choice' as const,
          options: packs.value.map((p) => ({ value: p.id, text: p.title })),
        },
      ]
    : []),
])
const initial = computed<Partial<Plan>>(() => ({
  id,
  equipmentId: props.equipment.id,
  plannedOn: session.today,
  ...(people.value.length === 1 ? { technicianId: people.value[0]?.id } : {}),
  purpose:
    props.equipment.condition === 'failed'
      ? 'failed-test'
      : packs.value.length > 0
        ? 'periodic-test'
        : 'overhaul',
  ...(packs.value[0] ? { rulePack: packs.value[0].id } : {}),
}))

async function plan(given: Plan) {
  busy.value = true
  problem.value = null
  try {
    const visit = await call(api.visits.plan, { body: given })
    shown.value = false
    await router.push({ name: 'visit', params: { id: visit.id } })
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <DialogSheet v-model="shown" :title="`Plan a visit to ${equipment.tag}`" no-footer>
    <ProblemNote :problem="problem" />
    <RecordForm
      v-if="shown"
      v-slot="{ values }"
      :key="people.length"
      :schema="body"
      :fields="fields"
      :initial="initial"
      :busy="busy"
      action="Plan the visit"
      @submit="plan"
      @cancel="shown = false"
    >
      <PlanDoubts
        :equipment-id="equipment.id"
        :technician-id="values.technicianId"
        :planned-on="values.plannedOn"
        :rule-pack="values.rulePack"
      />
    </RecordForm>
  </DialogSheet>
</template>
