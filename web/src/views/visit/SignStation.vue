<script setup lang="ts">
import { finalRun, type Refusal } from '@uvanta/core/visit'
import { computed, ref, shallowRef } from 'vue'
import { ApiProblem } from '@/api/client'
import { dateWords, outcomeWords } from '@/composables/words'
import LinkButton from '@/parts/LinkButton.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import VerdictList from '@/parts/VerdictList.vue'
import { useSession } from '@/stores/session'
import { useVisit } from '@/stores/visit'
import SignaturePad from './SignaturePad.vue'
import StationFrame from './StationFrame.vue'
import TestStation from './test/TestStation.vue'

/** The as-left test where one is due, then verdict, signature and certificate. */
const store = useVisit()
const session = useSession()
const signature = ref('')
const password = ref('')
const busy = ref(false)
const problem = shallowRef<ApiProblem | null>(null)
const message = ref('')
const refusal = shallowRef<Refusal | null>(null)
const reopening = ref(false)
const reason = ref('')

const run = computed(() => finalRun(store.state))
const verdict = computed(() => (run.value ? store.verdict(run.value) : null))
const failed = computed(() => verdict.value && !verdict.value.outcome.startsWith('pass'))
const writable = computed(() => store.mine && !store.state.signed && !store.state.stopped)

async function sign() {
  problem.value = null
  message.value = ''
  if (!signature.value) message.value = 'Draw your signature in the box.'
  else if (!password.value) message.value = 'Confirm with your password.'
  if (message.value || !verdict.value) return
  const payload = {
    signature: signature.value,
    name: session.person?.name ?? '',
    outcome: verdict.value.outcome,
  }
  const refused = store.refusal('signed', payload)
  if (refused) {
    message.value = `${refused.why} ${refused.todo}`
    return
  }
  busy.value = true
  try {
    await store.sign(payload, password.value)
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error
  } finally {
    password.value = ''
    busy.value = false
  }
}

function reopen() {
  refusal.value = reason.value.trim()
    ? store.record('reopened', { reason: reason.value.trim() })
    : { why: 'The reason is missing.', todo: 'Say what has to be done again.' }
}
</script>

<template>
  <TestStation v-if="!run" run="as-left" />
  <StationFrame v-else-if="store.state.signed" title="Signed and closed">
    <p class="lead">
      <StateMark
        :state="store.state.signed.outcome"
        :label="outcomeWords[store.state.signed.outcome]"
      />
      – signed by {{ store.state.signed.name }}.
    </p>
    <div v-if="store.state.certificate" class="certificate">
      <p class="soft small">Certificate</p>
      <p class="mono number">{{ store.state.certificate.number }}</p>
      <LinkButton
        variant="primary"
        large
        :to="{ name: 'certificate', params: { id: store.state.certificate.certificateId } }"
        >Open the certificate</LinkButton
      >
    </div>
    <p v-if="store.state.correctedSinceCertificate" class="caution">
      An entry was corrected since this certificate. Replace the certificate from its own page.
    </p>
    <template #aside><VerdictList v-if="verdict" :verdict="verdict" title="Verdict" /></template>
  </StationFrame>
  <StationFrame
    v-else
    title="Read the verdict, then sign"
    :lead="
      failed
        ? 'This did not pass. Repair and test again, or sign the failure as it stands: the office hears of it at once.'
        : ''
    "
  >
    <div v-if="failed && writable" class="again">
      <BButton v-if="!reopening" variant="primary" size="lg" @click="reopening = true"
        >Back to Open up</BButton
      >
      <template v-else>
        <label class="form-label" for="reason">What has to be done again</label>
        <input id="reason" v-model="reason" class="form-control" />
        <BButton class="mt-2" variant="primary" @click="reopen">Go back to Open up</BButton>
      </template>
      <ProblemNote :problem="null" :message="refusal ? `${refusal.why} ${refusal.todo}` : ''" />
    </div>
    <form v-if="writable" novalidate @submit.prevent="sign">
      <p class="form-label">Signature of {{ session.person?.name }}</p>
      <SignaturePad v-model="signature" />
      <label class="form-label mt-3" for="sign-password">Password</label>
      <input
        id="sign-password"
        v-model="password"
        class="form-control password"
        type="password"
        autocomplete="current-password"
      />
      <ProblemNote :problem="problem" :message="message" />
      <div class="actions mt-3">
        <BButton
          type="submit"
          :variant="failed ? 'outline-primary' : 'primary'"
          size="lg"
          :disabled="busy"
        >
          {{ failed ? 'Sign the failure' : 'Sign and issue the certificate' }}
        </BButton>
        <span class="soft small">Dated {{ dateWords(session.today) }}</span>
      </div>
    </form>
    <p v-else class="soft">The technician of this visit signs it.</p>
    <template #aside><VerdictList v-if="verdict" :verdict="verdict" title="Verdict" /></template>
  </StationFrame>
</template>

<style scoped>
.certificate {
  border: 2px solid var(--rule-strong);
  background: var(--paper-raised);
  padding: 1rem 1.25rem;
  margin: 1rem 0;
}

.certificate p {
  margin: 0;
}

.number {
  font-size: 2rem;
  font-weight: 600;
  margin-bottom: 0.75rem !important;
}

.password {
  max-width: 24rem;
}

.again {
  margin-bottom: 1.5rem;
}
</style>
