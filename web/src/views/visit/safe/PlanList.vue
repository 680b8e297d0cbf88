<script setup lang="ts">
import { planIsolation, type PlannedMove } from '@uvanta/core/pressure'
import { computed } from 'vue'
import StateMark from '@/parts/StateMark.vue'
import { useVisit } from '@/stores/visit'
import { useSite } from './useSite'
import { useGuide } from '../bench/useGuide'

/** The way to zero, worked out on the equipment’s spaces and the guide, with what is done of it. */
const store = useVisit()
const { run } = useGuide(() => 'make-safe')
const { site, states } = useSite()
const plan = computed(() => (site.value ? planIsolation(site.value, run.value?.steps) : null))
function isDone(move: PlannedMove): boolean {
  if (move.kind === 'prove') {
    const zone = site.value?.zones.find((z) => z.id === move.zone)
    return zone?.spaces.every((s) => states.value[s] === 'proved') ?? false
  }
  const stands = store.state.valves[move.valve]
  return stands !== undefined && (stands === 'shut') === (move.kind === 'shut')
}
const VERBS = { shut: 'Shut', vent: 'Open', prove: 'Prove zero:' } as const
const lowerFirst = (text: string) => text.charAt(0).toLowerCase() + text.slice(1)
const how = (m: PlannedMove) =>
  m.kind === 'prove' ? '' : [m.speed, m.degree].filter(Boolean).join(', ')
</script>

<template>
  <section v-if="plan" aria-labelledby="plan-title">
    <h2 id="plan-title">Plan</h2>
    <ol class="rows">
      <li v-for="(m, n) in plan.moves" :key="n">
        <StateMark :state="isDone(m) ? 'pass' : 'open'" />
        <span
          >{{ VERBS[m.kind] }} {{ lowerFirst(m.title) }}
          <small v-if="how(m)" class="soft">{{ how(m) }}</small>
          <small v-if="m.why" class="soft why">{{ m.why }}</small></span
        >
      </li>
    </ol>
    <p v-for="l in plan.leftAlone" :key="l.valve" class="left">
      <strong>{{ l.title }}</strong> {{ l.why }}
    </p>
  </section>
</template>

<style scoped>
h2 {
  font-size: 1.0625rem;
}

li {
  display: flex;
  gap: 0.6rem;
  padding: 0.4rem 0;
}

.why {
  display: block;
}

.left {
  border-left: 6px solid var(--fail);
  padding: 0.4rem 0.75rem;
  margin: 0.75rem 0;
}
</style>
