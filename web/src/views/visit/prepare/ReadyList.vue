<script setup lang="ts">
import type { Gauge } from '@uvanta/contract'
import { licenceKinds } from '@uvanta/core/catalogue'
import { api } from 'virtual:api'
import { slotsOf, variantOf } from '@uvanta/core/guide'
import { validOn } from '@uvanta/core/calendar'
import { type PayloadOf, planOfVisit, type Notice } from '@uvanta/core/visit'
import { computed, onMounted, shallowRef, watch } from 'vue'
import { ApiProblem, call } from '@/api/client'
import { dateWords } from '@/composables/words'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import { useLibrary } from '@/stores/library'
import { useSession } from '@/stores/session'
import { useVisit } from '@/stores/visit'
import SlotValue from '../bench/SlotValue.vue'
import { useGuide } from '../bench/useGuide'
import { useMachine } from '../bench/useMachine'

/** Everything a visit needs before the van leaves: tools and what does as well, gear, papers, figures. */
const props = defineProps<{ writable: boolean }>()
const store = useVisit()
const session = useSession()
const library = useLibrary()
const { guide, run, valueOf, slotOf } = useGuide(() => 'prepare')
const { machine } = useMachine(() => 'prepare')
const refusal = shallowRef<Notice | null>(null)

const gauges = shallowRef<Gauge[]>([])
onMounted(async () => {
  try {
    gauges.value = (await call(api.gauges.list)).items
  } catch (error) {
    // The gauge is asked for again where the test begins.
    if (!(error instanceof ApiProblem)) throw error
  }
})
const pack = computed(() =>
  library.library ? planOfVisit(store.state, library.library)?.pack : null,
)

interface Paper {
  readonly title: string
  readonly state: 'pass' | 'fail'
  readonly says: string
}
const variant = computed(() =>
  guide.value ? variantOf(guide.value, store.state.guide?.variant ?? '') : null,
)
const licence = computed<Paper | null>(() => {
  const kind = variant.value?.licence ?? pack.value?.licence
  if (!kind) return null
  const titles: Readonly<Record<string, string | undefined>> = licenceKinds
  const title = titles[kind] ?? kind
  const held = session.person?.licences.find((l) => l.kind === kind)
  if (!held) return { title, state: 'fail', says: 'you hold none: hand the visit over' }
  const valid = held.expiresOn >= session.today
  const until = `${held.number}, ${valid ? 'valid to' : 'expired'} ${dateWords(held.expiresOn)}`
  return { title, state: valid ? 'pass' : 'fail', says: until }
})
const gauge = computed<Paper | null>(() => {
  if (!pack.value || gauges.value.length === 0) return null
  const fit = gauges.value.filter(
    (g) =>
      g.active && g.calibrations.some((c) => validOn(session.today, c.calibratedOn, c.validUntil)),
  )
  return {
    title: 'Test gauge in calibration',
    state: fit.length > 0 ? 'pass' : 'fail',
    says: fit.map((g) => g.tag).join(', ') || 'none today',
  }
})
const papers = computed(() => [licence.value, gauge.value].filter((p): p is Paper => p !== null))

interface Item {
  readonly id: string
  readonly title: string
  /** What does as well. */
  readonly instead?: string | undefined
  /** Where it goes, and where never. */
  readonly note?: string
}
const groups = computed<{ title: string; items: Item[] }[]>(() => [
  {
    title: 'Tools',
    items: (guide.value?.tools ?? []).map((t) => ({
      id: t.title,
      title: t.title,
      ...(t.instead ? { instead: t.instead } : {}),
    })),
  },
  {
    title: 'Lubricants and consumables',
    items: (machine.value?.consumables ?? []).map((c) => ({
      id: c.title,
      title: c.title,
      note: [c.where, c.never ? `never ${c.never}` : ''].filter(Boolean).join('; '),
    })),
  },
  { title: 'Gear', items: (variant.value?.gear ?? []).map((g) => ({ id: g, title: g })) },
  {
    title: 'Agreed',
    items: [
      { id: 'Shutdown agreed with the customer', title: 'Shutdown agreed with the customer' },
      { id: 'Maker’s manual at hand', title: 'Maker’s manual at hand' },
    ],
  },
])
const uncapital = (words: string) => words.charAt(0).toLowerCase() + words.slice(1)
type State = PayloadOf<'prepared'>['state']
const stateOf = (id: string) => store.state.prepared[id]?.state
function put(item: string, state: State) {
  refusal.value = store.record('prepared', { item, state })
}

/** Everything that nobody has answered for yet. */
const unanswered = computed(() =>
  groups.value.flatMap((g) => g.items.filter((i) => !stateOf(i.id)).map((i) => i.id)),
)
/** Before setting off the station asks once about them. */
const left = defineModel<number>('unticked', { default: 0 })
watch(unanswered, (list) => (left.value = list.length), { immediate: true })
function allReady() {
  refusal.value = store.recordAll(
    unanswered.value.map((item) => ['prepared', { item, state: 'ready' }] as const),
  )
}

/** Figures that steps of this way will ask for and no sheet has. */
const missing = computed(() => [
  ...new Set((run.value?.steps ?? []).flatMap(slotsOf).filter((s) => !valueOf(s))),
])
</script>

<template>
  <section class="ready" aria-label="Ready to go">
    <ul v-if="papers.length > 0" class="rows">
      <li v-for="p in papers" :key="p.title" class="paper">
        <StateMark :state="p.state" :label="p.title" /> <span class="soft">{{ p.says }}</span>
      </li>
    </ul>
    <div v-if="props.writable && unanswered.length > 1" class="all-ready">
      <BButton variant="outline-primary" @click="allReady"
        >All ready – {{ unanswered.length }} things</BButton
      >
      <span class="soft">Press what is missing, then this.</span>
    </div>
    <div class="groups">
      <div v-for="g in groups" v-show="g.items.length > 0" :key="g.title">
        <h3>{{ g.title }}</h3>
        <ul class="rows">
          <li v-for="i in g.items" :key="i.id" class="item">
            <span class="what">
              <StateMark
                :state="
                  stateOf(i.id) === 'ready'
                    ? 'pass'
                    : stateOf(i.id) === 'substitute'
                      ? 'pass-uncertain'
                      : stateOf(i.id) === 'missing'
                        ? 'fail'
                        : 'open'
                "
              />
              <span
                >{{ i.title }}
                <small v-if="i.note" class="soft">{{ i.note }}</small>
                <small v-if="i.instead" class="soft">or {{ uncapital(i.instead) }}</small>
                <small v-else-if="g.title === 'Tools'" class="soft">no substitute</small></span
              >
            </span>
            <span v-if="props.writable" class="answers">
              <BButton
                size="sm"
                :variant="stateOf(i.id) === 'ready' ? 'primary' : 'outline-primary'"
                :aria-label="`${i.title}: ready`"
                @click="put(i.id, 'ready')"
                >Ready</BButton
              >
              <BButton
                v-if="i.instead"
                size="sm"
                :variant="stateOf(i.id) === 'substitute' ? 'primary' : 'outline-primary'"
                :aria-label="`${i.title}: ${i.instead} instead`"
                @click="put(i.id, 'substitute')"
                >Instead</BButton
              >
              <BButton
                size="sm"
                :variant="stateOf(i.id) === 'missing' ? 'danger' : 'outline-secondary'"
                :aria-label="`${i.title}: missing`"
                @click="put(i.id, 'missing')"
                >Missing</BButton
              >
            </span>
          </li>
        </ul>
      </div>
    </div>
    <template v-if="missing.length > 0 && props.writable">
      <h3>Figures that no sheet has</h3>
      <p class="soft">Looked up now, they do not stop the work later.</p>
      <SlotValue
        v-for="s in missing"
        :key="s"
        :slot-id="s"
        :slot-title="slotOf(s)?.title ?? s"
        :dimension="slotOf(s)?.dimension"
      />
    </template>
    <ProblemNote :refusal="refusal" />
  </section>
</template>

<style scoped>
.ready {
  margin-bottom: 1.25rem;
}

h3 {
  font-size: 1.0625rem;
  margin: 0.9rem 0 0.25rem;
}

.all-ready {
  display: flex;
  flex-wrap: wrap;
  gap: 0.75rem;
  align-items: center;
  margin-top: 0.75rem;
}

.groups {
  display: grid;
  gap: 0 2rem;
  grid-template-columns: repeat(auto-fit, minmax(min(22rem, 100%), 1fr));
}

.paper,
.item {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.25rem 0.75rem;
  align-items: center;
  padding: 0.3rem 0;
  min-height: 48px;
}

.item {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
}

.what {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  line-height: 1.2;
}

.what small {
  display: block;
}

.answers {
  display: flex;
  gap: 0.35rem;
}
</style>
