<script setup lang="ts">
import { api, type ApiKey, bodyOf, type KeyScope, keyScopes } from '@uvanta/contract'
import { v7 as uuidv7 } from 'uuid'
import { ref, useTemplateRef } from 'vue'
import type * as yup from 'yup'
import { call } from '@/api/client'
import { useTitle } from '@/composables/useTitle'
import { timeWords } from '@/composables/words'
import type { FormField } from '@/parts/form/formField'
import RecordDialog from '@/parts/form/RecordDialog.vue'
import { useRecordDialog } from '@/parts/form/useRecordDialog'
import { localPage } from '@/parts/list/localPage'
import type { ListQuery } from '@/parts/list/listTypes'
import RecordList from '@/parts/list/RecordList.vue'
import StateMark from '@/parts/StateMark.vue'
import OfficeTabs from './OfficeTabs.vue'

useTitle('Keys')
const list = useTemplateRef<{ reload: () => Promise<void> }>('list')
const load = async (query: ListQuery) =>
  localPage((await call(api.apiKeys.list)).items, query, { words: (k) => k.name })
const columns = [
  { key: 'name', title: 'For' },
  { key: 'scopes', title: 'Reads' },
  { key: 'createdAt', title: 'Made' },
  { key: 'lastUsedAt', title: 'Last used' },
  { key: 'actions', title: 'Actions', look: 'row-actions' },
] as const

const SCOPES: Readonly<Record<KeyScope, string>> = {
  register: 'Equipment, sites, customers and gauges',
  visits: 'Visits and their records',
  certificates: 'Certificates',
  stock: 'Stock',
  contacts: 'Contacts and access notes, where it reads equipment or visits',
}
const fields: FormField<'id' | 'name' | 'scopes'>[] = [
  { name: 'name', label: 'What it is for', placeholder: 'Map of the network' },
  {
    name: 'scopes',
    label: 'What it may read',
    kind: 'checks',
    options: keyScopes.map((value) => ({ value, text: SCOPES[value] })),
    wide: true,
  },
]

/** The secret of the key that was just made; it is shown until the next one, or until the page is left. */
const made = ref('')
const body = bodyOf(api.apiKeys.create)
const adding = useRecordDialog<string, yup.InferType<typeof body>>(async (_, values) => {
  made.value = (await call(api.apiKeys.create, { body: values })).secret
  await list.value?.reload()
})
/** Whose end was asked for; one press more ends it. */
const ending = ref('')
async function revoke({ id }: ApiKey) {
  if (ending.value !== id) {
    ending.value = id
    return
  }
  ending.value = ''
  await call(api.apiKeys.revoke, { params: { id } })
  await list.value?.reload()
}
</script>

<template>
  <div>
    <OfficeTabs />
    <div class="list-head">
      <h1>Keys</h1>
      <BButton variant="outline-primary" @click="adding.open(uuidv7())">Make a key</BButton>
    </div>
    <p class="soft">
      With a key another program reads what it was made for, and changes nothing:
      <span class="mono">Authorization: Bearer uvk_…</span>
    </p>
    <div v-if="made" class="caution" role="status">
      <p>Take it over now: it is shown once, and kept nowhere.</p>
      <p class="mono secret">{{ made }}</p>
    </div>
    <RecordList
      ref="list"
      what="keys"
      none="No other program reads here."
      search="What it is for"
      :columns="columns"
      :load="load"
      :row-key="(k: ApiKey) => k.id"
    >
      <template #name="{ row: k }"
        ><strong>{{ k.name }}</strong></template
      >
      <template #scopes="{ row: k }">{{ k.scopes.join(', ') }}</template>
      <template #createdAt="{ row: k }"
        >{{ timeWords(k.createdAt) }} <span class="soft">{{ k.createdBy }}</span></template
      >
      <template #lastUsedAt="{ row: k }">{{
        k.lastUsedAt ? timeWords(k.lastUsedAt) : 'not yet'
      }}</template>
      <template #actions="{ row: k }">
        <StateMark v-if="k.revokedAt" state="failed" :label="`revoked ${timeWords(k.revokedAt)}`" />
        <BButton v-else variant="link" size="sm" @click="revoke(k)">{{
          ending === k.id ? 'It is not needed – revoke it' : 'Revoke'
        }}</BButton>
      </template>
    </RecordList>
    <RecordDialog
      v-model="adding.shown.value"
      title="Make a key"
      :schema="body"
      :fields="fields"
      :initial="{ id: adding.subject.value ?? '' }"
      action="Make it"
      :busy="adding.busy.value"
      :problem="adding.problem.value"
      @submit="adding.submit"
    />
  </div>
</template>

<style scoped>
.secret {
  overflow-wrap: anywhere;
  margin: 0;
  font-size: 1.125rem;
}
</style>
