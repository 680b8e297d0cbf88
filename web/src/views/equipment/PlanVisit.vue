<script setup lang="ts">
import { api, type Equipment, type Person } from '@uvanta/contract'
import { purposes, purposeTitles } from '@uvanta/core/visit'
import { v7 as uuidv7 } from 'uuid'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { ApiProblem, call } from '@/api/client'
import ProblemNote from '@/parts/ProblemNote.vue'
import RecordForm from '@/parts/RecordForm.vue'
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
const fields = computed(() => [
  { name: 'plannedOn', label: 'Date', type: 'date' as const },
  {
    name: 'technicianId',
    label: 'Technician',
    type: 'select' as const,
    options: people.value.map((p) => ({ value: p.id, text: p.name })),
  },
  {
    name: 'purpose',
    label: 'Purpose',
    type: 'select' as const,
    options: purposes.map((p) => ({ value: p, text: purposeTitles[p] })),
  },
  // A family without a field test is serviced by its guide and judged by its function check.
  ...(packs.value.length > 0
    ? [
        {
          name: 'rulePack',
          label: 'Rule pack',
          type: 'select' as const,
          options: packs.value.map((p) => ({ value: p.id, text: p.title })),
        },
      ]
    : []),
])
const initial = computed(() => ({
  plannedOn: session.today,
  technicianId: people.value.length === 1 ? people.value[0]?.id : undefined,
  purpose:
    props.equipment.condition === 'failed'
      ? 'failed-test'
      : packs.value.length > 0
        ? 'periodic-test'
        : 'overhaul',
  rulePack: packs.value[0]?.id,
}))

async function plan(values: Record<string, unknown>) {
  busy.value = true
  problem.value = null
  try {
    const visit = await call(api.visits.plan, {
      body: { ...values, id, equipmentId: props.equipment.id } as never,
    })
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
  <BModal v-model="shown" :title="`Plan a visit to ${equipment.tag}`" no-footer>
    <ProblemNote :problem="problem" />
    <RecordForm
      v-if="shown"
      :key="people.length"
      :schema="api.visits.plan.body as never"
      :fields="fields"
      :initial="initial"
      :busy="busy"
      action="Plan the visit"
      @submit="plan"
      @cancel="shown = false"
    />
  </BModal>
</template>
