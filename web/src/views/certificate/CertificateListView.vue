<script setup lang="ts">
import type { CertificateRow } from '@uvanta/contract'
import { certificateStates } from '@uvanta/contract/words'
import { api } from 'virtual:api'
import { call } from '@/api/client'
import { queryFrom } from '@/api/queryFrom'
import { useTitle } from '@/composables/useTitle'
import { outcomeWords, timeWords } from '@/composables/words'
import type { ListQuery } from '@/parts/list/listTypes'
import RecordList from '@/parts/list/RecordList.vue'
import StateMark from '@/parts/StateMark.vue'

useTitle('Certificates')
const load = ({ q, filters, cursor }: ListQuery) =>
  call(api.certificates.list, {
    query: queryFrom({ q, ...filters, cursor }),
  })
const columns = [
  { key: 'number', title: 'Number' },
  { key: 'equipment', title: 'Equipment' },
  { key: 'verdict', title: 'Verdict' },
  { key: 'issued', title: 'Issued' },
  { key: 'technician', title: 'Technician' },
  { key: 'state', title: 'State' },
] as const
const filters = [
  {
    name: 'state',
    label: 'State',
    all: 'Any state',
    options: certificateStates.map((s) => ({ value: s, text: s })),
  },
]
const to = (c: CertificateRow) => ({ name: 'certificate', params: { id: c.id } })
</script>

<template>
  <div>
    <h1>Certificates</h1>
    <RecordList
      what="certificates"
      search="Number, tag, site, technician"
      none="A certificate appears here when a tested visit is signed."
      :columns="columns"
      :filters="filters"
      :load="load"
      :row-key="(c: CertificateRow) => c.id"
      :to="to"
    >
      <template #number="{ row: c }">
        <RouterLink class="mono serial" :to="to(c)" @click.stop>{{ c.number }}</RouterLink>
      </template>
      <template #equipment="{ row: c }">
        <span class="mono">{{ c.tag }}</span><br /><span class="soft small">{{ c.site }}</span>
      </template>
      <template #verdict="{ row: c }">
        <StateMark
          :state="c.outcome"
          :label="outcomeWords[c.outcome as keyof typeof outcomeWords]"
        />
      </template>
      <template #issued="{ row: c }">{{ timeWords(c.issuedAt) }}</template>
      <template #state="{ row: c }">
        <StateMark v-if="c.state !== 'current'" :state="c.state" :label="c.state" />
        <template v-else>{{ c.state }}</template>
      </template>
    </RecordList>
  </div>
</template>

<style scoped>
.serial {
  font-size: 1.0625rem;
  font-weight: 600;
  white-space: nowrap;
}
</style>
