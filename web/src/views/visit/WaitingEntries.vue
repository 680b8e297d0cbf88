<script setup lang="ts">
import { computed } from 'vue'
import { useVisit } from '@/stores/visit'
import { eventWords } from '@/composables/eventWords'

/** What waits on this device and why: one refused entry is withdrawn alone, others’ entries not at all. */
const store = useVisit()
const refusedWords = computed(() => {
  const draft = store.refused?.draft
  return draft
    ? (eventWords({ personId: '', personName: '', ...draft } as never) ?? draft.kind)
    : ''
})
const count = computed(() => store.pending.length)
const others = computed(() => Object.entries(store.others))
</script>

<template>
  <p v-if="store.deviceProblem" class="caution mb-3" role="alert">{{ store.deviceProblem }}</p>
  <div v-if="store.sendProblem" class="caution mb-3" role="status">
    <p v-if="store.refused" class="mb-1">
      The server does not take “{{ refusedWords }}”: <strong>{{ store.sendProblem }}</strong>
    </p>
    <p v-else class="mb-1">{{ store.sendProblem }}</p>
    {{ count }} {{ count === 1 ? 'entry waits' : 'entries wait' }} on this device.
    <BButton variant="link" @click="store.flush()">Send now</BButton>
    <BButton
      v-if="store.refused"
      variant="link"
      @click="store.withdrawRefused(`${refusedWords}. ${store.sendProblem}`)"
      >Withdraw this entry</BButton
    >
  </div>
  <p v-for="[name, n] in others" :key="name" class="caution mb-3" role="status">
    {{ n }} {{ n === 1 ? 'entry' : 'entries' }} of {{ name || 'somebody else' }}
    {{ n === 1 ? 'waits' : 'wait' }} on this device, sent when {{ name || 'that person' }} signs in
    here and opens this visit.
  </p>
</template>
