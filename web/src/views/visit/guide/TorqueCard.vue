<script setup lang="ts">
import type { PlacedStep } from '@uvanta/core/guide'
import { convertValue, roundTo } from '@uvanta/core/quantity'
import { amount } from '@uvanta/core/schema'
import type { PayloadOf } from '@uvanta/core/visit'
import { computed, ref } from 'vue'
import { dateWords } from '@/composables/words'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'
import { useVisit } from '@/stores/visit'
import { useGuide } from '../bench/useGuide'

/** A joint: what the wrench is set to in both units, its ceiling, last time’s figure; ticked, or typed. */
type Tightened = NonNullable<PayloadOf<'guide-step'>['tightened']>
type Torque = Pick<Tightened, 'value' | 'unit'>
const props = defineProps<{ step: PlacedStep; fastener: string }>()
const emit = defineEmits<{ tightened: [figure: Tightened] }>()
const store = useVisit()
const { valueOf } = useGuide(() => props.step.at)

const UNITS = ['N·m', 'lbf·ft', 'lbf·in'] as const
const unitFor = (unit: string | undefined) => UNITS.find((u) => u === unit)
const torque = (slot: string | undefined): Torque | undefined => {
  const { value, unit } = valueOf(slot) ?? {}
  const known = unitFor(unit)
  return known && value && Number(value) > 0 ? { value, unit: known } : undefined
}
/** As it stands, and in the unit of the other wrench. */
const other = ({ value, unit }: Torque) => {
  const to = unit === 'N·m' ? 'lbf·ft' : 'N·m'
  return `${roundTo(convertValue('torque', Number(value), unit, to), 1)} ${to}`
}
const target = computed(() => torque(props.step.to?.torque))
const ceiling = computed(() => torque(props.step.to?.ceiling))
const figure = computed(() => target.value ?? ceiling.value)
const last = computed(() =>
  store.state.plan?.tightened?.find(
    (t) => t.fastener === props.fastener && t.guideId === store.state.guide?.guideId,
  ),
)
const typing = ref(false)
const give = ({ value, unit }: Torque) =>
  emit('tightened', { fastener: props.fastener, value, unit })
const { submit } = useEntry(amount('torque'), { unit: figure.value?.unit ?? 'N·m' }, give)
</script>

<template>
  <section class="torque" aria-label="Torque">
    <dl>
      <div v-if="target">
        <dt>Wrench</dt>
        <dd>
          <span class="mono big">{{ target.value }} {{ target.unit }}</span>
          <span class="mono">{{ other(target) }}</span>
        </dd>
      </div>
      <div v-if="ceiling">
        <dt>No more than</dt>
        <dd>
          <span class="mono" :class="{ big: !target }">{{ ceiling.value }} {{ ceiling.unit }}</span>
          <span class="mono">{{ other(ceiling) }}</span>
        </dd>
      </div>
      <div v-if="step.to?.thread">
        <dt>Thread</dt>
        <dd>{{ step.to.thread === 'dry' ? 'dry' : 'with its compound on' }}</dd>
      </div>
      <div v-if="last">
        <dt>Last time</dt>
        <dd>
          <span class="mono">{{ last.value }} {{ last.unit }}</span>
          <span class="soft">{{ dateWords(last.on) }}</span>
        </dd>
      </div>
    </dl>
    <form v-if="typing || !target" novalidate class="typed" @submit.prevent="submit">
      <EntryField name="value" label="Set to" inputmode="decimal" mono />
      <EntryField
        name="unit"
        label="Unit"
        kind="choice"
        :options="UNITS.map((u) => ({ value: u, text: u }))"
      />
      <BButton type="submit" variant="primary" size="lg">Tightened to it – done</BButton>
    </form>
    <div v-else class="actions">
      <BButton variant="primary" size="lg" class="main" @click="give(target)"
        >Tightened to {{ target.value }} {{ target.unit }} – done</BButton
      >
      <BButton variant="outline-primary" @click="typing = true">Another figure</BButton>
    </div>
  </section>
</template>

<style scoped>
.torque {
  border: 2px solid var(--rule-strong);
  padding: 0.6rem 1rem;
  margin-bottom: 0.75rem;
  max-width: 44rem;
}

dl {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 2rem;
  margin: 0 0 0.6rem;
}

dt {
  font-weight: 400;
  color: var(--ink-soft);
}

dd {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.75rem;
  align-items: baseline;
  margin: 0;
}

.big {
  font-size: 2rem;
  font-weight: 600;
}

.typed,
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: end;
}

@media (max-width: 43.75em) {
  .main {
    width: 100%;
  }
}
</style>
