<script setup lang="ts">
import { inForceAt, practiceAt, type PlacedStep } from '@uvanta/core/guide'
import { policyOfVisit } from '@uvanta/core/visit'
import { computed } from 'vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'
import { useGuide } from '../bench/useGuide'
import { useMachine } from '../bench/useMachine'

/** Where practitioners differ about this step: which way is the rule of the house, and what others do. */
const props = defineProps<{ step: PlacedStep }>()
const { guide } = useGuide(() => props.step.at)
const { machine } = useMachine(() => props.step.at)
const store = useVisit()
const library = useLibrary()
const otherwise = computed(
  () => (library.library && policyOfVisit(store.state, library.library)?.otherwise) ?? [],
)
const points = computed(() =>
  (machine.value && guide.value ? practiceAt(machine.value, guide.value, props.step) : []).map(
    (point) => ({ point: point.point, ...inForceAt(point, otherwise.value) }),
  ),
)
</script>

<template>
  <p v-for="d in points" :key="d.point" class="practice">
    <strong>Practice differs</strong> {{ d.point }}. <b>Rule of the house:</b> {{ d.holds }}
    <template v-if="d.why"> {{ d.why }}</template>
    <span v-if="d.others" class="soft"> Others: {{ d.others }}</span>
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
