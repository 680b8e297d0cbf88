<script setup lang="ts">
import type { Refusal } from '@uvanta/core/visit'
import { computed, reactive, ref, shallowRef } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import { useVisit } from '@/stores/visit'
import StationFrame from './StationFrame.vue'

const store = useVisit()
const refusal = shallowRef<Refusal | null>(null)
const differs = ref(false)
const seen = reactive({ serial: '', reason: '' })
const message = ref('')

const equipment = computed(() => store.visit?.equipment)
const identity = computed(() => store.state.identity)
const current = computed(() => !store.state.done.includes('arrive'))
const writable = computed(() => store.mine && !store.state.signed && !store.state.stopped)

function confirm() {
  refusal.value = store.recordAll([
    ['identity', { outcome: 'confirmed' }],
    ['station-done', { station: 'arrive' }],
  ])
}

function mismatch(decision: 'carry-on' | 'stop') {
  message.value = ''
  if (!seen.serial.trim() || !seen.reason.trim()) {
    message.value = 'Give the serial on the plate and why it differs.'
    return
  }
  const reason = seen.reason.trim()
  const seenSerial = seen.serial.trim()
  const stopped = `Not the equipment of this visit (serial ${seenSerial}): ${reason}`
  refusal.value = store.recordAll([
    ['identity', { outcome: 'mismatch', seenSerial, decision, reason }],
    decision === 'stop'
      ? ['stopped', { reason: stopped }]
      : ['station-done', { station: 'arrive' }],
  ])
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
      <span class="soft small"> {{ identity.by }}</span>
    </p>
    <template v-if="writable && current">
      <div v-if="!differs" class="actions mt-3">
        <BButton variant="primary" size="lg" @click="confirm">It is this one</BButton>
        <BButton variant="outline-primary" size="lg" @click="differs = true"
          >The plate differs</BButton
        >
      </div>
      <form v-else class="differs" novalidate @submit.prevent="mismatch('carry-on')">
        <div>
          <label class="form-label" for="seen-serial">Serial on the plate</label>
          <BFormInput id="seen-serial" v-model="seen.serial" class="mono" />
        </div>
        <div>
          <label class="form-label" for="seen-reason">Why it differs</label>
          <BFormInput
            id="seen-reason"
            v-model="seen.reason"
            placeholder="Replaced last year, register not updated"
          />
        </div>
        <div class="actions">
          <BButton type="submit" variant="primary">It stands in its place – carry on</BButton>
          <BButton variant="outline-danger" @click="mismatch('stop')"
            >Wrong equipment – stop the visit</BButton
          >
          <BButton variant="link" @click="differs = false">Back</BButton>
        </div>
      </form>
      <ProblemNote :message="message" :refusal="refusal" />
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

.differs {
  display: grid;
  gap: 0.9rem;
  margin-top: 1.25rem;
}
</style>
