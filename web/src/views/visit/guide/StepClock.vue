<script setup lang="ts">
import type { PlacedStep } from '@uvanta/core/guide'
import { minutesOf, type Notice } from '@uvanta/core/visit'
import { useTimestamp } from '@vueuse/core'
import { computed, shallowRef } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useVisit } from '@/stores/visit'
import { useGuide } from '../bench/useGuide'

/** A step that waits: its clock is on record, and goes on while the device is off. */
const props = defineProps<{ step: PlacedStep }>()
const emit = defineEmits<{ done: [] }>()
const store = useVisit()
const { valueOf } = useGuide(() => props.step.at)
const refusal = shallowRef<Notice | null>(null)
const now = useTimestamp({ interval: 500 })

const minutes = computed(() => minutesOf(valueOf(props.step.hold ?? undefined)))
const started = computed(() => store.state.guideTimers.findLast((t) => t.step === props.step.id))
const left = computed(() =>
  started.value
    ? Math.max(0, Date.parse(started.value.recordedAt) + minutes.value * 60_000 - now.value)
    : minutes.value * 60_000,
)
const clock = computed(() => {
  const seconds = Math.ceil(left.value / 1000)
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`
})
const begin = () => (refusal.value = store.record('guide-timer', { step: props.step.id }))
</script>

<template>
  <div>
    <p class="clock mono" role="timer" aria-live="off">{{ clock }}</p>
    <div class="actions">
      <BButton v-if="!started" variant="primary" size="lg" @click="begin">Start the clock</BButton>
      <BButton
        v-else
        :variant="left > 0 ? 'outline-primary' : 'primary'"
        size="lg"
        @click="emit('done')"
        >Done</BButton
      >
    </div>
    <ProblemNote :refusal="refusal" />
  </div>
</template>

<style scoped>
.clock {
  font-size: 3.5rem;
  font-weight: 600;
  line-height: 1.1;
  margin: 0 0 0.5rem;
}
</style>
