<script setup lang="ts">
import { type FastenerLayout, fastenerPlan, type PlacedStep } from '@uvanta/core/guide'
import { computed, ref } from 'vue'
import BoltCircle from '@/parts/drawing/BoltCircle.vue'
import { useGuide } from '../bench/useGuide'
import { useMachine } from '../bench/useMachine'

/** The bolts of a tightening in their order, the next one lit; a help for the hand, not a record. */
const props = defineProps<{ step: PlacedStep }>()
const { guide, valueOf } = useGuide(() => props.step.at)

const fastener = computed(() =>
  guide.value?.fasteners?.find((f) => f.id === (props.step.tighten ?? props.step.loosen)),
)
const count = computed(() => Number(valueOf(fastener.value?.count ?? undefined)?.value ?? 0))
const { machine, partsFor } = useMachine(() => props.step.at)
/** How they stand, as the joint of the machine has it. */
const layout = computed<FastenerLayout>(() => {
  const held = partsFor(fastener.value?.holds)
  const joint = machine.value?.joints?.find(
    (j) => j.fasteners === fastener.value?.id || held.includes(j.holds),
  )
  return joint?.layout === 'rectangle' || joint?.layout === 'oblong' ? joint.layout : 'circle'
})
const plan = computed(() => fastenerPlan(props.step, count.value, layout.value))
/** How the ring is to be numbered, where some come first, last, or stay in. */
const numbering = computed(() => {
  const { loosen, lastOnes, leavePart, pattern } = props.step
  if (!plan.value) return ''
  if (loosen && leavePart) return `1 to ${leavePart} stay part-threaded until zero is proved.`
  if (loosen && lastOnes) return `1 and 2 are ${lastOnes}: they come last.`
  const [one, two] = plan.value.passes[0]?.order ?? []
  return pattern === 'pairs-first' ? `${one} and ${two} are the pair that comes first.` : ''
})
const turns = computed(
  () => plan.value?.passes.flatMap((p) => p.order.map((bolt) => ({ bolt, part: p.part }))) ?? [],
)
const turned = ref(0)
const next = computed(() => turns.value[turned.value])
const done = computed(() => {
  const inPass = plan.value?.passes[0]?.order.length ?? 1
  const before = inPass * Math.floor(turned.value / inPass)
  return turns.value.slice(before, turned.value).map((t) => t.bolt)
})
const caption = computed(() => {
  if (!next.value) return 'all done'
  return (plan.value?.passes.length ?? 1) > 1 ? `${Math.round(next.value.part * 100)} %` : 'next'
})
</script>

<template>
  <div v-if="plan" class="bolts">
    <BoltCircle
      :count="count"
      :next="next?.bolt ?? null"
      :done="done"
      :caption="caption"
      :layout="layout"
    />
    <div class="turning">
      <p v-if="numbering" class="soft">{{ numbering }}</p>
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

.turning {
  flex: 1 1 14rem;
}
</style>
