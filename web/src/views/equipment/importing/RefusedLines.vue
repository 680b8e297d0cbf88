<script setup lang="ts">
import { type ImportedLine, importColumns } from '@uvanta/contract'
import { unparse } from 'papaparse'
import { computed } from 'vue'
import { saveToFile } from '@/stores/saveToFile'
import type { ImportLine } from './useImport'

/** Lines that cannot be brought in as they stand: where, and what is to be changed in the table. */
const props = defineProps<{ refused: readonly ImportedLine[]; lines: readonly ImportLine[] }>()

/** Nobody reads on after these; all of them are in the file. */
const SHOWN = 50
const tags = computed(() => new Map(props.lines.map((l) => [l.line, l.cells.tag ?? ''])))
const rows = computed(() =>
  props.refused
    .toSorted((a, b) => a.line - b.line)
    .map(({ line, faults }) => ({
      line,
      tag: tags.value.get(line) ?? '',
      says: faults.map((f) => `${importColumns[f.column]}: ${f.message}.`),
    })),
)
const save = () =>
  saveToFile(
    'lines-to-mend.csv',
    unparse(
      rows.value.map(({ line, tag, says }) => ({
        Line: line,
        Tag: tag,
        'To mend': says.join(' '),
      })),
      // What stands in a table of somebody else’s is never a formula in ours.
      { escapeFormulae: true },
    ),
    'text/csv',
  )
</script>

<template>
  <div>
    <div class="list-head">
      <h3>
        {{ refused.length === 1 ? '1 line is' : `${refused.length} lines are` }} to be mended in the
        table
      </h3>
      <BButton variant="outline-primary" size="sm" @click="save">Save the list</BButton>
    </div>
    <ul class="rows">
      <li v-for="r in rows.slice(0, SHOWN)" :key="r.line">
        <span class="mono where">{{ r.line }}</span>
        <span class="mono tag">{{ r.tag || '–' }}</span>
        <span
          ><span v-for="s in r.says" :key="s" class="says">{{ s }}</span></span
        >
      </li>
    </ul>
    <p v-if="rows.length > SHOWN" class="soft small">
      And {{ rows.length - SHOWN }} more: save the list to see them all.
    </p>
  </div>
</template>

<style scoped>
h3 {
  font-size: 1rem;
}

li {
  display: grid;
  grid-template-columns: 4rem 8rem minmax(0, 1fr);
  gap: 0.5rem;
  padding: 0.5rem 0;
}

.where {
  color: var(--ink-soft);
}

.tag {
  font-weight: 600;
  overflow-wrap: anywhere;
}

.says {
  display: block;
}

@media (max-width: 43.75em) {
  li {
    grid-template-columns: 3rem minmax(0, 1fr);
  }

  li > :last-child {
    grid-column: 1 / -1;
  }
}
</style>
