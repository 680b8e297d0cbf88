<script setup lang="ts">
import { passes } from '@uvanta/core/rules'
import { finalRun, outcomeOf, type Notice, temporaryUntil } from '@uvanta/core/visit'
import { computed, defineAsyncComponent, ref, shallowRef } from 'vue'
import { dateWords, outcomeWords } from '@/composables/words'
import LinkButton from '@/parts/LinkButton.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import VerdictList from '@/parts/VerdictList.vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'
import CheckStation from './CheckStation.vue'
import CustomerOpen from './CustomerOpen.vue'
import GuideStation from './guide/GuideStation.vue'
import SignForm from './SignForm.vue'
import StationFrame from './StationFrame.vue'
import TestStation from './fieldtest/TestStation.vue'

const AfterSigning = defineAsyncComponent(() => import('./AfterSigning.vue'))

/** The as-left test where one is due, then what the guide still asks for, signature, certificate. */
const store = useVisit()
const library = useLibrary()
const refusal = shallowRef<Notice | null>(null)
const reopening = ref(false)
const reason = ref('')

const certified = computed(() => Boolean(store.state.plan?.packId))
const run = computed(() => finalRun(store.state))
const verdict = computed(() => (run.value ? store.verdict(run.value) : null))
const outcome = computed(() => (library.library ? outcomeOf(store.state, library.library) : null))
const passed = computed(() => passes(outcome.value))
const writable = computed(() => store.mine && !store.state.signed && !store.state.stopped)
/** The customer’s side is opened by the guide once the as-left test has passed. */
const guided = computed(
  () => store.state.guide !== undefined && store.state.skipped.length === 0 && passed.value,
)
const followUp = computed(() => temporaryUntil(store.state))

function reopen() {
  refusal.value = reason.value.trim()
    ? store.record('reopened', { reason: reason.value.trim() })
    : { why: 'The reason is missing.', remedy: 'Say what has to be done again.' }
}
</script>

<template>
  <template v-if="!run">
    <TestStation v-if="certified" run="as-left" />
    <CheckStation v-else run="as-left" />
  </template>
  <StationFrame v-else-if="store.state.signed" title="Signed and closed">
    <p class="lead">
      <StateMark
        :state="store.state.signed.outcome"
        :label="outcomeWords[store.state.signed.outcome]"
      />
      – signed by {{ store.state.signed.name }}.
    </p>
    <p v-if="followUp" class="caution">
      Something here is temporary: a visit to renew it is planned for {{ dateWords(followUp) }}.
    </p>
    <div v-if="store.state.certificate" class="certificate">
      <p class="soft small">{{ certified ? 'Certificate' : 'Service report' }}</p>
      <p class="mono number">{{ store.state.certificate.number }}</p>
      <LinkButton
        variant="primary"
        large
        :to="{ name: 'certificate', params: { id: store.state.certificate.certificateId } }"
        >{{ certified ? 'Open the certificate' : 'Open the report' }}</LinkButton
      >
    </div>
    <AfterSigning
      v-if="store.state.certificate"
      :certificate-id="store.state.certificate.certificateId"
    />
    <div v-else class="certificate">
      <p class="soft small">{{ certified ? 'Certificate' : 'Service report' }}</p>
      <p>
        Closed on this device. The number comes when the signature has reached the server, by itself
        as soon as there is a line.
      </p>
      <LinkButton
        v-if="store.visit"
        large
        :to="{ name: 'provisional', params: { id: store.visit.id } }"
        >Show the provisional sheet</LinkButton
      >
    </div>
    <p v-if="store.state.correctedSinceCertificate" class="caution">
      An entry was corrected since this certificate. Replace the certificate from its own page.
    </p>
    <template #aside><VerdictList v-if="verdict" :verdict="verdict" title="Verdict" /></template>
  </StationFrame>
  <GuideStation v-else-if="guided && writable && outcome" station="as-left" done-words="">
    <template #before>
      <p class="passed">
        <StateMark :state="outcome" :label="`As left: ${outcomeWords[outcome]}`" />
      </p>
    </template>
    <template v-if="verdict" #beside
      ><VerdictList :verdict="verdict" title="Verdict" class="mt-4"
    /></template>
    <template #finish><SignForm :outcome="outcome" :certified="certified" /></template>
  </GuideStation>
  <StationFrame
    v-else
    title="Read the verdict, then sign"
    :lead="
      passed
        ? ''
        : 'This did not pass. Repair and test again, or sign the failure as it stands: the office hears of it at once.'
    "
  >
    <CustomerOpen v-if="writable" :outcome="outcome" />
    <div v-if="!passed && writable" class="again">
      <BButton v-if="!reopening" variant="primary" size="lg" @click="reopening = true"
        >Back to Open up</BButton
      >
      <template v-else>
        <label class="form-label" for="reason">What has to be done again</label>
        <BFormInput id="reason" v-model="reason" />
        <BButton class="mt-2" variant="primary" @click="reopen">Go back to Open up</BButton>
      </template>
      <ProblemNote :refusal="refusal" />
    </div>
    <SignForm v-if="writable && outcome" :outcome="outcome" :certified="certified" />
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

.passed {
  font-size: 1.25rem;
  font-weight: 600;
}

.again {
  margin-bottom: 1.5rem;
}
</style>
