<script setup lang="ts">
import { assemblyKinds } from '@uvanta/core/apparatus/backflow'
import { type Component, computed } from 'vue'
import BackflowDrawing from './backflow/BackflowDrawing.vue'
import type { DrawingProps } from './live'
import PlainDrawing from './PlainDrawing.vue'

/** The drawing of each kind of apparatus; equipment without one is drawn as what it is called. */
const drawings = new Map<string, Component>(assemblyKinds.map((kind) => [kind, BackflowDrawing]))

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
    v-bind="props"
    @turn="(element: string) => emit('turn', element)"
    @height="(mm: number) => emit('height', mm)"
  />
  <PlainDrawing v-else :kind="kind" :tag="tag" />
</template>
