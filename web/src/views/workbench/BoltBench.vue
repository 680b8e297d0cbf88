<script setup lang="ts">
import { boltPlan } from '@uvanta/core/craft'
import { computed, ref, watch } from 'vue'
import BoltCircle from '@/parts/drawing/BoltCircle.vue'
import AttachResult from './AttachResult.vue'
import { attempt } from './attempt'

/** The bolt circle: numbers, order, and the next bolt lit as one goes round. */
const count = ref(8)
const start = ref(1)
const tightened = ref(0)

/** Pairs that come first, long ones that come last, bolts left part-threaded: “1, 5”. */
const first = ref('')
const last = ref('')
const holdBack = ref('')
const listOf = (text: string) => (text.match(/\d+/g) ?? []).map(Number)
/** Rounds after the passes, as long as one still moved. */
const rounds = ref(0)
const rested = ref(false)

const outcome = computed(() =>
  attempt(() =>
    boltPlan({
      count: Number(count.value),
      start: Number(start.value),
      first: listOf(first.value),
      last: listOf(last.value),
      holdBack: listOf(holdBack.value),
    }),
  ),
)
watch([count, start, first, last, holdBack], begin)
function begin() {
  tightened.value = 0
  rounds.value = 0
  rested.value = false
}
function round(moved: boolean) {
  rounds.value++
  rested.value = !moved
}
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
const inPass = computed(() =>
  order.value.slice(0, tightened.value - pass.value * order.value.length),
)
</script>

<template>
  <section class="section" aria-labelledby="bolt-title">
    <h2 id="bolt-title">Bolt circle</h2>
    <div class="entry">
      <label
        >Bolts <BFormInput v-model.number="count" class="mono" type="number" min="2" max="96"
      /></label>
      <label
        >First bolt <BFormInput v-model.number="start" class="mono" type="number" min="1"
      /></label>
      <label>Pair first <BFormInput v-model="first" class="mono" placeholder="1, 5" /></label>
      <label>Last <BFormInput v-model="last" class="mono" placeholder="3, 7" /></label>
      <label>Held back <BFormInput v-model="holdBack" class="mono" /></label>
    </div>
    <p v-if="'says' in outcome" class="caution" role="alert">{{ outcome.says }}</p>
    <div v-else class="drawn">
      <BoltCircle
        :count="Number(count)"
        :next="next ?? null"
        :done="inPass"
        :caption="next ? `${Math.round(part * 100)} %` : 'go round'"
      />
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
          <BButton v-if="tightened > 0" variant="link" @click="begin">Again</BButton>
        </div>
        <div v-if="!next" class="actions">
          <template v-if="!rested">
            <BButton variant="primary" @click="round(true)">Round done – one moved</BButton>
            <BButton variant="outline-primary" @click="round(false)"
              >Round done – none moved</BButton
            >
          </template>
          <span class="soft"
            >{{ rounds }} rounds after the passes{{ rested ? ', none moves any more' : '' }}</span
          >
        </div>
        <AttachResult
          :result="{
            computation: 'bolt-pattern',
            title: `Bolt circle of ${order.length}`,
            says: order.join(' – '),
          }"
        />
      </div>
    </div>
  </section>
</template>

<style scoped>
.entry {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(6.5rem, 1fr));
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

.order {
  font-size: 1.0625rem;
}

@media (max-width: 43.75em) {
  .drawn {
    grid-template-columns: minmax(0, 1fr);
    justify-items: center;
  }
}
</style>
