<script setup lang="ts">
import { type ImportColumn, importColumns, neededColumns } from '@uvanta/contract'
import { isNominal } from '@uvanta/core/apparatus'
import { computed, ref } from 'vue'
import EntryField from '@/parts/form/EntryField.vue'
import type { Table } from '@/workers/table'
import type { Columns } from './columns'

/** Which heading of the table says what of a piece of equipment, with what the first lines say there. */
const props = defineProps<{ table: Table }>()
const columns = defineModel<Columns>({ required: true })

const needed = (name: ImportColumn) => (neededColumns as readonly ImportColumn[]).includes(name)
/** Figures that a kind is judged by are many: those of this table are shown, and the others on wish. */
const all = ref(false)
const names = computed(() =>
  (Object.keys(importColumns) as ImportColumn[]).filter(
    (name) => all.value || !isNominal(name) || columns.value[name] !== undefined,
  ),
)
const options = computed(() =>
  props.table.headings.map((h, n) => ({ value: String(n), text: h || `Column ${n + 1}` })),
)
function choose(name: ImportColumn, heading: string | undefined) {
  const { [name]: _, ...others } = columns.value
  columns.value = heading === undefined ? others : { ...others, [name]: Number(heading) }
}

const FIRST_LINES = 3
const first = (name: ImportColumn) => {
  const at = columns.value[name]
  if (at === undefined) return ''
  return props.table.lines
    .slice(0, FIRST_LINES)
    .map((l) => l.cells[at])
    .filter((cell) => cell)
    .join(' · ')
}
</script>

<template>
  <div>
    <ul class="columns">
      <li
        v-for="name in names"
        :key="name"
        :class="{ open: needed(name) && columns[name] === undefined }"
      >
        <EntryField
          :model-value="columns[name] === undefined ? undefined : String(columns[name])"
          kind="choice"
          :label="needed(name) ? `${importColumns[name]} (needed)` : importColumns[name]"
          :options="options"
          @update:model-value="choose(name, $event)"
        />
        <p class="soft small first">{{ first(name) }}</p>
      </li>
    </ul>
    <BButton v-if="!all" variant="link" @click="all = true"
      >Show all figures that a kind may be judged by</BButton
    >
  </div>
</template>

<style scoped>
.columns {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 17rem), 1fr));
  gap: 0.75rem 1.25rem;
}

.open {
  border-left: 6px solid var(--warn);
  padding-left: 0.6rem;
}

.first {
  margin: 0.2rem 0 0;
  min-height: 1.25rem;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
