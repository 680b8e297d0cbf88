<script setup lang="ts">
import type { VisitSummary } from '@uvanta/contract'
import { api } from 'virtual:api'
import { apparatusOf, nominalNames } from '@uvanta/core/apparatus'
import { serves } from '@uvanta/core/guide'
import { formatQuantity, type AnyQuantity } from '@uvanta/core/quantity'
import type { Outcome } from '@uvanta/core/rules'
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import { call } from '@/api/client'
import { useLoad } from '@/composables/useLoad'
import { useTitle } from '@/composables/useTitle'
import { conditionWords, dateWords, outcomeWords, visitStateWords } from '@/composables/words'
import LinkButton from '@/parts/LinkButton.vue'
import EquipmentDrawing from '@/parts/drawing/EquipmentDrawing.vue'
import EmptySheet from '@/parts/EmptySheet.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import TitleBlock from '@/parts/TitleBlock.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { useLibrary } from '@/stores/library'
import { useSession } from '@/stores/session'
import NominalsDialog from './NominalsDialog.vue'
import PlanVisit from './PlanVisit.vue'
import ServiceDialog from './ServiceDialog.vue'
import StationLine from './StationLine.vue'

const ControlChart = defineAsyncComponent(() => import('./ControlChart.vue'))
const ReliefCapacity = defineAsyncComponent(() => import('./ReliefCapacity.vue'))

const props = defineProps<{ id: string }>()
const session = useSession()
const library = useLibrary()
const planning = ref(false)
const rating = ref(false)
const { value, loading, problem, load } = useLoad(async () => {
  const [equipment, history, station] = await Promise.all([
    call(api.register.readEquipment, { params: { id: props.id } }),
    call(api.register.history, { params: { id: props.id } }),
    call(api.register.station, { params: { id: props.id } }),
    library.load(),
  ])
  return { equipment, history: history.items, station: station.items }
})
watch(() => props.id, load, { immediate: true })
useTitle(() => value.value?.equipment.tag)

const e = computed(() => value.value?.equipment)
const family = computed(
  () => library.library?.families.find((f) => f.id === e.value?.family)?.title ?? '',
)
/** Of the machines of its family the one that its guide works on, else the first. */
const machine = computed(() => {
  const own = library.library?.machines.filter((m) => m.families.includes(e.value?.family ?? ''))
  const guides = library.library?.guides.filter((g) => serves(g, e.value?.family ?? '')) ?? []
  return own?.find((m) => guides.some((g) => g.machine === m.id)) ?? own?.[0]
})
const programme = computed(
  () => library.library?.programmes.find((p) => p.id === e.value?.programme)?.title ?? '',
)
/** A visit needs something that is in service, and a field test or a job guide to go by. */
const visitable = computed(
  () =>
    e.value?.condition !== 'out-of-service' &&
    (library.library?.rulePacks.some((p) => p.tests.some((t) => t.kind === e.value?.kind)) ||
      library.library?.guides.some((g) => serves(g, e.value?.family ?? ''))),
)
const cells = computed(() => {
  const x = e.value
  if (!x) return []
  return [
    { label: 'Site', value: `${x.site.name}, ${x.site.address}`, span: 2 },
    { label: 'Customer', value: x.site.customer, wideOnly: true },
    { label: 'District', value: x.site.district, wideOnly: true },
    { label: 'Position', value: x.position, span: 2 },
    { label: 'Serial', value: x.serial, mono: true },
    { label: 'Size', value: `${x.sizeIn} in`, mono: true },
    { label: 'Service', value: x.service },
    { label: 'Maker', value: [x.maker, x.model].filter(Boolean).join(' ') },
    ...(x.setPoint
      ? [{ label: 'Set point', value: formatQuantity(x.setPoint as AnyQuantity), mono: true }]
      : []),
    { label: 'Installed', value: dateWords(x.installedOn), wideOnly: true },
  ]
})
/** Who may say what it is judged by, where there is something to say. */
const mayRate = computed(
  () =>
    session.has('planner', 'administrator') &&
    (apparatusOf(e.value?.kind ?? '')?.nominals.length ?? 0) > 0,
)
const foundWords = ({ found, failedAsFound }: VisitSummary) =>
  failedAsFound.length > 0 ? failedAsFound.join(', ') : outcomeWords[found as Outcome]
/** What failed as found more than once: mending it again may not be the answer. */
const repeated = computed(() => {
  const visits = value.value?.history.filter((h) => h.found) ?? []
  const times = new Map<string, number>()
  for (const title of visits.flatMap((h) => h.failedAsFound)) {
    times.set(title, (times.get(title) ?? 0) + 1)
  }
  return [...times]
    .filter(([, n]) => n > 1)
    .map(
      ([title, n]) =>
        `${title} failed in ${n} of ${visits.length} tests as found: look for the cause.`,
    )
})
/** What the last service tightened, lubricated and set. */
const served = computed(() => value.value?.history.find((h) => h.service.length > 0))
const relieved = computed(() => e.value?.nominals.some((n) => n.name === 'relief-set'))
const tested = computed(() => (value.value?.history ?? []).filter((h) => h.readings.length > 0))
</script>

<template>
  <div>
    <ProblemNote :problem="problem" @retry="load" />
    <WaitingLine v-if="loading && !value" what="the equipment" />
    <template v-if="e && value">
      <TitleBlock :title="e.tag" :subtitle="`${family} · ${e.kind}`" :cells="cells">
        <template #actions>
          <BButton
            v-if="session.has('planner', 'technician', 'administrator') && visitable"
            variant="primary"
            @click="planning = true"
            >Plan a visit</BButton
          >
          <LinkButton
            v-if="session.has('planner', 'administrator')"
            variant="outline-primary"
            :to="{ name: 'equipment-change', params: { id: e.id } }"
            >Change</LinkButton
          >
          <ServiceDialog
            v-if="session.has('planner', 'administrator')"
            :equipment="e"
            @changed="load"
          />
        </template>
      </TitleBlock>

      <dl class="standing">
        <div>
          <dt>Condition</dt>
          <dd><StateMark :state="e.condition" :label="conditionWords[e.condition] ?? ''" /></dd>
        </div>
        <div>
          <dt>Due</dt>
          <dd class="mono">
            <StateMark
              v-if="e.dueOn && e.dueOn < session.today"
              state="overdue"
              :label="dateWords(e.dueOn)"
            /><template v-else>{{ dateWords(e.dueOn) }}</template>
          </dd>
        </div>
        <div v-if="e.lawfulUntil">
          <dt>Lawful until</dt>
          <dd class="mono">{{ dateWords(e.lawfulUntil) }}</dd>
        </div>
        <div>
          <dt>Last tested</dt>
          <dd class="mono">{{ dateWords(e.lastTestedOn) }}</dd>
        </div>
        <div v-if="e.repairBy">
          <dt>{{ e.condition === 'failed' ? 'Repair by' : 'Renew by' }}</dt>
          <dd class="mono">{{ dateWords(e.repairBy) }}</dd>
        </div>
        <div>
          <dt>Programme</dt>
          <dd class="programme">{{ programme }}</dd>
        </div>
      </dl>

      <section class="section">
        <h2>Drawing</h2>
        <div class="drawn">
          <EquipmentDrawing :kind="e.kind" :tag="e.tag" />
          <dl v-if="e.nominals.length > 0" class="nominals">
            <div v-for="n in e.nominals" :key="n.name">
              <dt>{{ nominalNames[n.name] }}</dt>
              <dd class="mono">{{ formatQuantity(n.value) }}</dd>
            </div>
          </dl>
        </div>
        <p v-if="machine" class="mt-3 mb-0">
          <RouterLink :to="{ name: 'machine', params: { id: machine.id } }"
            >How it is built inside</RouterLink
          >
        </p>
        <BButton v-if="mayRate" class="mt-3" variant="outline-primary" @click="rating = true"
          >Nominal values</BButton
        >
      </section>

      <section v-if="value.station.length > 1" class="section">
        <h2>{{ e.station }}</h2>
        <StationLine :members="value.station" :of="e.id" />
      </section>

      <ReliefCapacity v-if="relieved" :equipment="e" />
      <section v-if="tested.length > 0" class="section">
        <h2>Readings over the years</h2>
        <ControlChart :history="tested" :equipment="e" />
      </section>

      <section v-if="served" class="section">
        <h2>Last service, {{ dateWords(served.plannedOn) }}</h2>
        <ul class="served">
          <li v-for="text in served.service" :key="text">{{ text }}</li>
        </ul>
      </section>

      <section class="section">
        <h2>Visits</h2>
        <p v-for="r in repeated" :key="r" class="caution">{{ r }}</p>
        <div v-if="value.history.length > 0" class="scroll-x">
          <table class="table">
            <thead>
              <tr>
                <th>Date</th>
                <th>As found</th>
                <th>Outcome</th>
                <th>Technician</th>
                <th>Remarks</th>
                <th>Certificate</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="h in value.history" :key="h.visitId">
                <td>
                  <RouterLink :to="{ name: 'visit', params: { id: h.visitId } }">{{
                    dateWords(h.plannedOn)
                  }}</RouterLink>
                </td>
                <td>
                  <StateMark v-if="h.found" :state="h.found" :label="foundWords(h)" />
                  <span v-else class="soft">–</span>
                </td>
                <td>
                  <StateMark
                    :state="h.outcome ?? h.state"
                    :label="visitStateWords[h.state] ?? ''"
                  />
                </td>
                <td>{{ h.technician }}</td>
                <td class="remarks">{{ h.remarks.join(' ') }}</td>
                <td>
                  <RouterLink
                    v-if="h.certificateId"
                    class="mono"
                    :to="{ name: 'certificate', params: { id: h.certificateId } }"
                    >{{ h.certificateNumber }}</RouterLink><span v-else class="soft">–</span>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <EmptySheet v-else title="No visits yet">{{
          visitable
            ? 'Plan the first one above.'
            : 'No rule pack or job guide covers this kind yet.'
        }}</EmptySheet>
      </section>
      <NominalsDialog
        v-if="mayRate"
        :key="`${e.id}-${e.version}`"
        v-model="rating"
        :equipment="e"
        @saved="load"
      />
      <PlanVisit v-model="planning" :equipment="e" />
    </template>
  </div>
</template>

<style scoped>
.drawn {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem 2rem;
  align-items: center;
}

.nominals {
  flex: 1 1 20rem;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
  gap: 0.75rem 1.5rem;
  margin: 0;
}

.standing {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(10rem, 1fr));
  gap: 0.5rem 1.5rem;
  margin: 0;
}

dt {
  font-weight: 400;
  font-size: 0.875rem;
  color: var(--ink-soft);
}

dd {
  margin: 0;
  font-size: 1.25rem;
  font-weight: 600;
}

.served {
  margin: 0;
  padding-left: 1.1rem;
  max-width: 70ch;
}

/* Old remarks are read now and then, and never push the certificate out of sight. */
.remarks {
  min-width: 14rem;
  max-width: 26rem;
  color: var(--ink-soft);
}

.programme {
  font-size: 1rem;
  font-weight: 400;
}
</style>
