<script setup lang="ts">
import { type PracticePoint, practiceAt, type PlacedStep } from '@uvanta/core/guide'
import { computed } from 'vue'
import { useGuide } from '../bench/useGuide'
import { useMachine } from '../bench/useMachine'

/** Where practitioners differ about this step, and which way is the rule of the house. */
const props = defineProps<{ step: PlacedStep }>()
const { guide } = useGuide(() => props.step.at)
const { machine } = useMachine(() => props.step.at)
const points = computed<readonly PracticePoint[]>(() =>
  machine.value && guide.value ? practiceAt(machine.value, guide.value, props.step) : [],
)
</script>

<template>
  <p v-for="d in points" :key="d.point" class="practice">
    <strong>Practice differs</strong> {{ d.point }}. <b>Rule of the house:</b> {{ d.house }}
    <span class="soft">It stands in the library, which the office keeps.</span>
  </p>
</template>

<style scoped>
.practice {
  color: var(--ink-soft);
  margin: 0.6rem 0 0;
  max-width: 44rem;
}

strong {
  color: var(--ink);
  margin-right: 0.5rem;
}
</style>
