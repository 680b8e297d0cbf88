<script setup lang="ts">
import { type Machine, type MachinePart, numbersOf } from '@uvanta/core/machine'
import { computed } from 'vue'
import PartFacts from '@/parts/machine/PartFacts.vue'

/** What is known of a part that was pressed on the drawing. */
const props = defineProps<{ machine: Machine; part: MachinePart }>()
const emit = defineEmits<{ close: [] }>()
const number = computed(() => numbersOf(props.machine).get(props.part.id))
</script>

<template>
  <aside class="card" aria-live="polite" :aria-label="part.title">
    <p class="head">
      <strong
        ><span class="mono">{{ number }}</span> {{ part.title }}</strong
      >
      <BButton variant="link" @click="emit('close')">Close</BButton>
    </p>
    <PartFacts :part="part" />
  </aside>
</template>

<style scoped>
.card {
  border: 1px solid var(--rule-strong);
  background: var(--paper-raised);
  padding: 0.25rem 1rem 0.6rem;
  max-width: 44rem;
}

.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin: 0;
}
</style>
