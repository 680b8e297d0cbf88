<script setup lang="ts">
import type { VisitRow } from '@uvanta/contract'
import { api } from 'virtual:api'
import { purposeTitles } from '@uvanta/core/visit/words'
import { addDays } from '@uvanta/core/calendar'
import { computed, onMounted } from 'vue'
import { useRouter } from 'vue-router'
import { afterFirstView } from '@/afterFirstView'
import { call } from '@/api/client'
import { asOf } from '@/api/kept'
import { useByAndBy } from '@/composables/useByAndBy'
import { useKeys } from '@/composables/useKeys'
import { useLoad } from '@/composables/useLoad'
import { useTitle } from '@/composables/useTitle'
import { clockWords, dateWords, sizeWords, weekdayWords } from '@/composables/words'
import LinkButton from '@/parts/LinkButton.vue'
import EmptySheet from '@/parts/EmptySheet.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import TitleBlock from '@/parts/TitleBlock.vue'
import VisitLine from '@/parts/VisitLine.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { useDeviceKey } from '@/stores/deviceKey'
import { useSession } from '@/stores/session'
import { useTakeAlong } from '@/stores/takeAlong'
import AttentionList from './AttentionList.vue'
import { inOrderOfDay, isOpen } from './orderOfDay'
import VisitRowItem from './VisitRowItem.vue'

useTitle('Today')
const session = useSession()
const along = useTakeAlong()
const keys = useDeviceKey()
const router = useRouter()
/** So many days ahead are shown, and taken along. */
const AHEAD = 7
const { value, loading, problem, load } = useLoad(async () => {
  const on = session.today
  const [today, ahead, begun, missed] = await Promise.all([
    call(api.visits.list, { query: { on, limit: '200' } }),
    call(api.visits.list, {
      query: { from: addDays(on, 1), before: addDays(on, AHEAD + 1), limit: '200' },
    }),
    call(api.visits.list, { query: { before: on, state: 'under-way', limit: '50' } }),
    call(api.visits.list, { query: { before: on, state: 'planned', limit: '50' } }),
  ])
  const all = [...today.items, ...ahead.items, ...begun.items, ...missed.items]
  if (session.has('technician')) {
    void takeAlong(all)
  }
  return {
    all,
    today: inOrderOfDay(today.items),
    ahead: byDay(ahead.items),
    earlier: [...begun.items, ...missed.items],
  }
})
onMounted(load)

/** What is fetched for later does not keep waiting what is looked at now. */
async function takeAlong(visits: readonly VisitRow[]): Promise<void> {
  const { person } = session
  await afterFirstView(router)
  if (!person || session.person?.id !== person.id) return
  await Promise.all([
    along.take(visits.filter((v) => isOpen(v) && v.technicianId === person.id)),
    along.settle(),
  ])
}
function byDay(visits: readonly VisitRow[]) {
  const days = [...new Set(visits.map((v) => v.plannedOn))].sort()
  return days.map((day) => ({
    day,
    visits: inOrderOfDay(visits.filter((v) => v.plannedOn === day)),
  }))
}
const weekday = (day: string) => weekdayWords(day).split(' ')[0]
const visits = computed(() => value.value?.today ?? [])
const mine = computed(() =>
  visits.value.filter((v) => isOpen(v) && v.technicianId === session.person?.id),
)
const next = computed(() => mine.value.find((v) => v.state === 'under-way') ?? mine.value[0])
const left = computed(() => visits.value.filter(isOpen).length)
/** What a technician asked the office for, and nobody has answered. */
const asked = computed(() =>
  session.isOffice ? (value.value?.all ?? []).filter((v) => v.replanAsked && isOpen(v)) : [],
)
/** The visits under each other, the nearest first. */
const lists = computed(() => {
  const dayTitle = (day: string) =>
    `${day === addDays(session.today, 1) ? 'Tomorrow' : weekday(day)}, ${dateWords(day)}`
  const { ahead = [], earlier = [] } = value.value ?? {}
  return [
    {
      title: next.value ? 'After that' : 'Visits',
      visits: visits.value.filter((v) => v !== next.value),
    },
    { title: 'Left from earlier days', visits: earlier },
    ...ahead.map((d) => ({ title: dayTitle(d.day), visits: d.visits })),
  ].filter((list) => list.visits.length > 0)
})
/** A browser clears away when room runs short, unless it has promised not to. */
const SHORT_BYTES = 500e6
const mayBeCleared = computed(
  () => along.room !== null && !along.room.kept && along.room.free < SHORT_BYTES,
)
/** As many as a phone shows come first. */
const shown = useByAndBy(() => lists.value.reduce((sum, l) => sum + l.visits.length, 0), 6)
const shownLists = computed(() => {
  let before = 0
  return lists.value.flatMap(({ title, visits: all }) => {
    const some = all.slice(0, Math.max(0, shown.value - before))
    before += all.length
    return some.length > 0 ? [{ title, visits: some }] : []
  })
})
const tomorrow = computed(
  () => value.value?.ahead.find((d) => d.day === addDays(session.today, 1))?.visits.length ?? 0,
)

useKeys([{ key: 'r', does: 'Reload', run: () => void load() }])
</script>

<template>
  <div>
    <TitleBlock
      title="Today"
      :subtitle="weekdayWords(session.today)"
      :cells="[
        {
          label: session.isOffice ? 'For' : session.has('technician') ? 'Technician' : 'Person',
          value: session.isOffice ? 'All technicians' : (session.person?.name ?? ''),
        },
        { label: 'Visits', value: String(visits.length), mono: true },
        { label: 'Still open', value: String(left), mono: true },
        { label: 'Tomorrow', value: value ? String(tomorrow) : '–', mono: true },
      ]"
    />
    <ProblemNote :problem="problem" @retry="load" />
    <p v-if="session.has('technician')" class="soft along" role="status">
      <template v-if="along.ready"
        >Ready for the pit: {{ along.taken }} {{ along.taken === 1 ? 'visit' : 'visits' }} of today
        and the week ahead, {{ clockWords(along.at) }}</template
      >
      <template v-else-if="along.at"
        >Not on this device yet: {{ along.missing.join(', ') }}.
        {{
          along.full
            ? 'It has no room for that: make some, and reload.'
            : 'Stay on the line, and reload.'
        }}</template
      >
      <template v-else-if="!asOf">The visits ahead are being taken along.</template>
      <template v-if="along.at && along.room">
        · Room for {{ sizeWords(along.room.free) }} more<template v-if="mayBeCleared"
          >: the browser may clear away what is kept, so send what waits</template
        >
      </template>
      <template v-if="!keys.own()">
        · <RouterLink :to="{ name: 'account' }">Set a PIN</RouterLink>, and you sign in a pit.
      </template>
    </p>
    <WaitingLine v-if="loading && !value" what="today’s visits" />

    <div v-if="value" class="columns">
      <div>
        <section v-if="asked.length > 0" class="section first" aria-labelledby="asked-title">
          <h2 id="asked-title">Asked of the office</h2>
          <ul class="rows">
            <VisitRowItem v-for="v in asked" :key="v.id" :visit="v" show-technician />
          </ul>
        </section>
        <section v-if="next" class="next" aria-labelledby="next-title">
          <div class="next-head">
            <h2 id="next-title">{{ next.state === 'under-way' ? 'Carry on' : 'Next' }}</h2>
            <span class="soft">{{ purposeTitles[next.purpose] }}</span>
          </div>
          <p class="tag mono">{{ next.equipment.tag }}</p>
          <p class="where">
            {{ next.equipment.site }}<template v-if="next.time">, {{ next.time }}</template>
          </p>
          <p class="soft">
            {{ next.equipment.address }} · {{ next.equipment.position }}<br />
            {{ next.equipment.kind }} {{ next.equipment.sizeIn }} in ·
            {{ next.equipment.service }} · serial
            <span class="mono">{{ next.equipment.serial }}</span>
          </p>
          <p v-if="next.arrival.access" class="access">{{ next.arrival.access }}</p>
          <p v-if="next.arrival.phone" class="call">
            <a :href="`tel:${next.arrival.phone.replaceAll(' ', '')}`"
              >Call {{ next.arrival.contact || next.equipment.customer }},
              {{ next.arrival.phone }}</a
            >
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

        <EmptySheet v-if="visits.length === 0" title="No visits today">
          {{
            session.isOffice
              ? 'Plan one from the page of the equipment.'
              : session.has('technician')
                ? 'The planner has given you none. Look at the equipment that falls due.'
                : 'Visits are given to technicians. You can read what they found on the pages of the equipment.'
          }}
        </EmptySheet>

        <section
          v-for="(list, n) in shownLists"
          :key="list.title"
          class="section"
          :class="{ first: n === 0 && !next && visits.length > 0 }"
        >
          <h2>{{ list.title }}</h2>
          <ul class="rows">
            <VisitRowItem
              v-for="v in list.visits"
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

.access {
  border-left: 6px solid var(--warn);
  padding-left: 0.75rem;
}

.call a {
  display: inline-flex;
  align-items: center;
  min-height: 48px;
}

.next .btn {
  width: 100%;
}

.first {
  margin-top: 0;
}

@media (max-width: 62.5em) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
  }
}

.along {
  margin: 0.5rem 0 0.75rem;
}

/* What stands below does not jump as soon as it says more. */
@media (max-width: 43.75em) {
  .along {
    min-height: 3lh;
  }
}
</style>
