<script setup lang="ts">
import type { Equipment } from '@uvanta/contract'
import { api } from 'virtual:api'
import { computed, onMounted } from 'vue'
import { call } from '@/api/client'
import { useLoad } from '@/composables/useLoad'
import { dateWords } from '@/composables/words'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'

/** What presses: failures and temporary repairs with their dates, then what is overdue. */
const SHOWN = 5
const limit = String(SHOWN)
const { value, problem, load } = useLoad(async () => {
  const [failed, temporary, overdue] = await Promise.all([
    call(api.register.listEquipment, { query: { condition: 'failed', sort: 'repair', limit } }),
    call(api.register.listEquipment, {
      query: { condition: 'temporary-repair', sort: 'repair', limit },
    }),
    call(api.register.listEquipment, { query: { due: 'overdue', sort: 'due', limit } }),
  ])
  return { failed, temporary, overdue }
})
onMounted(load)

const dated = (e: Equipment, field: 'repairBy' | 'dueOn') => dateWords(e[field])
const groups = computed(() => [
  {
    title: 'Failed',
    state: 'failed',
    list: value.value?.failed,
    when: (e: Equipment) => `repair by ${dated(e, 'repairBy')}`,
    query: { condition: 'failed', sort: 'repair' },
  },
  {
    title: 'Temporary repairs',
    state: 'temporary-repair',
    list: value.value?.temporary,
    when: (e: Equipment) => `renew by ${dated(e, 'repairBy')}`,
    query: { condition: 'temporary-repair', sort: 'repair' },
  },
  {
    title: 'Overdue',
    state: 'overdue',
    list: value.value?.overdue,
    when: (e: Equipment) => `was due ${dated(e, 'dueOn')}`,
    query: { due: 'overdue', sort: 'due' },
  },
])
</script>

<template>
  <aside aria-label="Needs attention">
    <ProblemNote :problem="problem" @retry="load" />
    <section v-for="g in groups" :key="g.title" class="section group">
      <h2><StateMark :state="g.state" :label="g.title" /></h2>
      <ul v-if="g.list && g.list.items.length > 0" class="rows">
        <li v-for="e in g.list.items" :key="e.id">
          <RouterLink :to="{ name: 'equipment', params: { id: e.id } }">
            <span class="mono">{{ e.tag }}</span>
            <span
              >{{ e.site.name }}<br /><span class="soft small">{{ g.when(e) }}</span></span
            >
          </RouterLink>
        </li>
      </ul>
      <p v-else-if="g.list" class="soft">None.</p>
      <RouterLink v-if="g.list?.next" class="more" :to="{ name: 'equipment-list', query: g.query }"
        >All of them</RouterLink
      >
    </section>
  </aside>
</template>

<style scoped>
.group:first-of-type {
  margin-top: 0;
}

.rows a {
  display: grid;
  grid-template-columns: 5.5rem 1fr;
  gap: 0.5rem;
  padding: 0.5rem 0;
  color: var(--ink);
  text-decoration: none;
  line-height: 1.3;
}

.rows a:hover {
  background: var(--blue-wash);
}

.more {
  display: inline-block;
  padding: 0.6rem 0;
}
</style>
