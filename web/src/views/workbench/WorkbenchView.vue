<script setup lang="ts">
import { useTitle } from '@/composables/useTitle'
import TitleBlock from '@/parts/TitleBlock.vue'
import FigureBench from './figures/FigureBench.vue'
import { gasBench, limitBench, reliefBench, waterBench } from './figures/flows'
import { benchSetBench, decayBench, seatBench } from './figures/leaks'
import { driftBench, strokeBench } from './figures/tests'
import { useLibrary } from '@/stores/library'
import { computed } from 'vue'
import BoltBench from './BoltBench.vue'
import JudgeBench from './JudgeBench.vue'
import LubricantBench from './LubricantBench.vue'
import OringBench from './OringBench.vue'
import SealBench from './SealBench.vue'
import ThrowBench from './ThrowBench.vue'
import TorqueBench from './TorqueBench.vue'

const library = useLibrary()
void library.load()
const figures = computed(() => [
  gasBench,
  waterBench,
  reliefBench,
  limitBench(library.library?.rulePacks ?? []),
  strokeBench,
  benchSetBench,
  seatBench,
  decayBench,
  driftBench,
])

/** What a technician looks up at the bench; worked out on this device, with no connection. */
useTitle('Workbench')
</script>

<template>
  <div>
    <TitleBlock
      title="Workbench"
      subtitle="Worked out on this device"
      :cells="[
        { label: 'Bolts and torque', value: 'ISO 898-1, ASME B1.1' },
        { label: 'O-rings', value: 'AS568, ISO 3601' },
        { label: 'Lubricants', value: 'by rubber and service' },
        { label: 'Flow and leaks', value: 'IEC 60534' },
      ]"
    />
    <p class="soft mt-3">
      Starting points from standards and physics. The maker’s sheet and the local code come first.
    </p>
    <div class="benches">
      <BoltBench />
      <TorqueBench />
      <OringBench />
      <SealBench />
      <LubricantBench />
      <ThrowBench />
      <FigureBench v-for="f in figures" :key="f.computation" :bench="f" />
      <JudgeBench />
    </div>
  </div>
</template>

<style scoped>
.benches {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(26rem, 100%), 1fr));
  gap: 0 2.5rem;
}
</style>
