<script setup lang="ts">
import { standingOf } from '@uvanta/core/guide'
import { computed } from 'vue'
import { useGuide } from '../bench/useGuide'
import type { Station } from '@uvanta/core/visit'

/** How the machine stands now, as far as hands have to know: position, air, power, what lifts it. */
const props = defineProps<{ station: Station }>()
const { run } = useGuide(() => props.station)
const standing = computed(() => (run.value ? standingOf(run.value) : null))
const says = computed(() => {
  const { position, air, power, aids = [] } = standing.value ?? {}
  return [
    ...(air
      ? [{ title: 'Air', says: air === 'on' ? 'on – hands out' : 'off', hot: air === 'on' }]
      : []),
    ...(power ? [{ title: 'Power', says: power, hot: power === 'on' }] : []),
    ...(position ? [{ title: 'It stands', says: position, hot: false }] : []),
    ...(aids.length > 0 ? [{ title: 'In it', says: aids.join(', '), hot: false }] : []),
  ]
})
</script>

<template>
  <ul v-if="says.length > 0" class="state" aria-label="How the machine stands">
    <li v-for="s in says" :key="s.title" :class="{ hot: s.hot }">
      <span class="soft">{{ s.title }}</span> {{ s.says }}
    </li>
  </ul>
</template>

<style scoped>
.state {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 0.35rem;
  padding: 0;
  margin: 0 0 0.75rem;
}

.state li {
  border: 1px solid var(--rule-strong);
  padding: 0.1rem 0.6rem;
}

.state .hot {
  border: 2px solid var(--fail);
  font-weight: 600;
}
</style>
