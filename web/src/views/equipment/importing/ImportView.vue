<script setup lang="ts">
import { dateOrders, type DateOrder, importColumns, neededColumns } from '@uvanta/contract'
import { api } from 'virtual:api'
import { unparse } from 'papaparse'
import { computed, ref, watch } from 'vue'
import { onBeforeRouteLeave } from 'vue-router'
import { call } from '@/api/client'
import { useTitle } from '@/composables/useTitle'
import EntryField from '@/parts/form/EntryField.vue'
import FileDrop from '@/parts/FileDrop.vue'
import LinkButton from '@/parts/LinkButton.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { saveToFile } from '@/stores/saveToFile'
import ColumnChoice from './ColumnChoice.vue'
import { type Columns, datesOf, matchedColumns, orderOf } from './columns'
import ImportRun from './ImportRun.vue'
import RefusedLines from './RefusedLines.vue'
import { useImport } from './useImport'
import { useTable } from './useTable'

/** The register of a utility, as it stands in a table: read here, looked at by the server, and then brought in. */
useTitle('Bring in a table')
const { table, name, reading, fault, read, stop } = useTable()
const columns = ref<Columns>({})
const order = ref<DateOrder>('year-first')
const bringing = useImport((body, signal) => call(api.register.importEquipment, { body, signal }))
const { lines, running, problem, done, total, isChecked, fit, refused, isKept, there, brought } =
  bringing

watch(table, (t) => {
  columns.value = matchedColumns(t?.headings ?? [])
  order.value = t ? orderOf(datesOf(t, columns.value)) : 'year-first'
})
watch([table, columns, order], () => {
  if (table.value) bringing.take(table.value, columns.value, order.value)
})

const missing = computed(() => neededColumns.filter((c) => columns.value[c] === undefined))
const orderWords: Readonly<Record<DateOrder, string>> = {
  'year-first': 'Year first, as 2026-11-24',
  'day-first': 'Day first, as 24.11.2026',
  'month-first': 'Month first, as 11/24/2026',
}
const orders = dateOrders.map((value) => ({ value, text: orderWords[value] }))
const pieces = (n: number) => (n === 1 ? '1 piece' : `${n} pieces`)
const again = () => (isChecked.value ? bringing.keep() : bringing.check())

/** A table to begin with: the headings as they are known here, and one line that shows how cells are written. */
function saveExample() {
  const example = {
    tag: 'RP-901',
    family: 'Reduced-pressure assembly',
    kind: 'RP',
    sizeIn: '1 1/2',
    serial: 'K-20417',
    maker: 'Maker A',
    dueOn: '2027-03-31',
    position: 'Plant room, north wall',
    customer: 'Larkhaven Leisure',
    site: 'Seagate Public Bath',
    address: '1 Seagate',
    district: 'Harbour',
    phone: '555 0142',
    access: 'Key at the desk',
  } as const
  const titles = Object.keys(example).map((c) => importColumns[c as keyof typeof example])
  saveToFile('equipment.csv', unparse([titles, Object.values(example)]), 'text/csv')
}

onBeforeRouteLeave(() => {
  stop()
  bringing.cancel()
})
</script>

<template>
  <div class="import">
    <h1>Bring in a table</h1>
    <p class="soft intro">
      Equipment with its sites and customers, a line each. Nothing that stands in the register is
      changed by it, and earlier tests are not taken over: what was not recorded here counts as
      never tested.
    </p>
    <FileDrop
      label="A table, CSV or XLSX: drop it here, or choose it"
      accept=".csv,.tsv,.txt,.xlsx"
      @file="read"
    >
      <p class="small soft note">
        The first line holds the headings.
        <BButton variant="link" size="sm" @click="saveExample">Save a table to begin with</BButton>
      </p>
      <p v-if="reading" class="note" role="status">
        {{ name }} is read …
        <BButton variant="link" size="sm" @click="stop">Stop</BButton>
      </p>
      <p v-if="fault" class="caution" role="alert">{{ fault }}</p>
    </FileDrop>

    <template v-if="table">
      <section class="section">
        <h2 class="name">{{ name }}</h2>
        <p class="soft">
          {{ table.lines.length }} lines, {{ table.headings.length }} columns, of which
          {{ Object.keys(columns).length }} are understood.
        </p>
        <fieldset :disabled="running !== null">
          <details :open="missing.length > 0">
            <summary>What its columns say</summary>
            <ColumnChoice v-model="columns" :table="table" />
          </details>
          <EntryField
            v-model="order"
            class="order"
            kind="choice"
            label="How it writes dates"
            :options="orders"
          />
        </fieldset>
      </section>

      <section class="section" aria-live="polite">
        <h2>{{ isKept ? 'What was brought in' : 'What becomes of its lines' }}</h2>
        <p v-if="missing.length > 0" class="caution">
          Say above which column holds
          {{ missing.map((c) => importColumns[c].toLowerCase()).join(', ') }}.
        </p>
        <ImportRun
          v-else-if="running"
          :doing="running === 'keep' ? 'Bringing in' : 'Looking at'"
          :note="
            running === 'keep'
              ? 'What is in the register stays there when you stop; it goes on from there.'
              : 'Nothing is changed yet.'
          "
          :done="done"
          :total="total"
          @stop="bringing.cancel()"
        />
        <template v-else>
          <dl v-if="isChecked" class="counts">
            <div>
              <dt>{{ brought > 0 ? 'Brought in' : 'New' }}</dt>
              <dd class="mono">{{ brought > 0 ? `${brought} of ${fit.length}` : fit.length }}</dd>
            </div>
            <div>
              <dt>In the register already</dt>
              <dd class="mono">{{ there }}</dd>
            </div>
            <div :class="{ bad: refused.length > 0 }">
              <dt>To be mended</dt>
              <dd class="mono">{{ refused.length }}</dd>
            </div>
          </dl>
          <div class="actions">
            <BButton v-if="!isChecked" variant="primary" size="lg" @click="bringing.check()">
              {{ done > 0 ? 'Go on looking' : `Look at ${lines.length} lines` }}
            </BButton>
            <LinkButton
              v-else-if="isKept || fit.length === 0"
              variant="primary"
              large
              :to="{ name: 'equipment-list' }"
            >
              Go to the equipment
            </LinkButton>
            <BButton v-else variant="primary" size="lg" @click="bringing.keep()">
              {{
                brought > 0
                  ? `Bring in the other ${fit.length - brought}`
                  : `Bring in ${pieces(fit.length)}`
              }}
            </BButton>
          </div>
          <RefusedLines v-if="isChecked && refused.length > 0" :refused="refused" :lines="lines" />
        </template>
        <ProblemNote :problem="problem" @retry="again" />
      </section>
    </template>
  </div>
</template>

<style scoped>
.intro {
  max-width: 44rem;
}

.note {
  margin: 0;
}

.section > h2 {
  margin-bottom: 0.75rem;
}

.section > .name {
  margin-bottom: 0.25rem;
}

.name {
  overflow-wrap: anywhere;
}

details {
  border: 1px solid var(--rule);
  padding: 0 1rem;
}

details[open] {
  padding-bottom: 1rem;
}

summary {
  min-height: 48px;
  display: list-item;
  line-height: 48px;
  font-weight: 600;
  cursor: pointer;
}

.order {
  max-width: 17rem;
  margin-top: 1rem;
}

.counts {
  display: grid;
  margin-top: 0.5rem;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  max-width: 40rem;
  border: 2px solid var(--rule-strong);
  margin-bottom: 1rem;
}

.counts > div {
  padding: 0.5rem 0.75rem;
  border-left: 1px solid var(--rule);
}

.counts > div:first-child {
  border-left: 0;
}

dt {
  font-weight: 400;
  font-size: 0.875rem;
  color: var(--ink-soft);
}

dd {
  margin: 0;
  font-size: 1.375rem;
  font-weight: 600;
}

.bad {
  background: var(--warn-wash);
}

@media (max-width: 43.75em) {
  .counts {
    grid-template-columns: minmax(0, 1fr);
  }

  .counts > div {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    border-left: 0;
    border-top: 1px solid var(--rule);
  }

  .counts > div:first-child {
    border-top: 0;
  }
}

.actions {
  margin-bottom: 1.25rem;
}
</style>
