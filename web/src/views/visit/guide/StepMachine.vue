<script setup lang="ts">
import type { PlacedStep } from '@uvanta/core/guide'
import { computed, defineAsyncComponent, ref } from 'vue'
import { useMachine } from '../bench/useMachine'
import PartCard from './PartCard.vue'

const MachineSheet = defineAsyncComponent(() => import('@/parts/machine/MachineSheet.vue'))

/**
 * The machine as it stands at a step: what is off drawn apart, the part at hand lit with the way in which
 * it moves. A part that is pressed says what is known of it.
 */
const props = defineProps<{ step: PlacedStep }>()
const emit = defineEmits<{ judge: [] }>()
const { machine, options, handsOn, takenAt } = useMachine(() => props.step.at)
const lit = computed(() => handsOn(props.step))
const moves = computed(() => {
  if (props.step.remove) return 'off'
  return (props.step.fit ?? props.step.renew) ? 'on' : undefined
})
const taken = computed(() => takenAt(props.step))
const picked = ref<string | null>(null)
/** The part that is looked at is pressed to say what is wrong with it; any other, to read of it. */
function pick(id: string) {
  if (props.step.inspect && lit.value.includes(id)) return emit('judge')
  picked.value = picked.value === id ? null : id
}
const shown = computed(() => machine.value?.parts.find((p) => p.id === picked.value))
</script>

<template>
  <template v-if="machine && lit.length > 0">
    <div class="scroll-x machine" tabindex="0" aria-label="The drawing of the machine">
      <MachineSheet
        :machine="machine"
        :options="options"
        view="closed"
        :lit="lit"
        :taken="taken"
        :moves="moves"
        pressable
        @pick="pick"
      />
    </div>
    <PartCard v-if="shown" :machine="machine" :part="shown" @close="picked = null" />
  </template>
</template>

<style scoped>
.machine {
  margin-top: 1.25rem;
}
</style>
