<script setup lang="ts">
import type { AuditLine, Person } from '@uvanta/contract'
import { api } from 'virtual:api'
import { computed, onMounted, shallowRef } from 'vue'
import { call } from '@/api/client'
import { queryFrom } from '@/api/queryFrom'
import { useTitle } from '@/composables/useTitle'
import { timeWords } from '@/composables/words'
import type { ListQuery } from '@/parts/list/listTypes'
import RecordList from '@/parts/list/RecordList.vue'
import OfficeTabs from './OfficeTabs.vue'

useTitle('Audit trail')
const load = ({ cursor, filters: { person } }: ListQuery) =>
  call(api.audit.list, { query: queryFrom({ cursor, person }) })
const people = shallowRef<readonly Person[]>([])
onMounted(async () => {
  people.value = (await call(api.people.list)).items
})
const filters = computed(() => [
  {
    name: 'person',
    label: 'Who',
    all: 'Anybody',
    options: people.value.map((p) => ({ value: p.id, text: p.name })),
  },
])
const columns = [
  { key: 'at', title: 'Time', look: 'nowrap' },
  { key: 'person', title: 'Who' },
  { key: 'action', title: 'What' },
  { key: 'subject', title: 'To what' },
] as const
</script>

<template>
  <div>
    <OfficeTabs />
    <h1>Audit trail</h1>
    <p class="soft">
      Who changed what in the office, and who signed in. What happens on a visit stands in the
      visit’s own log.
    </p>
    <RecordList
      what="changes"
      none="Changes appear here as they are made."
      :columns="columns"
      :filters="filters"
      :load="load"
      :row-key="(l: AuditLine) => String(l.id)"
    >
      <template #at="{ row: l }">{{ timeWords(l.at) }}</template>
      <template #subject="{ row: l }">
        {{ l.subject }}
      </template>
    </RecordList>
  </div>
</template>
