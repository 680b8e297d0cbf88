<script setup lang="ts">
import { type Notice, shutOff } from '@uvanta/core/visit'
import { computed, reactive, shallowRef } from 'vue'
import { clockWords } from '@/composables/words'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useVisit } from '@/stores/visit'
import { useSite } from './useSite'

/** What is shut, and the lock or tag that keeps it so. */
defineProps<{ writable: boolean }>()
const emit = defineEmits<{ /** The last lock that was wanting is on. */ locked: [] }>()
const store = useVisit()
const refusal = shallowRef<Notice | null>(null)
const { site } = useSite()
const numbers = reactive<Record<string, string>>({})

const shut = computed(() => {
  if (!site.value) return []
  const shutoffs = shutOff(site.value, store.state.valves)
  return site.value.valves.filter((v) => store.state.locks[v.id] || shutoffs.includes(v))
})
const open = computed(() => shut.value.filter((v) => !store.state.locks[v.id]))
/** Puts locks on, all of them or none. */
function put(valves: readonly { readonly id: string }[]) {
  const locks = valves.map(({ id }) => ({
    element: id,
    number: numbers[id]?.trim() ?? '',
    on: true,
  }))
  refusal.value = locks.every((l) => l.number)
    ? store.recordAll(locks.map((lock) => ['lock', lock] as const))
    : { why: 'A number is missing.', remedy: 'Enter what stands on the lock or tag.' }
  if (refusal.value) return
  for (const { id } of valves) numbers[id] = ''
  if (shut.value.every((v) => store.state.locks[v.id])) emit('locked')
}
const takeOff = (element: string, number: string) =>
  (refusal.value = store.record('lock', { element, number, on: false }))
</script>

<template>
  <section v-if="shut.length > 0" aria-labelledby="lock-title">
    <h2 id="lock-title">Locks and tags</h2>
    <ul class="rows">
      <li v-for="v in shut" :key="v.id">
        <span>{{ v.title }}</span>
        <template v-if="store.state.locks[v.id]">
          <span class="mono"
            >{{ store.state.locks[v.id]?.number }}
            <small class="soft"
              >{{ store.state.locks[v.id]?.recordedBy }},
              {{ clockWords(store.state.locks[v.id]?.recordedAt ?? '') }}</small
            ></span
          >
          <BButton
            v-if="writable"
            size="sm"
            variant="link"
            :aria-label="`Take the lock off ${v.title}`"
            @click="takeOff(v.id, store.state.locks[v.id]?.number ?? '')"
            >Take off</BButton
          >
        </template>
        <template v-else-if="writable">
          <BFormInput
            v-model="numbers[v.id]"
            class="mono"
            :aria-label="`Number of the lock on ${v.title}`"
            placeholder="Number"
          />
          <BButton
            size="sm"
            variant="outline-primary"
            :aria-label="`Lock ${v.title}`"
            @click="put([v])"
            >Lock</BButton
          >
        </template>
        <span v-else class="soft">not locked</span>
      </li>
    </ul>
    <BButton
      v-if="writable && open.length > 1"
      variant="primary"
      size="lg"
      class="all"
      @click="put(open)"
      >{{ open.length === 2 ? 'Both are locked' : `All ${open.length} are locked` }}</BButton
    >
    <ProblemNote :refusal="refusal" />
  </section>
</template>

<style scoped>
h2 {
  font-size: 1.0625rem;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 8rem) auto;
  gap: 0.5rem;
  align-items: center;
  padding: 0.3rem 0;
}

.all {
  margin-top: 0.6rem;
}

small {
  display: block;
}
</style>
