<script setup lang="ts">
import { api, type AuditLine } from '@uvanta/contract'
import { call } from '@/api/client'
import { queryFrom } from '@/api/queryFrom'
import { useTitle } from '@/composables/useTitle'
import { timeWords } from '@/composables/words'
import type { ListQuery } from '@/parts/list/listTypes'
import RecordList from '@/parts/list/RecordList.vue'
import OfficeTabs from './OfficeTabs.vue'

useTitle('Audit trail')
const load = ({ cursor }: ListQuery) =>
  call(api.audit.list, { query: queryFrom(api.audit.list, { cursor }) })
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
      Who changed what in the office. What happens on a visit stands in the visit’s own log.
    </p>
    <RecordList
      what="changes"
      none="Changes appear here as they are made."
      :columns="columns"
      :load="load"
      :row-key="(l: AuditLine) => String(l.id)"
    >
      <template #at="{ row: l }">{{ timeWords(l.at) }}</template>
      <template #subject="{ row: l }">
        <span class="mono small">{{ l.subject }}</span>
      </template>
    </RecordList>
  </div>
</template>
