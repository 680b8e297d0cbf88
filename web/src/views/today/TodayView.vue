<script setup lang="ts">
import { api, type VisitRow } from '@uvanta/contract'
import { purposeTitles } from '@uvanta/core/visit'
import { addDays } from '@uvanta/core/programme'
import { computed, onMounted } from 'vue'
import { useRouter } from 'vue-router'
import { call } from '@/api/client'
import { asOf } from '@/api/kept'
import { useKeys } from '@/composables/useKeys'
import { useLoad } from '@/composables/useLoad'
import { useTitle } from '@/composables/useTitle'
import { clockWords, dateWords, weekdayWords } from '@/composables/words'
import LinkButton from '@/parts/LinkButton.vue'
import EmptySheet from '@/parts/EmptySheet.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import TitleBlock from '@/parts/TitleBlock.vue'
import VisitLine from '@/parts/VisitLine.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { useSession } from '@/stores/session'
import { useTakeAlong } from '@/stores/takeAlong'
import AttentionList from './AttentionList.vue'
import VisitRowItem from './VisitRowItem.vue'

useTitle('Today')
const session = useSession()
const along = useTakeAlong()
const router = useRouter()
const { value, loading, problem, load } = useLoad(async () => {
  const on = session.today
  const [today, tomorrow, begun, missed] = await Promise.all([
    call(api.visits.list, { query: { on, limit: '200' } }),
    call(api.visits.list, { query: { on: addDays(on, 1), limit: '200' } }),
    call(api.visits.list, { query: { before: on, state: 'under-way', limit: '50' } }),
    call(api.visits.list, { query: { before: on, state: 'planned', limit: '50' } }),
  ])
  if (session.has('technician')) {
    const all = [...today.items, ...tomorrow.items, ...begun.items, ...missed.items]
    void along.take(all.filter((v) => open(v) && v.technicianId === session.person?.id))
    void along.settle()
  }
  return {
    today: today.items,
    tomorrow: tomorrow.items,
    earlier: [...begun.items, ...missed.items],
  }
})
onMounted(load)

const RANK = { 'under-way': 0, planned: 1, stopped: 2, signed: 3 } as const
const visits = computed(() =>
  [...(value.value?.today ?? [])].sort((a, b) => RANK[a.state] - RANK[b.state]),
)
const open = (v: VisitRow) => v.state === 'under-way' || v.state === 'planned'
const next = computed(() =>
  visits.value.find((v) => open(v) && v.technicianId === session.person?.id),
)
const rest = computed(() => visits.value.filter((v) => v !== next.value))
const left = computed(() => visits.value.filter(open).length)

useKeys([{ key: 'r', does: 'Reload', run: () => void load() }])
</script>

<template>
  <div>
    <TitleBlock
      title="Today"
      :subtitle="weekdayWords(session.today)"
      :cells="[
        {
          label: session.isOffice ? 'For' : 'Technician',
          value: session.isOffice ? 'All technicians' : (session.person?.name ?? ''),
        },
        { label: 'Visits', value: String(visits.length), mono: true },
        { label: 'Still open', value: String(left), mono: true },
        { label: 'Tomorrow', value: String(value?.tomorrow.length ?? '–'), mono: true },
      ]"
    />
    <ProblemNote :problem="problem" @retry="load" />
    <p v-if="session.has('technician')" class="soft along" role="status">
      <template v-if="along.ready"
        >Ready for the pit: {{ along.taken }} {{ along.taken === 1 ? 'visit' : 'visits' }} of today
        and tomorrow on this device, {{ clockWords(along.at) }}</template
      >
      <template v-else-if="along.at"
        >{{ along.missing }} things of the visits ahead are not on this device: stay on the line,
        and reload.</template
      >
      <template v-else-if="!asOf">The visits ahead are being taken along.</template>
    </p>
    <WaitingLine v-if="loading && !value" what="today’s visits" />

    <div v-if="value" class="columns">
      <div>
        <section v-if="next" class="next" aria-labelledby="next-title">
          <div class="next-head">
            <h2 id="next-title">{{ next.state === 'under-way' ? 'Carry on' : 'Next' }}</h2>
            <span class="soft">{{ purposeTitles[next.purpose] }}</span>
          </div>
          <p class="tag mono">{{ next.equipment.tag }}</p>
          <p class="where">{{ next.equipment.site }}</p>
          <p class="soft">
            {{ next.equipment.address }} · {{ next.equipment.position }}<br />
            {{ next.equipment.kind }} {{ next.equipment.sizeIn }} in ·
            {{ next.equipment.service }} · serial
            <span class="mono">{{ next.equipment.serial }}</span>
          </p>
          <VisitLine
            :done="next.done"
            :skipped="next.skipped"
            @choose="router.push({ name: 'visit', params: { id: next.id } })"
          />
          <LinkButton variant="primary" large :to="{ name: 'visit', params: { id: next.id } }">
            {{ next.state === 'under-way' ? 'Carry on with' : 'Open' }} {{ next.equipment.tag }}
          </LinkButton>
        </section>

        <section v-if="rest.length > 0" class="section" :class="{ first: !next }">
          <h2>{{ next ? 'After that' : 'Visits' }}</h2>
          <ul class="rows">
            <VisitRowItem
              v-for="v in rest"
              :key="v.id"
              :visit="v"
              :show-technician="session.isOffice"
            />
          </ul>
        </section>
        <EmptySheet v-if="visits.length === 0" title="No visits today">
          {{
            session.isOffice
              ? 'Plan one from the page of the equipment.'
              : 'The planner has given you none. Look at the equipment that falls due.'
          }}
        </EmptySheet>

        <section v-if="value.earlier.length > 0" class="section">
          <h2>Left from earlier days</h2>
          <ul class="rows">
            <VisitRowItem
              v-for="v in value.earlier"
              :key="v.id"
              :visit="v"
              :show-technician="session.isOffice"
            />
          </ul>
        </section>

        <section v-if="value.tomorrow.length > 0" class="section">
          <h2>Tomorrow, {{ dateWords(addDays(session.today, 1)) }}</h2>
          <ul class="rows">
            <VisitRowItem
              v-for="v in value.tomorrow"
              :key="v.id"
              :visit="v"
              :show-technician="session.isOffice"
            />
          </ul>
        </section>
      </div>
      <AttentionList class="aside" />
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 21rem;
  gap: 2rem;
}

.next {
  border: 2px solid var(--rule-strong);
  background: var(--paper-raised);
  padding: 1rem 1.25rem 1.25rem;
}

.next-head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}

.tag {
  font-size: 2.5rem;
  font-weight: 600;
  line-height: 1.1;
  margin: 0.25rem 0 0;
  letter-spacing: -0.02em;
}

.where {
  font-size: 1.25rem;
  font-weight: 600;
  margin: 0;
}

.next .btn {
  width: 100%;
}

.first {
  margin-top: 0;
}

@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
  }
}

.along {
  margin: 0.5rem 0 0;
}
</style>
