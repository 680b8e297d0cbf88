<script setup lang="ts">
import { api, bodyOf, type Licence, licenceKinds, type Person, roles } from '@uvanta/contract'
import { v7 as uuidv7 } from 'uuid'
import { computed, ref, useTemplateRef } from 'vue'
import type * as yup from 'yup'
import { call } from '@/api/client'
import { useTitle } from '@/composables/useTitle'
import { dateWords } from '@/composables/words'
import RecordDialog from '@/parts/form/RecordDialog.vue'
import { useRecordDialog } from '@/parts/form/useRecordDialog'
import type { ListQuery } from '@/parts/list/listTypes'
import { localPage } from '@/parts/list/localPage'
import RecordList from '@/parts/list/RecordList.vue'
import StateMark from '@/parts/StateMark.vue'
import { useSession } from '@/stores/session'
import OfficeTabs from './OfficeTabs.vue'

useTitle('People')
const session = useSession()
const list = useTemplateRef<{ reload: () => Promise<void> }>('list')
const reload = () => list.value?.reload()
const load = async (query: ListQuery) =>
  localPage((await call(api.people.list)).items, query, {
    words: (p) => `${p.name} ${p.username} ${p.roles.join(' ')}`,
    sorts: { name: (p) => p.name },
    filters: { role: (p, role) => p.roles.some((r) => r === role) },
  })
const columns = [
  { key: 'name', title: 'Name', sortable: true },
  { key: 'roles', title: 'Roles' },
  { key: 'licences', title: 'Licences' },
  { key: 'actions', title: 'Actions', look: 'row-actions' },
] as const

const roleOptions = roles.map((r) => ({ value: r, text: r }))
const filters = [{ name: 'role', label: 'Role', all: 'Any role', options: roleOptions }]
const personFields = [
  { name: 'username', label: 'Sign-in name', mono: true },
  { name: 'name', label: 'Name' },
  {
    name: 'password',
    label: 'First password',
    kind: 'password',
    hint: 'At least 12 characters; the person changes it.',
    autocomplete: 'new-password',
  },
  { name: 'roles', label: 'Roles', kind: 'checks', options: roleOptions, wide: true },
] as const
const bodies = {
  add: bodyOf(api.people.create),
  change: bodyOf(api.people.change),
  license: bodyOf(api.people.addLicence),
  changeLicence: bodyOf(api.people.changeLicence),
}
const adding = useRecordDialog<string, yup.InferType<typeof bodies.add>>(async (_, body) => {
  await call(api.people.create, { body })
  await reload()
})
const changing = useRecordDialog<Person, yup.InferType<typeof bodies.change>>(async (p, body) => {
  await call(api.people.change, { params: { id: p.id }, version: p.version, body })
  await reload()
})
const licensing = useRecordDialog<
  { person: Person; id: string },
  yup.InferType<typeof bodies.license>
>(async ({ person }, body) => {
  await call(api.people.addLicence, { params: { id: person.id }, body })
  await reload()
})
const relicensing = useRecordDialog<
  { person: Person; licence: Licence },
  yup.InferType<typeof bodies.changeLicence>
>(async ({ licence }, body) => {
  await call(api.people.changeLicence, {
    params: { id: licence.id },
    version: licence.version,
    body,
  })
  await reload()
})
/** Whose second factor is to go; one press more takes it off. */
const losing = ref('')
async function takeFactorOff({ id }: Person) {
  if (losing.value !== id) {
    losing.value = id
    return
  }
  losing.value = ''
  await call(api.people.removeSecondFactor, { params: { id } })
  await reload()
}
const licenceFields = [
  { name: 'number', label: 'Number', mono: true },
  { name: 'issuedOn', label: 'Issued', kind: 'date' },
  { name: 'expiresOn', label: 'Expires', kind: 'date' },
] as const
const newLicenceFields = [
  {
    name: 'kind',
    label: 'Licence',
    kind: 'choice',
    options: Object.entries(licenceKinds).map(([v, text]) => ({ value: v, text })),
  },
  ...licenceFields,
] as const
const licenceInitial = computed(() => {
  const l = relicensing.subject.value?.licence
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
    <div class="list-head">
      <h1>People</h1>
      <BButton variant="outline-primary" @click="adding.open(uuidv7())">Add a person</BButton>
    </div>
    <RecordList
      ref="list"
      what="people"
      search="Name, sign-in name"
      order="name"
      :columns="columns"
      :filters="filters"
      :load="load"
      :row-key="(p: Person) => p.id"
    >
      <template #name="{ row: p }">
        <strong>{{ p.name }}</strong><br /><span class="mono soft small">{{ p.username }}</span
        ><span v-if="!p.active" class="soft small"> · inactive</span>
      </template>
      <template #roles="{ row: p }">{{ p.roles.join(', ') }}</template>
      <template #licences="{ row: p }">
        <div v-for="l in p.licences" :key="l.id">
          <BButton
            size="sm"
            variant="link"
            class="licence"
            :aria-label="`Change licence ${l.number}`"
            @click="relicensing.open({ person: p, licence: l })"
          >
            <StateMark
              :state="l.expiresOn < session.today ? 'failed' : 'pass'"
              :label="licenceKinds[l.kind as keyof typeof licenceKinds] ?? l.kind"
            />
            <span class="mono">{{ l.number }}</span>
            {{ l.expiresOn < session.today ? 'expired' : 'to' }} {{ dateWords(l.expiresOn) }}
          </BButton>
        </div>
      </template>
      <template #actions="{ row: p }">
        <BButton variant="outline-primary" size="sm" @click="changing.open(p)">Change</BButton>
        <BButton variant="link" size="sm" @click="licensing.open({ person: p, id: uuidv7() })"
          >Enter a licence</BButton
        >
        <BButton v-if="p.secondFactor" variant="link" size="sm" @click="takeFactorOff(p)">{{
          losing === p.id ? 'It is lost – take it off' : 'Second factor'
        }}</BButton>
      </template>
    </RecordList>
    <RecordDialog
      v-model="adding.shown.value"
      title="Add a person"
      :schema="bodies.add"
      :fields="personFields"
      :initial="{ id: adding.subject.value ?? '', roles: ['technician'] }"
      action="Add"
      :busy="adding.busy.value"
      :problem="adding.problem.value"
      @submit="adding.submit"
    />
    <RecordDialog
      v-model="changing.shown.value"
      :title="`Change ${changing.subject.value?.name}`"
      :schema="bodies.change"
      :initial="personInitial"
      :fields="[
        { name: 'name', label: 'Name' },
        {
          name: 'password',
          label: 'New password',
          kind: 'password',
          hint: 'Leave empty to keep the present one.',
          autocomplete: 'new-password',
        },
        { name: 'roles', label: 'Roles', kind: 'checks', options: roleOptions, wide: true },
        { name: 'active', label: 'May sign in', kind: 'switch' },
      ]"
      action="Save"
      :busy="changing.busy.value"
      :problem="changing.problem.value"
      @submit="changing.submit"
    />
    <RecordDialog
      v-model="licensing.shown.value"
      :title="`Licence of ${licensing.subject.value?.person.name}`"
      :schema="bodies.license"
      :fields="newLicenceFields"
      :initial="{ id: licensing.subject.value?.id ?? '' }"
      action="Save"
      :busy="licensing.busy.value"
      :problem="licensing.problem.value"
      @submit="licensing.submit"
    />
    <RecordDialog
      v-model="relicensing.shown.value"
      :title="`Licence of ${relicensing.subject.value?.person.name}`"
      :schema="bodies.changeLicence"
      :fields="licenceFields"
      :initial="licenceInitial"
      action="Save"
      :busy="relicensing.busy.value"
      :problem="relicensing.problem.value"
      @submit="relicensing.submit"
    />
  </div>
</template>

<style scoped>
.licence {
  padding: 0;
  text-decoration: none;
  font-weight: 400;
  color: var(--ink);
}
</style>
