<script setup lang="ts">
import { boltPlan } from '@uvanta/core/craft'
import { computed, ref } from 'vue'
import { attempt } from './attempt'

/** The bolt circle: numbers, order, and the next bolt lit as one goes round. */
const count = ref(8)
const start = ref(1)
const tightened = ref(0)

const outcome = computed(() =>
  attempt(() => boltPlan({ count: Number(count.value), start: Number(start.value) })),
)
const plan = computed(() => ('answer' in outcome.value ? outcome.value.answer : null))
const order = computed(() => plan.value?.passes[0]?.order ?? [])
const total = computed(() => order.value.length * (plan.value?.passes.length ?? 0))
const pass = computed(() =>
  Math.min(
    Math.floor(tightened.value / (order.value.length || 1)),
    (plan.value?.passes.length ?? 1) - 1,
  ),
)
const next = computed(() =>
  tightened.value < total.value ? order.value[tightened.value % order.value.length] : null,
)
const part = computed(() => plan.value?.passes[pass.value]?.part ?? 0)
const spots = computed(() =>
  Array.from({ length: order.value.length }, (_, n) => {
    const angle = (2 * Math.PI * n) / order.value.length - Math.PI / 2
    return { bolt: n + 1, x: 120 + 88 * Math.cos(angle), y: 120 + 88 * Math.sin(angle) }
  }),
)
const inPass = (bolt: number) =>
  order.value.indexOf(bolt) < tightened.value - pass.value * order.value.length
</script>

<template>
  <section class="section" aria-labelledby="bolt-title">
    <h2 id="bolt-title">Bolt circle</h2>
    <div class="entry">
      <label
        >Bolts
        <input
          v-model.number="count"
          class="form-control mono"
          type="number"
          min="2"
          max="96"
          @input="tightened = 0"
      /></label>
      <label
        >First bolt
        <input
          v-model.number="start"
          class="form-control mono"
          type="number"
          min="1"
          @input="tightened = 0"
      /></label>
    </div>
    <p v-if="'says' in outcome" class="caution" role="alert">{{ outcome.says }}</p>
    <div v-else class="drawn">
      <svg
        viewBox="0 0 240 240"
        role="img"
        :aria-label="`Bolt circle, next bolt ${next ?? 'none'}`"
      >
        <circle cx="120" cy="120" r="112" class="flange" />
        <circle cx="120" cy="120" r="52" class="flange" />
        <g
          v-for="s in spots"
          :key="s.bolt"
          :class="{ next: s.bolt === next, done: inPass(s.bolt) }"
        >
          <circle :cx="s.x" :cy="s.y" :r="order.length > 20 ? 9 : 15" />
          <text :x="s.x" :y="s.y + 5">{{ s.bolt }}</text>
        </g>
        <text x="120" y="116" class="big">{{ next ?? '✓' }}</text>
        <text x="120" y="138" class="sub">
          {{ next ? `${Math.round(part * 100)} %` : 'go round' }}
        </text>
      </svg>
      <div>
        <p class="mono order" data-testid="bolt-order">{{ order.join(' – ') }}</p>
        <p class="soft small">
          {{ plan?.passes.map((p) => `${Math.round(p.part * 100)} %`).join(', then ') }}, then round
          and round until none moves.
        </p>
        <div class="actions">
          <BButton v-if="next" variant="primary" size="lg" @click="tightened++"
            >Bolt {{ next }} done</BButton
          >
          <BButton v-if="tightened > 0" variant="link" @click="tightened--">Back one</BButton>
          <BButton v-if="tightened > 0" variant="link" @click="tightened = 0">Again</BButton>
        </div>
      </div>
    </div>
  </section>
</template>

<style scoped>
.entry {
  display: grid;
  grid-template-columns: 8rem 8rem;
  gap: 0.75rem;
}

label {
  font-weight: 600;
}

.drawn {
  display: grid;
  grid-template-columns: 240px minmax(0, 1fr);
  gap: 1rem;
  margin-top: 0.75rem;
  align-items: center;
}

.flange {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}

g circle {
  fill: var(--paper-raised);
  stroke: var(--ink);
  stroke-width: 2;
}

g.done circle {
  fill: var(--paper-sunk);
}

g.next circle {
  fill: var(--blue);
  stroke: var(--blue);
}

g.next text {
  fill: var(--blue-on);
}

text {
  font-family: var(--bs-font-monospace);
  font-size: 13px;
  text-anchor: middle;
  fill: var(--ink);
}

.big {
  font-size: 34px;
  font-weight: 700;
}

.order {
  font-size: 1.0625rem;
}

@media (max-width: 700px) {
  .drawn {
    grid-template-columns: minmax(0, 1fr);
    justify-items: center;
  }
}
</style>
