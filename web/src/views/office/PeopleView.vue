<script setup lang="ts">
import { api, type Licence, licenceKinds, type Person, roles } from '@uvanta/contract'
import { v7 as uuidv7 } from 'uuid'
import { computed, onMounted } from 'vue'
import { call } from '@/api/client'
import { useLoad } from '@/composables/useLoad'
import { useTitle } from '@/composables/useTitle'
import { dateWords } from '@/composables/words'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { useSession } from '@/stores/session'
import OfficeTabs from './OfficeTabs.vue'
import RecordDialog from './RecordDialog.vue'
import { useRecordDialog } from './useRecordDialog'

useTitle('People')
const session = useSession()
const { value, loading, problem, load } = useLoad(async () => (await call(api.people.list)).items)
onMounted(load)

const roleOptions = roles.map((r) => ({ value: r, text: r }))
const personFields = [
  { name: 'username', label: 'Sign-in name', mono: true },
  { name: 'name', label: 'Name' },
  {
    name: 'password',
    label: 'First password',
    type: 'password' as const,
    hint: 'At least 12 characters; the person changes it.',
    autocomplete: 'new-password',
  },
  { name: 'roles', label: 'Roles', type: 'checks' as const, options: roleOptions, wide: true },
]
const adding = useRecordDialog<string>(async (id, values) => {
  await call(api.people.create, { body: { ...values, id } as never })
  await load()
})
const changing = useRecordDialog<Person>(async (p, values) => {
  await call(api.people.change, { params: { id: p.id }, version: p.version, body: values as never })
  await load()
})
const licensing = useRecordDialog<{ person: Person; licence?: Licence; id: string }>(
  async ({ person, licence, id }, values) => {
    if (licence)
      await call(api.people.changeLicence, {
        params: { id: licence.id },
        version: licence.version,
        body: values as never,
      })
    else
      await call(api.people.addLicence, {
        params: { id: person.id },
        body: { ...values, id } as never,
      })
    await load()
  },
)
const licenceFields = computed(() => [
  ...(licensing.subject.value?.licence
    ? []
    : [
        {
          name: 'kind',
          label: 'Licence',
          type: 'select' as const,
          options: Object.entries(licenceKinds).map(([v, text]) => ({ value: v, text })),
        },
      ]),
  { name: 'number', label: 'Number', mono: true },
  { name: 'issuedOn', label: 'Issued', type: 'date' as const },
  { name: 'expiresOn', label: 'Expires', type: 'date' as const },
])
const licenceInitial = computed(() => {
  const l = licensing.subject.value?.licence
  return l ? { number: l.number, issuedOn: l.issuedOn, expiresOn: l.expiresOn } : {}
})
const personInitial = computed(() => {
  const p = changing.subject.value
  return p ? { name: p.name, roles: p.roles, active: p.active } : {}
})
</script>

<template>
  <div>
    <OfficeTabs />
    <div class="head">
      <h1>People</h1>
      <BButton variant="outline-primary" @click="adding.open(uuidv7())">Add a person</BButton>
    </div>
    <ProblemNote :problem="problem" @retry="load" />
    <WaitingLine v-if="loading && !value" what="people" />
    <div v-if="value" class="scroll-x">
      <table class="table">
        <thead>
          <tr>
            <th>Name</th>
            <th>Roles</th>
            <th>Licences</th>
            <th><span class="visually-hidden">Actions</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="p in value" :key="p.id">
            <td>
              <strong>{{ p.name }}</strong><br /><span class="mono soft small">{{
                p.username
              }}</span
              ><span v-if="!p.active" class="soft small"> · inactive</span>
            </td>
            <td>{{ p.roles.join(', ') }}</td>
            <td>
              <div v-for="l in p.licences" :key="l.id">
                <BButton
                  size="sm"
                  variant="link"
                  class="licence"
                  :aria-label="`Change licence ${l.number}`"
                  @click="licensing.open({ person: p, licence: l, id: '' })"
                >
                  <StateMark
                    :state="l.expiresOn < session.today ? 'failed' : 'pass'"
                    :label="licenceKinds[l.kind as keyof typeof licenceKinds] ?? l.kind"
                  />
                  <span class="mono">{{ l.number }}</span>
                  {{ l.expiresOn < session.today ? 'expired' : 'to' }} {{ dateWords(l.expiresOn) }}
                </BButton>
              </div>
            </td>
            <td class="row-actions">
              <BButton variant="outline-primary" size="sm" @click="changing.open(p)"
                >Change</BButton
              >
              <BButton variant="link" size="sm" @click="licensing.open({ person: p, id: uuidv7() })"
                >Enter a licence</BButton
              >
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <RecordDialog
      v-model="adding.shown.value"
      title="Add a person"
      :schema="api.people.create.body"
      :fields="personFields"
      :initial="{ roles: ['technician'] }"
      action="Add"
      :busy="adding.busy.value"
      :problem="adding.problem.value"
      @submit="adding.submit"
    />
    <RecordDialog
      v-model="changing.shown.value"
      :title="`Change ${changing.subject.value?.name}`"
      :schema="api.people.change.body"
      :initial="personInitial"
      :fields="[
        { name: 'name', label: 'Name' },
        {
          name: 'password',
          label: 'New password',
          type: 'password',
          hint: 'Leave empty to keep the present one.',
          autocomplete: 'new-password',
        },
        { name: 'roles', label: 'Roles', type: 'checks', options: roleOptions, wide: true },
        { name: 'active', label: 'May sign in', type: 'switch' },
      ]"
      action="Save"
      :busy="changing.busy.value"
      :problem="changing.problem.value"
      @submit="changing.submit"
    />
    <RecordDialog
      v-model="licensing.shown.value"
      :title="`Licence of ${licensing.subject.value?.person.name}`"
      :schema="
        licensing.subject.value?.licence
          ? api.people.changeLicence.body
          : api.people.addLicence.body
      "
      :fields="licenceFields"
      :initial="licenceInitial"
      action="Save"
      :busy="licensing.busy.value"
      :problem="licensing.problem.value"
      @submit="licensing.submit"
    />
  </div>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 0.5rem;
}

.licence {
  padding: 0;
  text-decoration: none;
  font-weight: 400;
  color: var(--ink);
}

.row-actions {
  white-space: nowrap;
  text-align: right;
}
</style>
