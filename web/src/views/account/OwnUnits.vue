<script setup lang="ts">
import type { HouseUnits } from '@uvanta/contract'
import { api } from 'virtual:api'
import { computed, ref, shallowRef } from 'vue'
import { ApiProblem, call } from '@/api/client'
import { unitOptions, unitWords } from '@/composables/words'
import EntryField from '@/parts/form/EntryField.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useSession } from '@/stores/session'

/** Units in which somebody reads and types pressures; each choice is kept at once. */
const session = useSession()
const problem = shallowRef<ApiProblem | null>(null)
const busy = ref(false)
const asked = [
  { name: 'gaugePressure', label: 'Pressures' },
  { name: 'differential', label: 'Differences of pressure' },
] as const
type Name = keyof HouseUnits
const own = computed(() => session.person?.units ?? {})
const options = (name: Name) => [
  { value: '', text: `as in the house: ${unitWords(name, session.houseUnits[name])}` },
  ...unitOptions(name),
]
async function choose(name: Name, unit: string | undefined) {
  const { [name]: _, ...others } = own.value
  problem.value = null
  busy.value = true
  try {
    await call(api.session.setUnits, { body: unit ? { ...others, [name]: unit } : others })
    await session.load()
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <section class="section">
    <h2>Units</h2>
    <div class="units">
      <EntryField
        v-for="{ name, label } in asked"
        :key="name"
        :label="label"
        kind="choice"
        :options="options(name)"
        :disabled="busy"
        :model-value="own[name] ?? ''"
        @update:model-value="choose(name, $event as string)"
      />
    </div>
    <p class="soft">
      What you read and type begins in them. A gauge shows its own, and limits stay in those of
      their rule.
    </p>
    <ProblemNote :problem="problem" />
  </section>
</template>

<style scoped>
.units {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem 1.25rem;
  margin: 0.4rem 0 0.6rem;
}

.units > * {
  flex: 0 1 16rem;
}
</style>
