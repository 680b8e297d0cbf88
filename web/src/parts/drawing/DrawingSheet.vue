<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, nextTick, onMounted, useTemplateRef, watch } from 'vue'

/**
 * The sheet that equipment is drawn on. On a phone a unit of the drawing is at least a pixel, so that its
 * words can be read and its valves be pressed with a glove: what is wider than the screen is pushed aside,
 * and begins at what the step is about.
 */
const props = defineProps<{
  /** The window on the drawing: left, top, width, height. */
  view: string
  label: string
  /** Where across it the step works. */
  at?: number | null
  /** It is only looked at: nothing in it takes the focus. */
  still?: boolean
}>()
const narrow = useMediaQuery('(max-width: 43.75em)')
const box = useTemplateRef<HTMLElement>('box')
const frame = computed(() => {
  const [left = 0, , width = 1] = props.view.split(' ').map(Number)
  return { left, width }
})
const aside = async () => {
  await nextTick()
  const { at } = props
  if (!box.value || at === undefined || at === null) return
  const { left, width } = frame.value
  const scale = box.value.scrollWidth / width
  box.value.scrollLeft = (at - left) * scale - box.value.clientWidth / 2
}
onMounted(aside)
watch([() => props.at, () => props.view, narrow], aside)
</script>

<template>
  <div
    ref="box"
    class="scroll-x"
    :tabindex="still && narrow ? 0 : undefined"
    :aria-label="still && narrow ? label : undefined"
  >
    <svg
      class="drawing"
      :viewBox="view"
      :style="narrow ? { minWidth: `${frame.width}px` } : {}"
      role="group"
      :aria-label="label"
    >
      <defs>
        <pattern
          id="trapped"
          width="8"
          height="8"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <path d="M0 0V8" class="hatch" />
        </pattern>
      </defs>
      <slot />
    </svg>
  </div>
</template>

<style scoped>
.drawing {
  --water-live: color-mix(in srgb, var(--flow) 34%, transparent);

  width: 100%;
  max-width: 56rem;
  display: block;
}

.hatch {
  stroke: var(--flow);
  stroke-width: 3;
}
</style>
