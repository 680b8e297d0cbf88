<script setup lang="ts">
import { api, bodyOf, type Starters } from '@uvanta/contract'
import { computed, onMounted, shallowRef } from 'vue'
import type * as yup from 'yup'
import { ApiProblem, call } from '@/api/client'
import type { FormField } from '@/parts/form/formField'
import RecordDialog from '@/parts/form/RecordDialog.vue'
import { useRecordDialog } from '@/parts/form/useRecordDialog'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import { useLibrary } from '@/stores/library'
import { useSession } from '@/stores/session'

/** The rules of a utility: copied from templates, compared with the local rules, and put in force in its name. */
const props = defineProps<{ authority: string; utility: string }>()
const session = useSession()
const library = useLibrary()
const starters = shallowRef<Starters | null>(null)
const problem = shallowRef<ApiProblem | null>(null)

async function load() {
  problem.value = null
  try {
    starters.value = await call(api.settings.starters)
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error
  }
}
onMounted(load)
function take(changed: Starters) {
  starters.value = changed
  library.forget()
}

type Pack = Starters['rulePacks'][number]
type Programme = Starters['programmes'][number]
const packBody = bodyOf(api.settings.adoptRulePack)
const programmeBody = bodyOf(api.settings.adoptProgramme)
const pack = useRecordDialog<Pack, yup.InferType<typeof packBody>>(async (_, body) =>
  take(await call(api.settings.adoptRulePack, { body })),
)
const programme = useRecordDialog<Programme, yup.InferType<typeof programmeBody>>(async (_, body) =>
  take(await call(api.settings.adoptProgramme, { body })),
)
const packFields: FormField<'title' | 'authority' | 'source' | 'effectiveFrom'>[] = [
  { name: 'title', label: 'Title', hint: 'As it stands on certificates.' },
  { name: 'authority', label: 'Authority' },
  {
    name: 'source',
    label: 'Source',
    kind: 'lines',
    rows: 4,
    hint: 'Edition of the local rule, and who compared the values with it.',
    wide: true,
  },
  { name: 'effectiveFrom', label: 'In force from', kind: 'date' },
]
type ProgrammeField = FormField<Extract<keyof yup.InferType<typeof programmeBody>, string>>
const number = (name: ProgrammeField['name'], label: string): ProgrammeField => ({
  name,
  label,
  kind: 'number',
})
const programmeFields: ProgrammeField[] = [
  { name: 'title', label: 'Title', wide: true },
  number('intervalMonths', 'Months between tests'),
  number('maximumMonths', 'Longest stretch in months'),
  number('graceDays', 'Days of grace'),
  number('firstNoticeDays', 'First notice, days before'),
  number('secondNoticeDays', 'Second notice, days before'),
  number('repairWithinDays', 'Repair within, days'),
]
const packInitial = () => ({
  starter: pack.subject.value?.id ?? '',
  title: `${props.utility}: ${pack.subject.value?.title ?? ''}`,
  authority: props.authority,
  effectiveFrom: session.today,
})
const programmeInitial = () => {
  if (!programme.subject.value) return {}
  const { inForce: _, ...fields } = programme.subject.value
  return fields
}
const sections = computed(() => [
  {
    title: 'Rules',
    entries: (starters.value?.rulePacks ?? []).map((p) => ({
      ...p,
      detail: p.kinds.join(', '),
      open: () => pack.open(p),
    })),
  },
  {
    title: 'Programmes',
    entries: (starters.value?.programmes ?? []).map((p) => ({
      ...p,
      detail: `every ${p.intervalMonths} months, repair within ${p.repairWithinDays} days`,
      open: () => programme.open(p),
    })),
  },
])
</script>

<template>
  <ProblemNote :problem="problem" @retry="load" />
  <section v-for="s in sections" :key="s.title" class="section">
    <h2>{{ s.title }}</h2>
    <p v-if="s.title === 'Rules'" class="soft">
      A rule pack says what passes. Each template holds usual values: compare them with the rules of
      your authority before you put it in force. Your own changes go into
      <span class="mono">library/rulepacks</span> in the directory of the data.
    </p>
    <p v-else class="soft">
      A programme says how often equipment is tested, and when notices go out.
    </p>
    <ul v-if="starters" class="rows">
      <li v-for="e in s.entries" :key="e.id">
        <div>
          <strong>{{ e.title }}</strong><br />
          <span class="soft small">{{ e.detail }}</span>
        </div>
        <StateMark v-if="e.inForce" state="in-order" label="in force" />
        <BButton
          size="sm"
          :variant="e.inForce ? 'link' : 'outline-primary'"
          :aria-label="`${e.inForce ? 'New version' : 'Put in force'}: ${e.title}`"
          @click="e.open"
          >{{ e.inForce ? 'New version' : 'Put in force' }}</BButton
        >
      </li>
    </ul>
  </section>
  <RecordDialog
    v-model="pack.shown.value"
    title="Put a rule pack in force"
    :schema="packBody"
    :fields="packFields"
    :initial="packInitial()"
    action="Put in force"
    :busy="pack.busy.value"
    :problem="pack.problem.value"
    @submit="pack.submit"
  />
  <RecordDialog
    v-model="programme.shown.value"
    title="Put a programme in force"
    :schema="programmeBody"
    :fields="programmeFields"
    :initial="programmeInitial()"
    action="Put in force"
    :busy="programme.busy.value"
    :problem="programme.problem.value"
    @submit="programme.submit"
  />
</template>

<style scoped>
.rows li {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 1rem;
  align-items: center;
  padding: 0.6rem 0;
}
</style>
