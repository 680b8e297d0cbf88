<script setup lang="ts">
import type { Notice } from '@uvanta/core/visit'
import { line, prose } from '@uvanta/core/schema'
import { computed, ref, shallowRef } from 'vue'
import { object } from 'yup'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import { useVisit } from '@/stores/visit'
import { useGuide } from './bench/useGuide'
import StepsHere from './guide/StepsHere.vue'
import StationFrame from './StationFrame.vue'

const store = useVisit()
const refusal = shallowRef<Notice | null>(null)
const differs = ref(false)

const equipment = computed(() => store.visit?.equipment)
const identity = computed(() => store.state.identity)
const current = computed(() => !store.state.done.includes('arrive'))
const writable = computed(() => store.mine && !store.state.signed && !store.state.stopped)

/** What the guide has to look at and to ask comes between the plate and the test. */
const { due, steps } = useGuide(() => 'arrive')
const LOOKED_ROUND = 'Looked round – test it as it stands'
const leave = ['station-done', { station: 'arrive' }] as const
function confirm() {
  refusal.value = store.recordAll([
    ['identity', { outcome: 'confirmed' }],
    ...(due.value ? [] : [leave]),
  ])
}
function goOn() {
  refusal.value = store.recordAll([leave])
}

const decision = ref<'carry-on' | 'stop'>('carry-on')
const { submit } = useEntry(
  object({
    seenSerial: line(60).required('is missing: give it as it stands there'),
    reason: prose(500).required('is missing'),
  }),
  {},
  ({ seenSerial, reason }) => mismatch(seenSerial.trim(), reason.trim(), decision.value),
  `${store.visit?.id}/mismatch`,
)
function decide(on: 'carry-on' | 'stop') {
  decision.value = on
  return submit()
}

function mismatch(seenSerial: string, reason: string, decision: 'carry-on' | 'stop') {
  const stopped = `Not the equipment of this visit (serial ${seenSerial}): ${reason}`
  return (refusal.value = store.recordAll([
    ['identity', { outcome: 'mismatch', seenSerial, decision, reason }],
    decision === 'stop' ? ['stopped', { reason: stopped }] : leave,
  ]))
}
</script>

<template>
  <StationFrame
    title="Compare the plate"
    lead="Look before touching: leaks, weeping holes, a blocked vent, corrosion, water in the pit. Ask what the customer has noticed. Tell people before water or gas goes off."
  >
    <dl v-if="equipment" class="plate">
      <div>
        <dt>Tag</dt>
        <dd class="mono">{{ equipment.tag }}</dd>
      </div>
      <div>
        <dt>Serial</dt>
        <dd class="mono">{{ equipment.serial }}</dd>
      </div>
      <div>
        <dt>Size</dt>
        <dd class="mono">{{ equipment.sizeIn }} in</dd>
      </div>
      <div>
        <dt>Maker</dt>
        <dd>{{ equipment.maker }}</dd>
      </div>
    </dl>
    <p v-if="identity" class="mt-3">
      <StateMark
        :state="identity.outcome === 'confirmed' ? 'pass' : 'pass-uncertain'"
        :label="
          identity.outcome === 'confirmed'
            ? 'Identity confirmed'
            : `Plate says ${identity.seenSerial}: ${identity.reason}`
        "
      />
      <span class="soft small by">{{ identity.recordedBy }}</span>
    </p>
    <StepsHere
      v-if="identity"
      station="arrive"
      :active="writable && current"
      :ends="LOOKED_ROUND"
    />
    <div v-if="identity && writable && current && !due && steps.length > 0" class="actions mt-3">
      <BButton variant="primary" size="lg" @click="goOn">{{ LOOKED_ROUND }}</BButton>
      <ProblemNote :refusal="refusal" />
    </div>
    <template v-if="writable && current && !identity">
      <div v-if="!differs" class="actions mt-3">
        <BButton variant="primary" size="lg" @click="confirm">It is this one</BButton>
        <BButton variant="outline-primary" size="lg" @click="differs = true"
          >The plate differs</BButton
        >
      </div>
      <form v-else class="differs" novalidate @submit.prevent="decide('carry-on')">
        <EntryField name="seenSerial" label="Serial on the plate" mono />
        <EntryField
          name="reason"
          label="Why it differs"
          placeholder="Replaced last year, register not updated"
        />
        <div class="actions">
          <BButton type="submit" variant="primary">It stands in its place – carry on</BButton>
          <BButton variant="outline-danger" @click="decide('stop')"
            >Wrong equipment – stop the visit</BButton
          >
          <BButton variant="link" @click="differs = false">Back</BButton>
        </div>
      </form>
      <ProblemNote :refusal="refusal" />
    </template>
  </StationFrame>
</template>

<style scoped>
.plate {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(9rem, 1fr));
  gap: 1px;
  border: 2px solid var(--rule-strong);
  background: var(--rule);
  margin: 1rem 0 0;
}

.plate > div {
  background: var(--paper-raised);
  padding: 0.5rem 0.9rem;
}

dt {
  font-weight: 400;
  font-size: 0.875rem;
  color: var(--ink-soft);
}

dd {
  font-size: 1.75rem;
  font-weight: 550;
  margin: 0;
}

.by {
  margin-left: 0.5rem;
}

.differs {
  display: grid;
  gap: 0.9rem;
  margin-top: 1.25rem;
}
</style>
