<script setup lang="ts">
import type { StockItem } from '@uvanta/contract'
import { api } from 'virtual:api'
import { kitDoubts, kitTaken, type Notice } from '@uvanta/core/visit'
import { computed, onMounted, reactive, ref, shallowRef } from 'vue'
import { ApiProblem, call } from '@/api/client'
import { dateWords } from '@/composables/words'
import { keepTyped } from '@/parts/form/keepTyped'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import { useLibrary } from '@/stores/library'
import { useSession } from '@/stores/session'
import { useVisit } from '@/stores/visit'
import { useGuide } from '../bench/useGuide'
import { useMachine } from '../bench/useMachine'
import ScanField from './ScanField.vue'

/** The kit against its list: the number on the bag, every item counted. */
const props = defineProps<{
  writable: boolean
  /** The sub-job whose kit it is. */
  job?: string | undefined
}>()
const emit = defineEmits<{ counted: [] }>()
const store = useVisit()
const session = useSession()
const library = useLibrary()
const { guide, run, kitOf, jobTitle } = useGuide(() => 'prepare')
const { numberOf } = useMachine(() => 'prepare')
const kit = computed(() => kitOf(props.job))
const refusal = shallowRef<Notice | null>(null)
const number = ref('')
const how = ref<'typed' | 'scanned'>('typed')
const counts = reactive<Record<string, number | undefined>>({})
const reason = ref('')
const anew = ref(false)
keepTyped(
  `${store.visit?.id}/kit-${props.job ?? ''}`,
  () => ({ number: number.value, counts: { ...counts } }),
  (kept) => {
    number.value = kept.number
    Object.assign(counts, kept.counts)
  },
)
const counted = computed(() => kitTaken(store.state, props.job))
const titleId = `kit-title-${props.job ?? 'usual'}`

const lines = computed(() =>
  (run.value?.kit ?? [])
    .filter((k) => k.job === props.job)
    .map((k) => {
      const item = kit.value?.items.find((i) => i.item === k.id)
      const takes = (s: { from?: unknown }) => s.from === k.id
      const goes = (run.value?.steps.find(takes) ?? guide.value?.steps.find(takes))?.renew
      return {
        ...k,
        wanted: item?.count ?? k.count,
        number: item?.number ?? '',
        // The number under which the part stands on the drawing of its machine.
        drawn: numberOf(goes),
      }
    }),
)
const stocked = ref(false)
const onVan = shallowRef<StockItem['held'][number] | null>(null)
/** Of those on the van, what lies ready for other visits. */
const kept = shallowRef<StockItem['reserved']>([])
onMounted(async () => {
  try {
    const { items } = await call(api.stock.list)
    const item = items.find((i) => i.number === kit.value?.number)
    stocked.value = item?.kept ?? false
    onVan.value = item?.held.find((h) => h.holderId === session.person?.id) ?? null
    kept.value = (item?.reserved ?? []).filter(
      (r) => r.holderId === session.person?.id && r.visitId !== store.visit?.id,
    )
  } catch (error) {
    // Without a connection the kit is counted all the same.
    if (!(error instanceof ApiProblem)) throw error
  }
})

const entry = computed(() => ({
  number: number.value.trim(),
  ...(props.job ? { job: props.job } : {}),
  items: lines.value.map((l) => ({ item: l.id, count: counts[l.id] ?? 0 })),
}))
const doubts = computed(() =>
  library.library && entry.value.number ? kitDoubts(store.state, library.library, entry.value) : [],
)
/** The stock is kept of this kit, and none is on the van. */
const noneOnVan = computed(
  () =>
    stocked.value && entry.value.number === kit.value?.number && (onVan.value?.quantity ?? 0) < 1,
)
const untouched = computed(() => lines.value.some((l) => counts[l.id] === undefined))

function take() {
  if (!entry.value.number || untouched.value) {
    refusal.value = {
      why: entry.value.number ? 'Not every item is counted.' : 'The number on the bag is missing.',
      remedy: 'Count item by item; enter 0 where there is none.',
    }
    return
  }
  if (noneOnVan.value && !reason.value.trim()) {
    refusal.value = {
      why: `There is no ${entry.value.number} on your van.`,
      remedy: 'Say where this one came from, or take another.',
    }
    return
  }
  refusal.value = store.record('kit-taken', {
    ...entry.value,
    how: how.value,
    ...(reason.value.trim() ? { departure: reason.value.trim() } : {}),
  })
  if (refusal.value) return
  anew.value = false
  emit('counted')
}
</script>

<template>
  <section v-if="lines.length > 0" class="kit" :aria-labelledby="titleId">
    <h3 :id="titleId">
      Kit<template v-if="job"> · {{ jobTitle(job) }}</template>
    </h3>
    <p v-if="kit">
      <strong class="mono">{{ kit.number }}</strong> {{ kit.title }}
      <span class="soft"
        >· {{ kit.source }}, {{ dateWords(kit.date)
        }}<template v-if="onVan"> · {{ onVan.quantity }} on your van</template></span
      ><span v-for="r in kept" :key="r.visitId" class="soft">
        · one is kept for {{ r.tag }}, {{ dateWords(r.on) }}</span
      >
    </p>
    <p v-else class="soft">No spec sheet lists this kit: it is counted against the guide.</p>
    <p v-if="counted && !anew">
      <StateMark
        :state="counted.departure ? 'pass-uncertain' : 'pass'"
        :label="`${counted.number} counted, ${counted.how}`"
      />
      <span v-if="counted.departure" class="soft"> – {{ counted.departure }}</span>
      <BButton v-if="props.writable" variant="link" @click="anew = true">Count again</BButton>
    </p>
    <form v-else-if="props.writable" novalidate @submit.prevent="take">
      <ScanField v-model="number" label="Number on the bag" @scanned="how = 'scanned'" />
      <ul class="rows lines">
        <li v-for="l in lines" :key="l.id">
          <label :for="`count-${l.id}`"
            ><span v-if="l.drawn" class="mono drawn">{{ l.drawn }}</span
            >{{ l.title }} <small class="soft mono">{{ l.number }}</small></label
          >
          <span class="soft">of {{ l.wanted }}</span>
          <BFormInput
            :id="`count-${l.id}`"
            v-model.number="counts[l.id]"
            class="mono"
            type="number"
            min="0"
            inputmode="numeric"
          />
        </li>
      </ul>
      <template v-if="(doubts.length > 0 && !untouched) || noneOnVan">
        <p v-if="noneOnVan" class="caution">
          By the stock there is no {{ kit?.number }} on your van: say where this one came from.
        </p>
        <p v-if="doubts.length > 0 && !untouched" class="caution">
          Not as its list says: {{ doubts.join('; ') }}.
        </p>
        <label class="reason"
          >Why work goes on with it <BFormInput v-model="reason" autocomplete="off"
        /></label>
      </template>
      <BButton type="submit" variant="primary" class="mt-2">The kit is counted</BButton>
    </form>
    <p v-else class="soft">Not counted.</p>
    <ProblemNote :refusal="refusal" />
  </section>
</template>

<style scoped>
.kit {
  border-top: 2px solid var(--rule-strong);
  padding-top: 0.6rem;
  margin: 0 0 1.25rem;
}

h3 {
  font-size: 1.0625rem;
}

p {
  margin-bottom: 0.5rem;
}

.lines {
  margin-top: 0.75rem;
}

.lines li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 4rem 5rem;
  gap: 0.5rem;
  align-items: center;
  padding: 0.25rem 0;
}

.drawn {
  color: var(--ink-soft);
  margin-right: 0.5rem;
}

.lines small {
  display: block;
}

.reason {
  display: block;
  font-weight: 600;
  margin-top: 0.5rem;
}
</style>
