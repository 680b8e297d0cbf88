<script setup lang="ts">
import { computed } from 'vue'
import { useSession } from '@/stores/session'

const session = useSession()
const tabs = computed(() =>
  session.has('administrator')
    ? [
        { name: 'people', label: 'People' },
        { name: 'customers', label: 'Customers' },
        { name: 'gauges', label: 'Gauges' },
        { name: 'stock', label: 'Stock' },
        { name: 'keys', label: 'Keys' },
        { name: 'audit', label: 'Audit trail' },
        { name: 'settings', label: 'Settings' },
      ]
    : session.has('planner')
      ? [
          { name: 'customers', label: 'Customers' },
          { name: 'stock', label: 'Stock' },
        ]
      : [],
)
</script>

<template>
  <nav v-if="tabs.length > 0" class="tabs" aria-label="Office">
    <RouterLink v-for="t in tabs" :key="t.name" :to="{ name: t.name }">{{ t.label }}</RouterLink>
  </nav>
</template>

<style scoped>
.tabs {
  display: flex;
  flex-wrap: wrap;
  border-bottom: 1px solid var(--rule-strong);
  margin-bottom: 1.25rem;
}

a {
  padding: 0.75rem 1.1rem;
  color: var(--ink);
  text-decoration: none;
  border: 1px solid transparent;
  border-bottom: 0;
  margin-bottom: -1px;
}

a.router-link-active {
  border-color: var(--rule-strong);
  background: var(--paper);
  font-weight: 650;
}
</style>
