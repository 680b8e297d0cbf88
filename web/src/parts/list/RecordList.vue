<script setup lang="ts" generic="T extends object">
import { nextTick, useTemplateRef } from 'vue'
import { type RouteLocationRaw, useRouter } from 'vue-router'
import { useByAndBy } from '@/composables/useByAndBy'
import { useKeys } from '@/composables/useKeys'
import EntryField from '../form/EntryField.vue'
import EmptySheet from '../EmptySheet.vue'
import ProblemNote from '../ProblemNote.vue'
import WaitingLine from '../WaitingLine.vue'
import type { Column, ListFilter, ListPage, ListQuery } from './listTypes'
import { useList } from './useList'

/**
 * Any list of records: searched, filtered, ordered and paged, with its place kept for whoever comes
 * back. A slot named as a column fills its cells; the list says itself when it is empty or on its way.
 */
const props = withDefaults(
  defineProps<{
    /** What is listed, in the plural: “equipment”, “certificates”. */
    what: string
    columns: readonly Column[]
    rowKey: (row: T) => string
    load: (query: ListQuery) => Promise<ListPage<T>>
    /** Words that say what can be searched for; without them nothing is searched. */
    search?: string
    filters?: readonly ListFilter[]
    /** Where a row leads. */
    to?: (row: T) => RouteLocationRaw
    /** What stands in the place of rows when there are none at all. */
    none?: string
    /** The column by which the list is ordered of itself. */
    order?: string
    /** Orders that no column stands for: a link elsewhere may ask for them. */
    orders?: readonly string[]
  }>(),
  { filters: () => [], search: '', none: '', order: '', orders: () => [] },
)
defineSlots<Record<string, ((scope: { row: T }) => unknown) | undefined>>()
const router = useRouter()
const list = useList<T>(
  props.load,
  () => props.filters,
  () => [...props.columns.flatMap((c) => (c.sortable ? c.key : [])), ...props.orders],
)
const { items, next, loading, loaded, problem, words, chosen, narrowed } = list
/** As many rows as a screen has come first; whoever comes back finds all that he had. */
const shown = useByAndBy(() => items.value.length, 12, items.value.length)
defineExpose({ reload: () => list.fetch() })

const order = () => list.sort.value || props.order
const sortBy = (key: string) => list.set('sort', order() === key ? `-${key}` : key)
const ariaSort = (c: Column) =>
  !c.sortable
    ? undefined
    : order() === c.key
      ? ('ascending' as const)
      : order() === `-${c.key}`
        ? ('descending' as const)
        : ('none' as const)
const cell = (row: T, key: string) => (row as Readonly<Record<string, unknown>>)[key]
const open = (row: T) => props.to && void router.push(props.to(row))
const toFirst = () =>
  void nextTick(() => document.querySelector<HTMLElement>('tbody a, tbody button')?.focus())

const field = useTemplateRef<{ focus: () => void }>('field')
if (props.search) useKeys([{ key: '/', does: 'Search', run: () => field.value?.focus() }])
</script>

<template>
  <div>
    <form
      v-if="search || filters.length > 0"
      class="filters"
      :class="{ alone: (search ? 1 : 0) + filters.length === 1 }"
      role="search"
      @submit.prevent="toFirst"
    >
      <EntryField
        v-if="search"
        ref="field"
        class="words"
        kind="search"
        quiet
        :label="`Search ${what}`"
        :placeholder="search"
        :model-value="words"
        @update:model-value="words = $event ?? ''"
      />
      <EntryField
        v-for="f in filters"
        :key="f.name"
        kind="choice"
        quiet
        :label="f.label"
        :placeholder="f.all"
        :options="f.options"
        :model-value="chosen[f.name] || undefined"
        @update:model-value="list.set(f.name, $event ?? '')"
      />
      <BButton v-if="narrowed" variant="link" @click="list.clear">Clear</BButton>
    </form>
    <ProblemNote :problem="problem" @retry="list.fetch()" />
    <WaitingLine v-if="loading && !loaded" :what="what" />
    <EmptySheet
      v-if="loaded && items.length === 0"
      :title="narrowed ? 'Nothing fits' : 'Nothing yet'"
    >
      {{ narrowed ? 'Take a filter away, or search for fewer words.' : none }}
    </EmptySheet>
    <div v-if="items.length > 0" class="scroll-x" :aria-busy="loading">
      <table class="table" :class="{ 'table-hover': to }">
        <thead>
          <tr>
            <th v-for="c in columns" :key="c.key" :class="c.look" :aria-sort="ariaSort(c)">
              <button v-if="c.sortable" type="button" @click="sortBy(c.key)">{{ c.title }}</button>
              <span v-else-if="c.look === 'row-actions'" class="visually-hidden">{{
                c.title
              }}</span>
              <template v-else>{{ c.title }}</template>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="row in items.slice(0, shown)"
            :key="rowKey(row)"
            :class="{ leads: to }"
            @click="open(row)"
          >
            <td v-for="c in columns" :key="c.key" :class="c.look" :data-title="c.title">
              <slot v-if="$slots[c.key]" :name="c.key" :row="row" />
              <template v-else>{{ cell(row, c.key) }}</template>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <BButton
      v-if="next"
      class="mt-3"
      variant="outline-primary"
      :disabled="loading"
      @click="list.fetch(true)"
      >Show more</BButton
    >
    <p
      v-if="loaded && items.length > 0 && (next || narrowed)"
      class="soft small mt-2"
      role="status"
    >
      {{ items.length }} shown{{ next ? ', there are more' : '' }}.
    </p>
  </div>
</template>

<style scoped>
.filters {
  display: grid;
  grid-template-columns: minmax(14rem, 2fr) repeat(auto-fit, minmax(9rem, 1fr));
  gap: 0.6rem;
  margin: 0.75rem 0 1rem;
}

.alone {
  grid-template-columns: minmax(0, 30rem) auto;
  justify-content: start;
}

th button {
  background: none;
  border: 0;
  padding: 0;
  font-weight: inherit;
  color: inherit;
  text-decoration: underline dotted;
}

th[aria-sort='ascending'] button::after {
  content: ' ↑';
}

th[aria-sort='descending'] button::after {
  content: ' ↓';
}

.leads {
  cursor: pointer;
}

.number,
.row-actions {
  text-align: right;
}

.nowrap,
.row-actions {
  white-space: nowrap;
}

/* On a phone a row is an entry of its own: its name, and below what the columns say, each by its title. */
@media (max-width: 36em) {
  table,
  thead,
  tbody {
    display: block;
  }

  thead tr {
    display: flex;
    gap: 1.5rem;
    border-bottom: 2px solid var(--rule-strong);
  }

  .table th {
    border: 0;
    padding-inline: 0;
  }

  /* What nothing can be ordered by is said at its cells. */
  th:not(:has(button)) {
    position: absolute;
    clip-path: inset(50%);
  }

  tbody tr {
    display: block;
    padding-block: 0.65rem;
    border-bottom: 1px solid var(--rule);
  }

  td {
    display: block;
    position: relative;
    border: 0;
    padding: 0.15rem 0;
    white-space: normal;

    &:empty {
      display: none;
    }
  }

  td:not(:first-child, .row-actions) {
    padding-left: 6.5rem;
    text-align: left;

    &::before {
      content: attr(data-title) / '';
      position: absolute;
      left: 0;
      max-width: 6rem;
      font-size: 0.875rem;
      color: var(--ink-soft);
    }
  }

  /* A row all of which leads somewhere answers where it is pressed. */
  .leads:hover {
    background: var(--blue-wash);
  }
}

@media (max-width: 56.25em) {
  .filters {
    grid-template-columns: 1fr 1fr;
  }

  /* The words, and a field that would stand beside nothing. */
  .words,
  .words ~ :last-child:nth-child(even) {
    grid-column: 1 / -1;
  }

  .wide {
    display: none;
  }
}
</style>
