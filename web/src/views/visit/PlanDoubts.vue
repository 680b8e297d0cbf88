<script setup lang="ts">
import { api } from 'virtual:api'
import { shallowRef, watch } from 'vue'
import { ApiProblem, call } from '@/api/client'

/** What speaks against a plan while it is made; it may be made all the same. */
const props = defineProps<{
  equipmentId: string
  technicianId?: string | undefined
  plannedOn?: string | undefined
  rulePack?: string | undefined
  /** The visit that is planned otherwise. */
  visit?: string | undefined
}>()
const doubts = shallowRef<readonly { says: string }[]>([])
let turn = 0
watch(
  () => ({ ...props }),
  async ({ equipmentId, technicianId, plannedOn, rulePack, visit }) => {
    const mine = ++turn
    if (!technicianId || !/^\d{4}-\d{2}-\d{2}$/.test(plannedOn ?? '')) {
      doubts.value = []
      return
    }
    try {
      const query = {
        equipmentId,
        technicianId,
        plannedOn: plannedOn ?? '',
        ...(rulePack ? { rulePack } : {}),
        ...(visit ? { visit } : {}),
      }
      const { items } = await call(api.visits.doubts, { query })
      if (mine === turn) doubts.value = items
    } catch (error) {
      // The plan itself says what is wrong with it when it is sent.
      if (!(error instanceof ApiProblem)) throw error
      doubts.value = []
    }
  },
  { immediate: true },
)
</script>

<template>
  <div role="status">
    <ul v-if="doubts.length > 0" class="caution doubts">
      <li v-for="d in doubts" :key="d.says">{{ d.says }}</li>
    </ul>
  </div>
</template>

<style scoped>
.doubts {
  margin: 0 0 1rem;
  list-style: none;
}
</style>
