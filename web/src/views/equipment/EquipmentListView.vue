<script setup lang="ts">
import { api, conditions, type Equipment } from '@uvanta/contract'
import { useDebounceFn } from '@vueuse/core'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { ApiProblem, call } from '@/api/client'
import { useKeys } from '@/composables/useKeys'
import { useTitle } from '@/composables/useTitle'
import { conditionWords, dateWords } from '@/composables/words'
import LinkButton from '@/parts/LinkButton.vue'
import EmptySheet from '@/parts/EmptySheet.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { useLibrary } from '@/stores/library'
import { useSession } from '@/stores/session'

useTitle('Equipment')
const route = useRoute()
const router = useRouter()
const session = useSession()
const library = useLibrary()
void library.load()

/** The filters live in the address bar, so that a list can be kept and sent. */
const text = (name: string) =>
  typeof route.query[name] === 'string' ? (route.query[name] as string) : ''
const words = ref(text('q'))
const items = ref<Equipment[]>([])
const next = ref<string | null>(null)
const loading = ref(false)
const loaded = ref(false)
const problem = ref<ApiProblem | null>(null)
const search = useTemplateRef<HTMLInputElement>('search')
let turn = 0

async function load(more = false) {
  const mine = ++turn
  loading.value = true
  problem.value = null
  try {
    const { q, family, service, condition, due, sort } = Object.fromEntries(
      Object.keys(route.query).map((k) => [k, text(k)]),
    )
    const query = {
      q,
      family,
      service,
      condition,
      due,
      sort,
      ...(more && next.value ? { cursor: next.value } : {}),
    }
    const page = await call(api.register.listEquipment, { query: query as never })
    if (mine !== turn) return
    items.value = more ? [...items.value, ...page.items] : page.items
    next.value = page.next
    loaded.value = true
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    if (mine === turn) problem.value = error
  } finally {
    if (mine === turn) loading.value = false
  }
}

function setFilter(name: string, value: string) {
  const query = { ...route.query, [name]: value || undefined }
  void router.replace({ query })
}
const setWords = useDebounceFn((value: string) => setFilter('q', value), 200)
watch(words, (value) => setWords(value))
watch(
  () => route.query,
  () => void load(),
  { immediate: true },
)

const sort = computed(() => text('sort') || 'tag')
const sortBy = (key: string) => setFilter('sort', sort.value === key ? `-${key}` : key)
const ariaSort = (key: string) =>
  sort.value === key ? 'ascending' : sort.value === `-${key}` ? 'descending' : 'none'
const filtered = computed(() => ['q', 'family', 'service', 'condition', 'due'].some((n) => text(n)))
function clear() {
  words.value = ''
  void router.replace({ query: {} })
}

useKeys([
  { key: '/', does: 'Search', run: () => search.value?.focus() },
  ...(session.has('planner', 'administrator')
    ? [{ key: 'n', does: 'Add equipment', run: () => void router.push({ name: 'equipment-new' }) }]
    : []),
])
function toFirst() {
  void nextTick(() => document.querySelector<HTMLElement>('tbody a')?.focus())
}
</script>

<template>
  <div>
    <div class="head">
      <h1>Equipment</h1>
      <LinkButton
        v-if="session.has('planner', 'administrator')"
        variant="outline-primary"
        :to="{ name: 'equipment-new' }"
      >
        Add equipment
      </LinkButton>
    </div>
    <form class="filters" role="search" @submit.prevent="toFirst">
      <input
        ref="search"
        v-model="words"
        class="form-control"
        type="search"
        placeholder="Tag, serial, site, street, kind"
        aria-label="Search equipment"
      />
      <select
        class="form-select"
        aria-label="Family"
        :value="text('family')"
        @change="setFilter('family', ($event.target as HTMLSelectElement).value)"
      >
        <option value="">All families</option>
        <option v-for="f in library.library?.families" :key="f.id" :value="f.id">
          {{ f.title }}
        </option>
      </select>
      <select
        class="form-select"
        aria-label="Condition"
        :value="text('condition')"
        @change="setFilter('condition', ($event.target as HTMLSelectElement).value)"
      >
        <option value="">Any condition</option>
        <option v-for="c in conditions" :key="c" :value="c">{{ conditionWords[c] }}</option>
      </select>
      <select
        class="form-select"
        aria-label="Due"
        :value="text('due')"
        @change="setFilter('due', ($event.target as HTMLSelectElement).value)"
      >
        <option value="">Due any time</option>
        <option value="overdue">Overdue</option>
        <option value="soon">Due within 60 days</option>
      </select>
      <BButton v-if="filtered" variant="link" @click="clear">Clear</BButton>
    </form>

    <ProblemNote :problem="problem" @retry="load()" />
    <WaitingLine v-if="loading && !loaded" what="equipment" />
    <EmptySheet v-if="loaded && items.length === 0" title="Nothing fits">
      {{
        filtered
          ? 'Take a filter away, or search for fewer words.'
          : 'No equipment has been entered yet.'
      }}
    </EmptySheet>
    <div v-if="items.length > 0" class="scroll-x" :aria-busy="loading">
      <table class="table table-hover">
        <thead>
          <tr>
            <th :aria-sort="ariaSort('tag')">
              <button type="button" @click="sortBy('tag')">Tag</button>
            </th>
            <th>Kind</th>
            <th :aria-sort="ariaSort('site')">
              <button type="button" @click="sortBy('site')">Site</button>
            </th>
            <th class="wide">Serial</th>
            <th :aria-sort="ariaSort('due')">
              <button type="button" @click="sortBy('due')">Due</button>
            </th>
            <th>Condition</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="e in items"
            :key="e.id"
            @click="router.push({ name: 'equipment', params: { id: e.id } })"
          >
            <td>
              <RouterLink
                class="mono tag"
                :to="{ name: 'equipment', params: { id: e.id } }"
                @click.stop
                >{{ e.tag }}</RouterLink
              >
            </td>
            <td>
              {{ e.kind }} <span class="soft">{{ e.sizeIn }} in · {{ e.service }}</span>
            </td>
            <td>
              {{ e.site.name }}<br /><span class="soft small">{{ e.position }}</span>
            </td>
            <td class="mono wide">{{ e.serial }}</td>
            <td class="nowrap">
              <StateMark
                v-if="e.dueOn && e.dueOn < session.today"
                state="overdue"
                :label="dateWords(e.dueOn)"
              />
              <template v-else>{{ dateWords(e.dueOn) }}</template>
            </td>
            <td class="nowrap">
              <StateMark :state="e.condition" :label="conditionWords[e.condition] ?? e.condition" />
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <BButton
      v-if="next"
      class="mt-3"
      variant="outline-primary"
      :disabled="loading"
      @click="load(true)"
      >Show more</BButton
    >
    <p v-if="loaded && items.length > 0" class="soft small mt-2" role="status">
      {{ items.length }} shown{{ next ? ', there are more' : '' }}.
    </p>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 0.75rem;
}

.filters {
  display: grid;
  grid-template-columns: minmax(14rem, 2fr) repeat(3, minmax(9rem, 1fr)) auto;
  gap: 0.6rem;
  margin-bottom: 1rem;
}

th button {
  background: none;
  border: 0;
  padding: 0;
  font-weight: inherit;
  color: inherit;
  text-decoration: underline dotted;
}

th[aria-sort='ascending'] button::after {
  content: ' ↑';
}

th[aria-sort='descending'] button::after {
  content: ' ↓';
}

tbody tr {
  cursor: pointer;
}

.tag {
  font-size: 1.0625rem;
  font-weight: 600;
}

.nowrap {
  white-space: nowrap;
}

@media (max-width: 900px) {
  .filters {
    grid-template-columns: 1fr 1fr;
  }

  .filters > :first-child {
    grid-column: 1 / -1;
  }

  .wide {
    display: none;
  }
}
</style>
