<script setup lang="ts">
import { api, certificateStates, type CertificateRow } from '@uvanta/contract'
import { useDebounceFn } from '@vueuse/core'
import { ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { ApiProblem, call } from '@/api/client'
import { useKeys } from '@/composables/useKeys'
import { useTitle } from '@/composables/useTitle'
import { outcomeWords, timeWords } from '@/composables/words'
import EmptySheet from '@/parts/EmptySheet.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import WaitingLine from '@/parts/WaitingLine.vue'

useTitle('Certificates')
const route = useRoute()
const router = useRouter()
const text = (name: string) =>
  typeof route.query[name] === 'string' ? (route.query[name] as string) : ''
const words = ref(text('q'))
const items = ref<CertificateRow[]>([])
const next = ref<string | null>(null)
const loaded = ref(false)
const problem = ref<ApiProblem | null>(null)
const search = useTemplateRef<HTMLInputElement>('search')
let turn = 0

async function load(more = false) {
  const mine = ++turn
  problem.value = null
  try {
    const page = await call(api.certificates.list, {
      query: {
        q: text('q'),
        state: text('state') as never,
        ...(more && next.value ? { cursor: next.value } : {}),
      },
    })
    if (mine !== turn) return
    items.value = more ? [...items.value, ...page.items] : page.items
    next.value = page.next
    loaded.value = true
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error
  }
}
const setFilter = (name: string, value: string) =>
  void router.replace({ query: { ...route.query, [name]: value || undefined } })
const setWords = useDebounceFn((value: string) => setFilter('q', value), 200)
watch(words, (v) => setWords(v))
watch(
  () => route.query,
  () => void load(),
  { immediate: true },
)
useKeys([{ key: '/', does: 'Search', run: () => search.value?.focus() }])
</script>

<template>
  <div>
    <h1>Certificates</h1>
    <form class="filters" role="search" @submit.prevent>
      <input
        ref="search"
        v-model="words"
        type="search"
        class="form-control"
        placeholder="Number, tag, site, technician"
        aria-label="Search certificates"
      />
      <select
        class="form-select"
        aria-label="State"
        :value="text('state')"
        @change="setFilter('state', ($event.target as HTMLSelectElement).value)"
      >
        <option value="">Any state</option>
        <option v-for="s in certificateStates" :key="s" :value="s">{{ s }}</option>
      </select>
    </form>
    <ProblemNote :problem="problem" @retry="load()" />
    <WaitingLine v-if="!loaded && !problem" what="certificates" />
    <EmptySheet v-if="loaded && items.length === 0" title="No certificate fits"
      >Search for fewer words, or take the filter away.</EmptySheet
    >
    <div v-if="items.length > 0" class="scroll-x">
      <table class="table table-hover">
        <thead>
          <tr>
            <th>Number</th>
            <th>Equipment</th>
            <th>Verdict</th>
            <th>Issued</th>
            <th>Technician</th>
            <th>State</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="c in items" :key="c.id">
            <td>
              <RouterLink class="mono number" :to="{ name: 'certificate', params: { id: c.id } }">{{
                c.number
              }}</RouterLink>
            </td>
            <td>
              <span class="mono">{{ c.tag }}</span><br /><span class="soft small">{{
                c.site
              }}</span>
            </td>
            <td>
              <StateMark
                :state="c.outcome"
                :label="outcomeWords[c.outcome as keyof typeof outcomeWords]"
              />
            </td>
            <td>{{ timeWords(c.issuedAt) }}</td>
            <td>{{ c.technician }}</td>
            <td>
              <StateMark v-if="c.state !== 'current'" :state="c.state" :label="c.state" /><span
                v-else
                >{{ c.state }}</span
              >
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <BButton v-if="next" class="mt-3" variant="outline-primary" @click="load(true)"
      >Show more</BButton
    >
  </div>
</template>

<style scoped>
.filters {
  display: grid;
  grid-template-columns: minmax(12rem, 26rem) 12rem;
  gap: 0.6rem;
  margin: 0.5rem 0 1rem;
}

.number {
  font-weight: 600;
  white-space: nowrap;
}

@media (max-width: 700px) {
  .filters {
    grid-template-columns: 1fr;
  }
}
</style>
