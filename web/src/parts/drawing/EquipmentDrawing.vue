<script setup lang="ts">
import { assemblyKinds } from '@uvanta/core/apparatus/backflow'
import { regulatorKinds } from '@uvanta/core/apparatus/regulator'
import { type Component, computed } from 'vue'
import BackflowDrawing from './backflow/BackflowDrawing.vue'
import type { DrawingProps } from './live'
import { lineWork } from './machine/lineWork'
import MachineDrawing from './machine/MachineDrawing.vue'
import PlainDrawing from './PlainDrawing.vue'
import RegulatorDrawing from './regulator/RegulatorDrawing.vue'

/** The drawing of each kind of apparatus; equipment without one is drawn as what it is called. */
const drawings = new Map<string, Component>([
  ...assemblyKinds.map((kind) => [kind, BackflowDrawing] as const),
  ...regulatorKinds.map((kind) => [kind, RegulatorDrawing] as const),
  ...Object.keys(lineWork).map((kind) => [kind, MachineDrawing] as const),
])

/**
 * Equipment as line-work from its own model, flow from left to right. With `live`, valves turn when
 * pressed, spaces are filled as they stand, and the instruments hang below.
 */
const props = defineProps<DrawingProps>()
const emit = defineEmits<{ turn: [element: string]; height: [mm: number] }>()
const drawing = computed(() => drawings.get(props.kind))
</script>

<template>
  <component
    :is="drawing"
    v-if="drawing"
    :key="kind"
    v-bind="props"
    @turn="(element: string) => emit('turn', element)"
    @height="(mm: number) => emit('height', mm)"
  />
  <PlainDrawing v-else :kind="kind" :tag="tag" />
</template>
