<script setup lang="ts">
import type { VisitRow } from '@uvanta/contract'
import { api } from 'virtual:api'
import type { PayloadOf } from '@uvanta/core/visit'
import { ref, shallowRef } from 'vue'
import { ApiProblem, call } from '@/api/client'
import LinkButton from '@/parts/LinkButton.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useSession } from '@/stores/session'
import { useVisit } from '@/stores/visit'
import { isOpen } from '@/views/today/orderOfDay'

/** Puts the result of a computation on the record of one of the technician’s open visits. */
const props = defineProps<{ result: PayloadOf<'result'> }>()
const session = useSession()
const store = useVisit()
const visits = shallowRef<VisitRow[] | null>(null)
const problem = shallowRef<ApiProblem | null>(null)
const message = ref('')
const attached = shallowRef<VisitRow | null>(null)

async function attempt(work: () => Promise<void>) {
  problem.value = null
  message.value = ''
  try {
    await work()
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error
  }
}
const choose = () =>
  attempt(async () => {
    attached.value = null
    const mine = { scope: 'mine', limit: '50' } as const
    const on = session.today
    // A visit of the evening is still open after midnight.
    const lists = await Promise.all([
      call(api.visits.list, { query: { ...mine, on } }),
      call(api.visits.list, { query: { ...mine, before: on, state: 'under-way' } }),
      call(api.visits.list, { query: { ...mine, before: on, state: 'planned' } }),
    ])
    visits.value = lists.flatMap(({ items }) => items).filter(isOpen)
  })
const attach = (visit: VisitRow) =>
  attempt(async () => {
    await store.open(visit.id)
    const refused = store.record('result', { ...props.result })
    if (refused) {
      message.value = `${refused.why} ${refused.remedy}`
      return
    }
    attached.value = visit
    visits.value = null
  })
</script>

<template>
  <div v-if="session.has('technician')" class="attach">
    <BButton v-if="!visits" variant="link" @click="choose">Attach to a visit</BButton>
    <template v-else>
      <p v-if="visits.length === 0" class="soft">You have no open visit today.</p>
      <BButton
        v-for="v in visits"
        :key="v.id"
        size="sm"
        variant="outline-primary"
        class="mono"
        @click="attach(v)"
        >{{ v.equipment.tag }}</BButton
      >
      <BButton size="sm" variant="link" @click="visits = null">Leave it</BButton>
    </template>
    <p v-if="attached" role="status">
      On the record of
      <LinkButton :to="{ name: 'visit', params: { id: attached.id } }">{{
        attached.equipment.tag
      }}</LinkButton>
    </p>
    <ProblemNote :problem="problem" :message="message" />
  </div>
</template>

<style scoped>
.attach {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
  margin-top: 0.5rem;
}

p {
  margin: 0;
}
</style>
