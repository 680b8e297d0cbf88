<script setup lang="ts">
import { roundTo, unitDefinition, unitLabel } from '@uvanta/core/quantity'
import type { PressureStack, StackRow } from '@uvanta/core/visit'
import { computed } from 'vue'

/** Set, lock-up, relief and limit on one scale: where each is accepted, what was found, what is left. */
const props = defineProps<{ stack: PressureStack }>()

const WIDTH = 300
const ROW = 44
const values = computed(() =>
  props.stack.rows.flatMap((r) => [r.low, r.high, r.found, r.left].flatMap((v) => v ?? [])),
)
/** From well under the set point to a little over the highest of all. */
const scale = computed(() => {
  const { set } = props.stack
  const low = Math.min(set * 0.75, ...values.value)
  const high = Math.max(set * 1.2, ...values.value) * 1.04
  return { low, at: (v: number) => ((v - low) / (high - low)) * WIDTH, high }
})
const band = (r: StackRow) => {
  const { at, low, high } = scale.value
  if (r.low === undefined && r.high === undefined) return null
  const from = at(r.low ?? low)
  return { x: from, width: Math.max(2, at(r.high ?? high) - from) }
}
const digits = computed(() => unitDefinition('gaugePressure', props.stack.unit).digits)
const figure = (v: number) => roundTo(v, digits.value)
const says = (r: StackRow) => figure(r.left ?? r.found ?? NaN)
const label = computed(() => unitLabel('gaugePressure', props.stack.unit))
</script>

<template>
  <section class="stack" aria-labelledby="stack-title">
    <h3 id="stack-title">
      Set point <span class="mono">{{ figure(stack.set) }} {{ label }}</span>
    </h3>
    <svg
      :viewBox="`-2 0 ${WIDTH + 4} ${stack.rows.length * ROW + 4}`"
      role="img"
      aria-label="Pressures of the station on one scale"
    >
      <g v-for="(r, n) in stack.rows" :key="r.id" :transform="`translate(0 ${n * ROW})`">
        <path class="axis" :d="`M0 34H${WIDTH}`" />
        <path class="set" :d="`M${scale.at(stack.set)} 26v16`" />
        <rect v-if="band(r)" class="band" y="28" height="12" v-bind="band(r)!" />
        <text x="0" y="20">{{ r.title }}</text>
        <text v-if="r.left !== undefined || r.found !== undefined" :x="WIDTH" y="20" class="figure">
          {{ says(r) }}
        </text>
        <circle v-if="r.found !== undefined" class="found" :cx="scale.at(r.found)" cy="34" r="6" />
        <path
          v-if="r.left !== undefined"
          class="left"
          :d="`M${scale.at(r.left)} 25l8 9l-8 9l-8 -9z`"
        />
      </g>
    </svg>
    <p class="soft small key">
      <svg viewBox="0 0 6 16" class="tick" aria-hidden="true"><path class="set" d="M3 0v16" /></svg>
      set point <span class="swatch" aria-hidden="true" /> accepted
      <svg viewBox="0 0 14 14" aria-hidden="true"><circle class="found" cx="7" cy="7" r="5" /></svg>
      found
      <svg viewBox="0 0 18 18" aria-hidden="true">
        <path class="left" d="M9 1l8 8l-8 8l-8 -8z" />
      </svg>
      left
    </p>
  </section>
</template>

<style scoped>
.stack {
  border-top: 2px solid var(--rule-strong);
  padding-top: 0.6rem;
  margin-bottom: 1.25rem;
}

h3 {
  font-size: 1.125rem;
}

.stack > svg {
  width: 100%;
  max-width: 26rem;
  display: block;
}

.axis {
  stroke: var(--rule);
  stroke-width: 1;
}

.set {
  stroke: var(--ink);
  stroke-width: 2.4;
}

.band {
  fill: color-mix(in srgb, var(--pass) 26%, transparent);
}

.found {
  fill: var(--blue);
}

.left {
  fill: var(--paper-raised);
  stroke: var(--pass);
  stroke-width: 3;
}

text {
  fill: var(--ink);
  font-size: 14px;
}

.figure {
  text-anchor: end;
  font-family: var(--bs-font-monospace);
}

.key {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  margin: 0.4rem 0 0;
}

.key svg {
  width: 14px;
  margin-left: 0.5rem;
}

.key .tick {
  width: 6px;
  margin: 0;
}

.swatch {
  width: 1.4em;
  height: 0.7em;
  background: color-mix(in srgb, var(--pass) 26%, transparent);
}
</style>
