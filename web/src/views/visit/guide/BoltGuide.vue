<script setup lang="ts">
import type { PlacedStep } from '@uvanta/core/guide'
import { boltPlan } from '@uvanta/core/craft'
import { computed, ref } from 'vue'
import BoltCircle from '@/parts/drawing/BoltCircle.vue'
import { useGuide } from './useGuide'

/** The bolts of a tightening in their order, the next one lit; a help for the hand, not a record. */
const props = defineProps<{ step: PlacedStep }>()
const { guide, valueOf } = useGuide(() => props.step.at)

const fastener = computed(() => guide.value?.fasteners?.find((f) => f.id === props.step.tighten))
const count = computed(() => Number(valueOf(fastener.value?.count ?? undefined)?.value ?? 0))
/** Rising passes where a torque is asked for; else one round. */
const plan = computed(() =>
  count.value >= 2 && count.value <= 96
    ? boltPlan({
        count: count.value,
        ...(props.step.to?.torque || props.step.to?.ceiling ? {} : { passes: [1] }),
      })
    : null,
)
const turns = computed(
  () => plan.value?.passes.flatMap((p) => p.order.map((bolt) => ({ bolt, part: p.part }))) ?? [],
)
const turned = ref(0)
const next = computed(() => turns.value[turned.value])
const done = computed(() => {
  const round = count.value * Math.floor(turned.value / (count.value || 1))
  return turns.value.slice(round, turned.value).map((t) => t.bolt)
})
const caption = computed(() => {
  if (!next.value) return 'all done'
  return (plan.value?.passes.length ?? 1) > 1 ? `${Math.round(next.value.part * 100)} %` : 'next'
})
</script>

<template>
  <div v-if="plan" class="bolts">
    <BoltCircle :count="count" :next="next?.bolt ?? null" :done="done" :caption="caption" />
    <div class="actions">
      <BButton v-if="next" variant="outline-primary" @click="turned++"
        >Bolt {{ next.bolt }} done</BButton
      >
      <BButton v-if="turned > 0" variant="link" @click="turned--">Back one</BButton>
    </div>
  </div>
</template>

<style scoped>
.bolts {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem;
  align-items: center;
  margin-bottom: 0.75rem;
}
</style>
