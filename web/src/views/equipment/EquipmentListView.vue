<script setup lang="ts">
import type { Equipment } from '@uvanta/contract'
import { conditions } from '@uvanta/contract/words'
import { api } from 'virtual:api'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { afterFirstView } from '@/afterFirstView'
import { call } from '@/api/client'
import { queryFrom } from '@/api/queryFrom'
import { useKeys } from '@/composables/useKeys'
import { useTitle } from '@/composables/useTitle'
import { conditionWords, dateWords } from '@/composables/words'
import LinkButton from '@/parts/LinkButton.vue'
import type { ListQuery } from '@/parts/list/listTypes'
import RecordList from '@/parts/list/RecordList.vue'
import StateMark from '@/parts/StateMark.vue'
import { useLibrary } from '@/stores/library'
import { useSession } from '@/stores/session'

useTitle('Equipment')
const router = useRouter()
const session = useSession()
const library = useLibrary()
// The families to choose from are part of all the know-how: the rows come first.
void afterFirstView(router).then(() => library.load())

const load = ({ q, filters, sort, cursor }: ListQuery) =>
  call(api.register.listEquipment, {
    query: queryFrom({ q, ...filters, sort, cursor }),
  })
const columns = [
  { key: 'tag', title: 'Tag', sortable: true },
  { key: 'kind', title: 'Kind' },
  { key: 'site', title: 'Site', sortable: true },
  { key: 'serial', title: 'Serial', look: 'wide' },
  { key: 'due', title: 'Due', sortable: true, look: 'nowrap' },
  { key: 'condition', title: 'Condition', look: 'nowrap' },
] as const
const filters = computed(() => [
  {
    name: 'family',
    label: 'Family',
    all: 'All families',
    options: (library.library?.families ?? []).map((f) => ({ value: f.id, text: f.title })),
  },
  {
    name: 'condition',
    label: 'Condition',
    all: 'Any condition',
    options: conditions.map((c) => ({ value: c, text: conditionWords[c] ?? c })),
  },
  {
    name: 'due',
    label: 'Due',
    all: 'Due any time',
    options: [
      { value: 'overdue', text: 'Overdue' },
      { value: 'soon', text: 'Due within 60 days' },
    ],
  },
])
const mayAdd = computed(() => session.has('planner', 'administrator'))
if (mayAdd.value)
  useKeys([
    { key: 'n', does: 'Add equipment', run: () => void router.push({ name: 'equipment-new' }) },
  ])
const to = (e: Equipment) => ({ name: 'equipment', params: { id: e.id } })
</script>

<template>
  <div>
    <div class="list-head">
      <h1>Equipment</h1>
      <span v-if="mayAdd" class="actions">
        <LinkButton variant="link" :to="{ name: 'equipment-import' }">Bring in a table</LinkButton>
        <LinkButton variant="outline-primary" :to="{ name: 'equipment-new' }">
          Add equipment
        </LinkButton>
      </span>
    </div>
    <RecordList
      what="equipment"
      search="Tag, serial, site, street, kind"
      none="No equipment has been entered yet."
      order="tag"
      :orders="['repair']"
      :columns="columns"
      :filters="filters"
      :load="load"
      :row-key="(e: Equipment) => e.id"
      :to="to"
    >
      <template #tag="{ row: e }">
        <RouterLink class="mono tag" :to="to(e)" @click.stop>{{ e.tag }}</RouterLink>
      </template>
      <template #kind="{ row: e }">
        {{ e.kind }} <span class="soft">{{ e.sizeIn }} in · {{ e.service }}</span>
      </template>
      <template #site="{ row: e }">
        {{ e.site.name }}<br /><span class="soft small">{{ e.position }}</span>
      </template>
      <template #serial="{ row: e }">
        <span class="mono">{{ e.serial }}</span>
      </template>
      <template #due="{ row: e }">
        <StateMark
          v-if="e.dueOn && e.dueOn < session.today"
          state="overdue"
          :label="dateWords(e.dueOn)"
        />
        <template v-else>{{ dateWords(e.dueOn) }}</template>
      </template>
      <template #condition="{ row: e }">
        <StateMark :state="e.condition" :label="conditionWords[e.condition] ?? e.condition" />
      </template>
    </RecordList>
  </div>
</template>

<style scoped>
.tag {
  white-space: nowrap;
  font-size: 1.0625rem;
  font-weight: 600;
}
</style>
