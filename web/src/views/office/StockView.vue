<script setup lang="ts">
import { api, type Person, type StockItem } from '@uvanta/contract'
import { v7 as uuidv7 } from 'uuid'
import { computed, onMounted, ref, shallowRef } from 'vue'
import { call } from '@/api/client'
import { useLoad } from '@/composables/useLoad'
import { useTitle } from '@/composables/useTitle'
import EmptySheet from '@/parts/EmptySheet.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { useLibrary } from '@/stores/library'
import { useSession } from '@/stores/session'
import OfficeTabs from './OfficeTabs.vue'
import RecordDialog from './RecordDialog.vue'
import { useRecordDialog } from './useRecordDialog'

/** The kits on the vans: what there is, what runs out, what came in. */
useTitle('Stock')
const session = useSession()
const library = useLibrary()
const items = shallowRef<StockItem[]>([])
const technicians = shallowRef<Person[]>([])
const { loading, problem, load } = useLoad(async () => {
  const [stock, people] = await Promise.all([
    call(api.stock.list),
    session.isOffice ? call(api.people.list) : Promise.resolve({ items: [] as Person[] }),
    library.load(),
  ])
  items.value = stock.items
  technicians.value = people.items.filter((p) => p.active && p.roles.includes('technician'))
  return stock
})
onMounted(load)

const search = ref('')
const onlyShort = ref(false)
const holders = computed(() => {
  const found = new Map<string, string>()
  for (const p of technicians.value) found.set(p.id, p.name)
  for (const i of items.value) for (const h of i.held) found.set(h.holderId, h.holder)
  return [...found].map(([id, name]) => ({ id, name }))
})
const quantity = (i: StockItem, holder: string) =>
  i.held.find((h) => h.holderId === holder)?.quantity ?? 0
const isShort = (i: StockItem) => holders.value.some((h) => quantity(i, h.id) < 1)
const familyTitle = (id: string) => library.library?.families.find((f) => f.id === id)?.title ?? ''
const shown = computed(() => {
  const words = search.value.trim().toLowerCase().split(/\s+/).filter(Boolean)
  return items.value.filter((i) => {
    const text = `${i.number} ${i.title} ${i.maker} ${i.model} ${familyTitle(i.family)}`
    return words.every((w) => text.toLowerCase().includes(w)) && (!onlyShort.value || isShort(i))
  })
})

const mayMove = computed(() => session.has('planner', 'administrator'))
const moving = useRecordDialog<{ item: StockItem; id: string }>(async ({ item, id }, values) => {
  const answer = await call(api.stock.move, {
    body: { ...values, id, number: item.number } as never,
  })
  items.value = answer.items
})
</script>

<template>
  <div>
    <OfficeTabs />
    <h1>Stock</h1>
    <ProblemNote :problem="problem" @retry="load" />
    <WaitingLine v-if="loading && items.length === 0" what="the stock" />
    <template v-if="items.length > 0">
      <div class="filters">
        <label
          >Search
          <input
            v-model="search"
            class="form-control"
            type="search"
            placeholder="Number, kit, maker, family"
        /></label>
        <label class="short"
          ><input v-model="onlyShort" type="checkbox" class="form-check-input" /> Only what somebody
          is out of</label
        >
      </div>
      <EmptySheet v-if="shown.length === 0" title="No kit found"
        >Try another word, or show all of them.</EmptySheet
      >
      <div v-else class="scroll-x">
        <table class="table">
          <thead>
            <tr>
              <th>Kit</th>
              <th>For</th>
              <th v-for="h in holders" :key="h.id" class="number">{{ h.name }}</th>
              <th v-if="mayMove"><span class="visually-hidden">Actions</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="i in shown" :key="i.number">
              <td>
                <strong class="mono">{{ i.number }}</strong><br /><span class="soft small">{{
                  i.title
                }}</span>
              </td>
              <td>
                {{ familyTitle(i.family) }}<br /><span class="soft small"
                  >{{ i.maker }} {{ i.model }}</span
                >
              </td>
              <td
                v-for="h in holders"
                :key="h.id"
                class="mono number"
                :class="{ out: quantity(i, h.id) < 1 }"
              >
                {{ quantity(i, h.id) }}
              </td>
              <td v-if="mayMove" class="number">
                <BButton
                  size="sm"
                  variant="outline-primary"
                  :aria-label="`Came in or counted: ${i.number}`"
                  @click="moving.open({ item: i, id: uuidv7() })"
                  >Came in</BButton
                >
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
    <RecordDialog
      v-model="moving.shown.value"
      :title="`Kits ${moving.subject.value?.item.number}`"
      :schema="api.stock.move.body as never"
      :initial="{ change: 1, reason: 'Delivery' }"
      :fields="[
        {
          name: 'holderId',
          label: 'On the van of',
          type: 'select',
          options: technicians.map((t) => ({ value: t.id, text: t.name })),
        },
        {
          name: 'change',
          label: 'How many',
          type: 'number',
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
.filters {
  display: flex;
  flex-wrap: wrap;
  gap: 0.75rem 1.5rem;
  align-items: end;
  margin-bottom: 1rem;
}

.filters > label:first-child {
  flex: 1 1 18rem;
  max-width: 30rem;
  font-weight: 600;
}

.short {
  display: inline-flex;
  gap: 0.5rem;
  align-items: center;
  min-height: 48px;
}

.number {
  text-align: right;
}

.out {
  color: var(--fail);
  font-weight: 700;
}
</style>
