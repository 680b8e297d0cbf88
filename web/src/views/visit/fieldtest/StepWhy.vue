<script setup lang="ts">
import type { ProcedureStep } from '@uvanta/core/procedure'

/** What stands behind a step of a procedure: why it is done, what to watch, and what goes wrong with it. */
defineProps<{ step: ProcedureStep }>()
</script>

<template>
  <p class="why"><strong>Why</strong> {{ step.why }}</p>
  <p v-if="step.watch" class="why"><strong>Watch</strong> {{ step.watch }}</p>
  <p v-for="m in step.mistakes" :key="m" class="why"><strong>Mistake</strong> {{ m }}</p>
</template>

<style scoped>
.why {
  color: var(--ink-soft);
  max-width: 48rem;
  margin: 0.25rem 0 0;
}

strong {
  color: var(--ink);
  margin-right: 0.4rem;
}
</style>
