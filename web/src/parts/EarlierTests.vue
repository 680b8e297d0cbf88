<script setup lang="ts">
import { type CertifiedEarlier, CHECK_WORDS } from '@uvanta/core/certificate'
import { dateWords } from '@/composables/words'
import VerdictList from './VerdictList.vue'

/** Tests and checks of a visit that others came after, or that were never finished: they stay on the record. */
defineProps<{ earlier: readonly CertifiedEarlier[] }>()

const titleOf = ({ run, ended, test }: CertifiedEarlier) =>
  `${run === 'as-found' ? 'As found' : 'As left'}, ${dateWords(test.date)}${ended === 'not-finished' ? ' (not finished)' : ''}`
</script>

<template>
  <section class="section">
    <h2>Earlier tests on this visit</h2>
    <details v-for="(e, n) in earlier" :key="n" open>
      <summary>
        {{ titleOf(e) }}<template v-if="e.why">. Tested again: {{ e.why }}</template>
      </summary>
      <VerdictList v-if="'verdict' in e.test" :verdict="e.test.verdict" />
      <p v-else>
        <strong>{{ CHECK_WORDS[e.test.checked] }}.</strong> {{ e.test.text }}
      </p>
    </details>
  </section>
</template>

<style scoped>
summary {
  font-weight: 600;
  padding: 0.5rem 0;
}
</style>
