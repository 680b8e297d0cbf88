<script setup lang="ts">
import { api, bodyOf, type Gauge } from '@uvanta/contract'
import { validOn } from '@uvanta/core/calendar'
import { instrumentUnits } from '@uvanta/core/instrument'
import { v7 as uuidv7 } from 'uuid'
import { computed, useTemplateRef } from 'vue'
import type * as yup from 'yup'
import { call } from '@/api/client'
import { useTitle } from '@/composables/useTitle'
import { dateWords } from '@/composables/words'
import RecordDialog from '@/parts/form/RecordDialog.vue'
import { useRecordDialog } from '@/parts/form/useRecordDialog'
import type { ListQuery } from '@/parts/list/listTypes'
import { localPage } from '@/parts/list/localPage'
import RecordList from '@/parts/list/RecordList.vue'
import StateMark from '@/parts/StateMark.vue'
import { useSession } from '@/stores/session'
import OfficeTabs from './OfficeTabs.vue'

useTitle('Gauges')
const session = useSession()
const list = useTemplateRef<{ reload: () => Promise<void> }>('list')
const reload = () => list.value?.reload()
const load = async (query: ListQuery) =>
  localPage((await call(api.gauges.list)).items, query, {
    words: (g) => `${g.tag} ${g.serial} ${g.maker}`,
    sorts: { tag: (g) => g.tag, calibration: (g) => current(g)?.validUntil ?? '' },
  })
const columns = [
  { key: 'tag', title: 'Gauge', sortable: true },
  { key: 'span', title: 'Span' },
  { key: 'accuracy', title: 'Accuracy' },
  { key: 'calibration', title: 'Calibration', sortable: true },
  { key: 'actions', title: 'Actions', look: 'row-actions' },
] as const

const fields = [
  { name: 'tag', label: 'Tag', mono: true },
  { name: 'serial', label: 'Serial', mono: true },
  { name: 'maker', label: 'Maker' },
  { name: 'span', label: 'Span', mono: true, hint: 'Full range of the scale.' },
  {
    name: 'spanUnit',
    label: 'Unit',
    kind: 'choice',
    options: instrumentUnits.map((u) => ({ value: u, text: u })),
  },
  { name: 'resolution', label: 'Resolution', mono: true },
  { name: 'accuracyPercent', label: 'Accuracy, ± %', kind: 'number' },
  {
    name: 'accuracyOf',
    label: 'Accuracy is of the',
    kind: 'choice',
    options: [
      { value: 'span', text: 'span' },
      { value: 'reading', text: 'reading' },
    ],
  },
] as const
const changeFields = [...fields, { name: 'active', label: 'In use', kind: 'switch' }] as const
const bodies = {
  add: bodyOf(api.gauges.create),
  change: bodyOf(api.gauges.change),
  calibrate: bodyOf(api.gauges.addCalibration),
}
const adding = useRecordDialog<string, yup.InferType<typeof bodies.add>>(async (_, body) => {
  await call(api.gauges.create, { body })
  await reload()
})
const changing = useRecordDialog<Gauge, yup.InferType<typeof bodies.change>>(async (g, body) => {
  await call(api.gauges.change, { params: { id: g.id }, version: g.version, body })
  await reload()
})
const calibrating = useRecordDialog<
  { gauge: Gauge; id: string },
  yup.InferType<typeof bodies.calibrate>
>(async ({ gauge }, body) => {
  await call(api.gauges.addCalibration, { params: { id: gauge.id }, body })
  await reload()
})
const changeInitial = computed(() => {
  const g = changing.subject.value
  if (!g) return {}
  const { tag, serial, maker, span, spanUnit, resolution, accuracyPercent, accuracyOf, active } = g
  return { tag, serial, maker, span, spanUnit, resolution, accuracyPercent, accuracyOf, active }
})
const current = (g: Gauge) =>
  g.calibrations.find((c) => validOn(session.today, c.calibratedOn, c.validUntil))
</script>

<template>
  <div>
    <OfficeTabs />
    <div class="list-head">
      <h1>Gauges</h1>
      <BButton variant="outline-primary" @click="adding.open(uuidv7())">Add a gauge</BButton>
    </div>
    <RecordList
      ref="list"
      what="gauges"
      search="Tag, serial, maker"
      none="Add the first one; a test needs a gauge in calibration."
      order="tag"
      :columns="columns"
      :load="load"
      :row-key="(g: Gauge) => g.id"
    >
      <template #tag="{ row: g }">
        <strong class="mono">{{ g.tag }}</strong><br /><span class="soft small mono">{{
          g.serial
        }}</span>
        <span class="soft small"> · {{ g.maker }}{{ g.active ? '' : ' · out of use' }}</span>
      </template>
      <template #span="{ row: g }">
        <span class="mono">{{ g.span }} {{ g.spanUnit }}</span>
      </template>
      <template #accuracy="{ row: g }">
        <span class="mono">± {{ g.accuracyPercent }} % of {{ g.accuracyOf }}</span
        ><br /><span class="soft small mono">resolution {{ g.resolution }}</span>
      </template>
      <template #calibration="{ row: g }">
        <StateMark
          v-if="current(g)"
          state="pass"
          :label="`to ${dateWords(current(g)?.validUntil)}`"
        />
        <StateMark
          v-else
          state="failed"
          :label="`out since ${dateWords(g.calibrations[0]?.validUntil)}`"
        />
        <br /><span class="soft small mono">{{ g.calibrations[0]?.certificate }}</span>
      </template>
      <template #actions="{ row: g }">
        <BButton
          variant="outline-primary"
          size="sm"
          @click="calibrating.open({ gauge: g, id: uuidv7() })"
          >Enter a calibration</BButton
        >
        <BButton variant="link" size="sm" @click="changing.open(g)">Change</BButton>
      </template>
    </RecordList>
    <RecordDialog
      v-model="adding.shown.value"
      title="Add a gauge"
      :schema="bodies.add"
      :fields="fields"
      :initial="{
        id: adding.subject.value ?? '',
        spanUnit: session.units.differential,
        accuracyOf: 'span',
      }"
      action="Add"
      :busy="adding.busy.value"
      :problem="adding.problem.value"
      @submit="adding.submit"
    />
    <RecordDialog
      v-model="changing.shown.value"
      :title="`Change ${changing.subject.value?.tag}`"
      :schema="bodies.change"
      :initial="changeInitial"
      :fields="changeFields"
      action="Save"
      :busy="changing.busy.value"
      :problem="changing.problem.value"
      @submit="changing.submit"
    />
    <RecordDialog
      v-model="calibrating.shown.value"
      :title="`Calibration of ${calibrating.subject.value?.gauge.tag}`"
      :schema="bodies.calibrate"
      :initial="{ id: calibrating.subject.value?.id ?? '' }"
      :fields="[
        { name: 'calibratedOn', label: 'Calibrated', kind: 'date' },
        { name: 'validUntil', label: 'Valid until', kind: 'date' },
        { name: 'certificate', label: 'Certificate number', mono: true },
      ]"
      action="Enter"
      :busy="calibrating.busy.value"
      :problem="calibrating.problem.value"
      @submit="calibrating.submit"
    />
  </div>
</template>
