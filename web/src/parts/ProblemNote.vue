<script setup lang="ts">
import type { Notice } from '@uvanta/core/visit'
import type { ApiProblem } from '@/api/client'

/** What went wrong, in a sentence, with a way to try again where that helps. */
defineProps<{
  problem?: ApiProblem | null
  message?: string
  refusal?: Notice | null
  /** Tries again; where nobody can, no button says so. */
  onRetry?: () => void
}>()
</script>

<template>
  <div v-if="problem || message || refusal" class="problem" role="alert">
    <p>{{ message || problem?.message || `${refusal?.why} ${refusal?.remedy}` }}</p>
    <BButton
      v-if="onRetry && problem && (problem.offline || problem.status >= 500)"
      variant="outline-primary"
      @click="onRetry()"
    >
      Try again
    </BButton>
  </div>
</template>

<style scoped>
.problem {
  border-left: 6px solid var(--fail);
  background: var(--fail-wash);
  padding: 0.7rem 0.9rem;
  margin: 0.75rem 0;
}

p {
  margin: 0 0 0.5rem;
}

p:last-child {
  margin: 0;
}
</style>
