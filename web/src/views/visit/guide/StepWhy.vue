<script setup lang="ts">
import type { PlacedStep } from '@uvanta/core/guide'
import PracticeNotes from './PracticeNotes.vue'

/** What stands behind a step: why it is done, how it is best done, and where practitioners differ. */
defineProps<{ step: PlacedStep }>()
</script>

<template>
  <p v-if="step.why" class="why"><strong>Why</strong> {{ step.why }}</p>
  <p v-if="step.tip" class="why"><strong>Tip</strong> {{ step.tip }}</p>
  <p v-for="school in step.school" :key="school.school" class="why">
    <strong>{{ school.school }}</strong> {{ school.says }}
  </p>
  <PracticeNotes :step="step" />
</template>

<style scoped>
.why {
  color: var(--ink-soft);
  margin: 0.6rem 0 0;
  max-width: 44rem;
}

strong {
  color: var(--ink);
  margin-right: 0.5rem;
}
</style>
