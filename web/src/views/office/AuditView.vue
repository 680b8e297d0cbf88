<script setup lang="ts">
import { api } from '@uvanta/contract'
import { ref } from 'vue'
import { ApiProblem, call } from '@/api/client'
import { useTitle } from '@/composables/useTitle'
import { timeWords } from '@/composables/words'
import EmptySheet from '@/parts/EmptySheet.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import OfficeTabs from './OfficeTabs.vue'

useTitle('Audit trail')
type Line = { id: number; at: string; person: string; action: string; subject: string }
const lines = ref<Line[]>([])
const next = ref<string | null>(null)
const loaded = ref(false)
const problem = ref<ApiProblem | null>(null)

async function load() {
  problem.value = null
  try {
    const page = await call(api.audit.list, { query: next.value ? { cursor: next.value } : {} })
    lines.value = [...lines.value, ...page.items]
    next.value = page.next
    loaded.value = true
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error
  }
}
void load()
</script>

<template>
  <div>
    <OfficeTabs />
    <h1>Audit trail</h1>
    <p class="soft">
      Who changed what in the office. What happens on a visit stands in the visit’s own log.
    </p>
    <ProblemNote :problem="problem" @retry="load" />
    <EmptySheet v-if="loaded && lines.length === 0" title="Nothing yet"
      >Changes appear here as they are made.</EmptySheet
    >
    <div v-if="lines.length > 0" class="scroll-x">
      <table class="table">
        <thead>
          <tr>
            <th>Time</th>
            <th>Who</th>
            <th>What</th>
            <th>To what</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="l in lines" :key="l.id">
            <td class="text-nowrap">{{ timeWords(l.at) }}</td>
            <td>{{ l.person }}</td>
            <td>{{ l.action }}</td>
            <td class="mono small">{{ l.subject }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <BButton v-if="next" class="mt-3" variant="outline-primary" @click="load">Show older</BButton>
  </div>
</template>
