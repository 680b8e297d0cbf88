<script setup lang="ts">
import { atHand, type PlacedStep } from '@uvanta/core/guide'
import { buildsOf, type Machine } from '@uvanta/core/machine'
import { computed, defineAsyncComponent } from 'vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'
import { useGuide } from '../bench/useGuide'

const MachineSheet = defineAsyncComponent(() => import('@/parts/machine/MachineSheet.vue'))

/** The machine in section with the part at hand lit, where the guide has a machine and the step a part. */
const props = defineProps<{ step: PlacedStep }>()
const library = useLibrary()
const store = useVisit()
const { guide } = useGuide(() => props.step.at)
const machine = computed<Machine | undefined>(() =>
  library.library?.machines.find((m) => m.id === guide.value?.machine),
)
const variant = computed(() =>
  guide.value?.variants.find((v) => v.id === store.state.guide?.variant),
)
const options = computed(
  () => variant.value?.options ?? (machine.value ? buildsOf(machine.value)[0] : undefined) ?? [],
)
const lit = computed(() => {
  const known = new Set(machine.value?.parts.map((p) => p.id))
  return guide.value ? atHand(guide.value, props.step).filter((id) => known.has(id)) : []
})
</script>

<template>
  <div v-if="machine && lit.length > 0" class="scroll-x machine" tabindex="0">
    <MachineSheet :machine="machine" :options="options" view="closed" :lit="lit" />
  </div>
</template>

<style scoped>
.machine {
  margin-top: 1.25rem;
}
</style>
