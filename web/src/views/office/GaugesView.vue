<script setup lang="ts">
import { api, type Gauge } from '@uvanta/contract'
import { validOn } from '@uvanta/core/programme'
import { unitsOf } from '@uvanta/core/quantity'
import { v7 as uuidv7 } from 'uuid'
import { computed, onMounted } from 'vue'
import { call } from '@/api/client'
import { useLoad } from '@/composables/useLoad'
import { useTitle } from '@/composables/useTitle'
import { dateWords } from '@/composables/words'
import EmptySheet from '@/parts/EmptySheet.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { useSession } from '@/stores/session'
import OfficeTabs from './OfficeTabs.vue'
import RecordDialog from './RecordDialog.vue'
import { useRecordDialog } from './useRecordDialog'

useTitle('Gauges')
const session = useSession()
const { value, loading, problem, load } = useLoad(async () => (await call(api.gauges.list)).items)
onMounted(load)

const fields = [
  { name: 'tag', label: 'Tag', mono: true },
  { name: 'serial', label: 'Serial', mono: true },
  { name: 'maker', label: 'Maker' },
  { name: 'span', label: 'Span', mono: true, hint: 'Full range of the scale.' },
  {
    name: 'spanUnit',
    label: 'Unit',
    type: 'select' as const,
    options: unitsOf('differential').map((u) => ({ value: u, text: u })),
  },
  { name: 'resolution', label: 'Resolution', mono: true },
  { name: 'accuracyPercent', label: 'Accuracy, ± %', type: 'number' as const },
  {
    name: 'accuracyOf',
    label: 'Accuracy is of the',
    type: 'select' as const,
    options: [
      { value: 'span', text: 'span' },
      { value: 'reading', text: 'reading' },
    ],
  },
]
const adding = useRecordDialog<string>(async (id, values) => {
  await call(api.gauges.create, { body: { ...values, id } as never })
  await load()
})
const changing = useRecordDialog<Gauge>(async (g, values) => {
  await call(api.gauges.change, { params: { id: g.id }, version: g.version, body: values as never })
  await load()
})
const calibrating = useRecordDialog<{ gauge: Gauge; id: string }>(async ({ gauge, id }, values) => {
  await call(api.gauges.addCalibration, {
    params: { id: gauge.id },
    body: { ...values, id } as never,
  })
  await load()
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
    <div class="head">
      <h1>Gauges</h1>
      <BButton variant="outline-primary" @click="adding.open(uuidv7())">Add a gauge</BButton>
    </div>
    <ProblemNote :problem="problem" @retry="load" />
    <WaitingLine v-if="loading && !value" what="gauges" />
    <EmptySheet v-if="value?.length === 0" title="No gauges yet"
      >Add the first one; a test needs a gauge in calibration.</EmptySheet
    >
    <div v-if="value && value.length > 0" class="scroll-x">
      <table class="table">
        <thead>
          <tr>
            <th>Gauge</th>
            <th>Span</th>
            <th>Accuracy</th>
            <th>Calibration</th>
            <th><span class="visually-hidden">Actions</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="g in value" :key="g.id">
            <td>
              <strong class="mono">{{ g.tag }}</strong><br /><span class="soft small mono">{{
                g.serial
              }}</span>
              <span class="soft small"> · {{ g.maker }}{{ g.active ? '' : ' · out of use' }}</span>
            </td>
            <td class="mono">{{ g.span }} {{ g.spanUnit }}</td>
            <td class="mono">
              ± {{ g.accuracyPercent }} % of {{ g.accuracyOf }}<br /><span class="soft small"
                >resolution {{ g.resolution }}</span
              >
            </td>
            <td>
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
            </td>
            <td class="row-actions">
              <BButton
                variant="outline-primary"
                size="sm"
                @click="calibrating.open({ gauge: g, id: uuidv7() })"
                >Enter a calibration</BButton
              >
              <BButton variant="link" size="sm" @click="changing.open(g)">Change</BButton>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <RecordDialog
      v-model="adding.shown.value"
      title="Add a gauge"
      :schema="api.gauges.create.body"
      :fields="fields"
      :initial="{ spanUnit: 'psi', accuracyOf: 'span' }"
      action="Add"
      :busy="adding.busy.value"
      :problem="adding.problem.value"
      @submit="adding.submit"
    />
    <RecordDialog
      v-model="changing.shown.value"
      :title="`Change ${changing.subject.value?.tag}`"
      :schema="api.gauges.change.body"
      :initial="changeInitial"
      :fields="[...fields, { name: 'active', label: 'In use', type: 'switch' }]"
      action="Save"
      :busy="changing.busy.value"
      :problem="changing.problem.value"
      @submit="changing.submit"
    />
    <RecordDialog
      v-model="calibrating.shown.value"
      :title="`Calibration of ${calibrating.subject.value?.gauge.tag}`"
      :schema="api.gauges.addCalibration.body"
      :initial="{}"
      :fields="[
        { name: 'calibratedOn', label: 'Calibrated', type: 'date' },
        { name: 'validUntil', label: 'Valid until', type: 'date' },
        { name: 'certificate', label: 'Certificate number', mono: true },
      ]"
      action="Enter"
      :busy="calibrating.busy.value"
      :problem="calibrating.problem.value"
      @submit="calibrating.submit"
    />
  </div>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 0.5rem;
}

.row-actions {
  white-space: nowrap;
  text-align: right;
}
</style>
