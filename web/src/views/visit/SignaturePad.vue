<script setup lang="ts">
import SignaturePad from 'signature_pad'
import { onBeforeUnmount, onMounted, ref, useTemplateRef } from 'vue'

/** Draws a signature; the model is an SVG path in a box of 400 × 120. */
const path = defineModel<string>({ required: true })
/** Drawn before, on a page that was closed since; a new stroke begins anew. */
const before = ref(path.value)
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
let pad: SignaturePad | undefined

const WIDTH = 400
const HEIGHT = 120

onMounted(() => {
  const element = canvas.value
  if (!element) return
  const { width, height } = element.getBoundingClientRect()
  element.width = width
  element.height = height
  pad = new SignaturePad(element, {
    penColor: getComputedStyle(element).color,
    minWidth: 1,
    maxWidth: 2.5,
  })
  pad.addEventListener('beginStroke', () => (before.value = ''))
  pad.addEventListener('endStroke', () => (path.value = pathOf(width, height)))
})
onBeforeUnmount(() => pad?.off())

function pathOf(width: number, height: number): string {
  const scale = (x: number, y: number) =>
    `${((x / width) * WIDTH).toFixed(1)} ${((y / height) * HEIGHT).toFixed(1)}`
  return (pad?.toData() ?? [])
    .map((stroke) =>
      stroke.points.map((p, i) => `${i === 0 ? 'M' : 'L'} ${scale(p.x, p.y)}`).join(' '),
    )
    .join(' ')
    .slice(0, 40_000)
}

function clear() {
  pad?.clear()
  before.value = ''
  path.value = ''
}
</script>

<template>
  <div class="pad">
    <canvas ref="canvas" aria-label="Draw your signature here" role="img" />
    <svg v-if="before" class="before" viewBox="0 0 400 120" aria-hidden="true">
      <path :d="before" />
    </svg>
    <BButton variant="link" size="sm" @click="clear">Clear</BButton>
  </div>
</template>

<style scoped>
.pad {
  position: relative;
  max-width: 40rem;
}

canvas {
  width: 100%;
  aspect-ratio: 400 / 120;
  border: 1px solid var(--rule-strong);
  border-bottom-width: 3px;
  background: var(--paper-raised);
  color: var(--ink);
  touch-action: none;
  display: block;
}

.before {
  position: absolute;
  inset: 0;
  pointer-events: none;
}

.before path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}

.pad .btn {
  position: absolute;
  right: 0;
  top: 0;
}
</style>
