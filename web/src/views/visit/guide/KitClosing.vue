<script setup lang="ts">
import { countedOf, kitsNeeded, kitTaken, type Notice } from '@uvanta/core/visit'
import { computed, reactive, shallowRef, watchEffect } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import { useVisit } from '@/stores/visit'
import { useGuide } from '../bench/useGuide'

/** Every item of the bag: fitted, a spare on purpose, left over, missing, or empty by design. */
const store = useVisit()
const { run, kitOf } = useGuide(() => 'rebuild')
const refusal = shallowRef<Notice | null>(null)

const FIELDS = ['spare', 'left', 'missing', 'empty'] as const
const TITLES = { spare: 'Spare', left: 'Left over', missing: 'Missing', empty: 'Empty' } as const
type Entry = Record<(typeof FIELDS)[number], number>
const entries = reactive<Record<string, Entry>>({})

const lines = computed(() =>
  (run.value?.kit ?? []).map((k) => {
    const item = kitOf(k.job)?.items.find((i) => i.item === k.id)
    return {
      ...k,
      counted: countedOf(store.state, k.id),
      number: item?.number ?? '',
      spares: item?.spare ?? 0,
    }
  }),
)
watchEffect(() => {
  for (const l of lines.value) {
    const over = Math.max(0, l.counted - l.used)
    const spare = Math.min(l.spares, over)
    entries[l.id] ??= { spare, left: over - spare, missing: 0, empty: 0 }
  }
})
const open = (id: string, used: number, counted: number) => {
  const e = entries[id]
  return e ? counted - used - e.spare - e.left - e.missing - e.empty : 0
}
/** Numbers of the bags that were taken. */
const bags = computed(() =>
  (run.value ? kitsNeeded(run.value) : []).flatMap(
    (job) => kitTaken(store.state, job)?.number ?? [],
  ),
)
const closed = computed(() => store.state.kitClosed)

function close() {
  refusal.value = store.record('kit-closed', {
    lines: lines.value.map((l) => ({
      item: l.id,
      used: l.used,
      ...(entries[l.id] ?? { spare: 0, left: 0, missing: 0, empty: 0 }),
    })),
  })
}
</script>

<template>
  <form v-if="bags.length > 0" class="kit" novalidate @submit.prevent="close">
    <h3>
      Kit <span class="mono">{{ bags.join(', ') }}</span>
    </h3>
    <p v-if="closed">
      <StateMark state="pass" label="Every item is accounted for" />
    </p>
    <div v-else class="scroll-x">
      <table class="table">
        <thead>
          <tr>
            <th>Item</th>
            <th>Counted</th>
            <th>Fitted</th>
            <th v-for="f in FIELDS" :key="f">{{ TITLES[f] }}</th>
            <th>Open</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="l in lines" :key="l.id">
            <td>
              {{ l.title }}<br /><span class="soft small mono">{{ l.number }}</span>
            </td>
            <td class="mono">{{ l.counted }}</td>
            <td class="mono">{{ l.used }}</td>
            <td v-for="f in FIELDS" :key="f">
              <BFormInput
                v-if="entries[l.id]"
                v-model.number="entries[l.id]![f]"
                class="mono"
                type="number"
                min="0"
                :aria-label="`${l.title}: ${TITLES[f].toLowerCase()}`"
              />
            </td>
            <td class="mono" :class="{ open: open(l.id, l.used, l.counted) !== 0 }">
              {{ open(l.id, l.used, l.counted) }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <BButton v-if="!closed" type="submit" variant="primary">The kit is accounted for</BButton>
    <ProblemNote :refusal="refusal" />
  </form>
</template>

<style scoped>
.kit {
  border-top: 2px solid var(--rule-strong);
  padding-top: 0.6rem;
  margin-bottom: 1.25rem;
}

h3 {
  font-size: 1.0625rem;
}

input {
  width: 4.5rem;
}

.open {
  color: var(--fail);
  font-weight: 700;
}
</style>
