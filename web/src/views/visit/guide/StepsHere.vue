<script setup lang="ts">
import type { Station } from '@uvanta/core/visit'
import { computed } from 'vue'
import { useGuide } from '../bench/useGuide'
import GuideStep from './GuideStep.vue'
import StepList from './StepList.vue'

/** What the guide has to look at and to ask at a station that has work of its own. */
const props = defineProps<{
  station: Station
  active: boolean
  /** What the last step ends, where nothing else is asked for at the station. */
  ends?: string | undefined
}>()
const { run, steps, due } = useGuide(() => props.station)
const isLast = computed(() => steps.value.filter((s) => !run.value?.done.has(s.id)).length === 1)
</script>

<template>
  <section v-if="run && steps.length > 0" class="here">
    <GuideStep
      v-if="due && active"
      :key="due.id"
      :step="due"
      :number="steps.indexOf(due) + 1"
      :of="steps.length"
      :ends="isLast ? ends : undefined"
    />
    <p v-else-if="active" class="all">All {{ steps.length }} looked at.</p>
    <StepList v-else :steps="steps" :done="run.done" :current="undefined" :pressable="false" />
  </section>
</template>

<style scoped>
.here {
  margin: 1rem 0;
}
</style>
