<script setup lang="ts">
import { api, bodyOf, type Person, type StockItem } from '@uvanta/contract'
import { v7 as uuidv7 } from 'uuid'
import { computed, shallowRef, useTemplateRef } from 'vue'
import type * as yup from 'yup'
import { call } from '@/api/client'
import { useTitle } from '@/composables/useTitle'
import { dateWords } from '@/composables/words'
import RecordDialog from '@/parts/form/RecordDialog.vue'
import { useRecordDialog } from '@/parts/form/useRecordDialog'
import type { Column, ListQuery } from '@/parts/list/listTypes'
import { localPage } from '@/parts/list/localPage'
import RecordList from '@/parts/list/RecordList.vue'
import { useLibrary } from '@/stores/library'
import { useSession } from '@/stores/session'
import OfficeTabs from './OfficeTabs.vue'

/** The kits on the vans: what there is, what runs out, what came in. */
useTitle('Stock')
const session = useSession()
const library = useLibrary()
const items = shallowRef<StockItem[]>([])
const technicians = shallowRef<Person[]>([])
const list = useTemplateRef<{ reload: () => Promise<void> }>('list')
const load = async (query: ListQuery) => {
  const [stock, people] = await Promise.all([
    call(api.stock.list),
    session.isOffice ? call(api.people.list) : Promise.resolve({ items: [] as Person[] }),
    library.load(),
  ])
  items.value = stock.items
  technicians.value = people.items.filter((p) => p.active && p.roles.includes('technician'))
  return localPage(stock.items, query, {
    words: (i) => `${i.number} ${i.title} ${i.maker} ${i.model} ${familyTitle(i.family)}`,
    sorts: { number: (i) => i.number, for: (i) => familyTitle(i.family) },
    filters: { held: isShort },
  })
}
const filters = [
  {
    name: 'held',
    label: 'Held',
    all: 'Every kit',
    options: [{ value: 'short', text: 'Only what somebody is out of' }],
  },
]
const mayMove = computed(() => session.has('planner', 'administrator'))
const columns = computed<readonly Column[]>(() => [
  { key: 'number', title: 'Kit', sortable: true },
  { key: 'for', title: 'For', sortable: true },
  ...holders.value.map((h) => ({ key: h.id, title: h.name, look: 'number' as const })),
  ...(mayMove.value ? [{ key: 'actions', title: 'Actions', look: 'row-actions' as const }] : []),
])

const holders = computed(() => {
  const found = new Map<string, string>()
  for (const p of technicians.value) found.set(p.id, p.name)
  for (const i of items.value) for (const h of i.held) found.set(h.holderId, h.holder)
  return [...found].map(([id, name]) => ({ id, name }))
})
const quantity = (i: StockItem, holder: string) =>
  i.held.find((h) => h.holderId === holder)?.quantity ?? 0
const keptFor = (i: StockItem, holder: string) => i.reserved.filter((r) => r.holderId === holder)
/** What is kept back for a visit is not free for another. */
const isShort = (i: StockItem) =>
  holders.value.some((h) => quantity(i, h.id) - keptFor(i, h.id).length < 1)
const familyTitle = (id: string) => library.library?.families.find((f) => f.id === id)?.title ?? ''
const body = bodyOf(api.stock.move)
const moving = useRecordDialog<{ item: StockItem; id: string }, yup.InferType<typeof body>>(
  async (_, given) => {
    await call(api.stock.move, { body: given })
    await list.value?.reload()
  },
)
const movingInitial = computed(() => {
  const { item, id } = moving.subject.value ?? { item: { number: '' }, id: '' }
  return { id, number: item.number, change: 1, reason: 'Delivery' }
})
</script>

<template>
  <div>
    <OfficeTabs />
    <h1>Stock</h1>
    <RecordList
      ref="list"
      what="the stock"
      search="Number, kit, maker, family"
      none="Kits appear here with the spec sheets that name them."
      order="number"
      :columns="columns"
      :filters="filters"
      :load="load"
      :row-key="(i: StockItem) => i.number"
    >
      <template #number="{ row: i }">
        <strong class="mono">{{ i.number }}</strong><br /><span class="soft small">{{
          i.title
        }}</span>
      </template>
      <template #for="{ row: i }">
        {{ familyTitle(i.family) }}<br /><span class="soft small">{{ i.maker }} {{ i.model }}</span>
      </template>
      <template v-for="h in holders" :key="h.id" #[h.id]="{ row: i }">
        <span class="mono" :class="{ out: quantity(i, h.id) < 1 }">{{ quantity(i, h.id) }}</span>
        <RouterLink
          v-for="r in keptFor(i, h.id)"
          :key="r.visitId"
          class="kept"
          :to="{ name: 'visit', params: { id: r.visitId } }"
          >kept for {{ r.tag }}, {{ dateWords(r.on) }}</RouterLink
        >
      </template>
      <template #actions="{ row: i }">
        <BButton
          size="sm"
          variant="outline-primary"
          :aria-label="`Came in or counted: ${i.number}`"
          @click="moving.open({ item: i, id: uuidv7() })"
          >Came in</BButton
        >
      </template>
    </RecordList>
    <RecordDialog
      v-model="moving.shown.value"
      :title="`Kits ${moving.subject.value?.item.number}`"
      :schema="body"
      :initial="movingInitial"
      :fields="[
        {
          name: 'holderId',
          label: 'On the van of',
          kind: 'choice',
          options: technicians.map((t) => ({ value: t.id, text: t.name })),
        },
        {
          name: 'change',
          label: 'How many',
          kind: 'number',
          hint: 'Less than 0 when fewer were counted.',
        },
        { name: 'reason', label: 'Why' },
      ]"
      action="Enter"
      :busy="moving.busy.value"
      :problem="moving.problem.value"
      @submit="moving.submit"
    />
  </div>
</template>

<style scoped>
.kept {
  display: block;
  font-size: 0.875rem;
}

.out {
  color: var(--fail);
  font-weight: 700;
}
</style>
