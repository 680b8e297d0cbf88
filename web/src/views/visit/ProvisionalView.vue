<script setup lang="ts">
import { certificatePayload, correctionsMade } from '@uvanta/core/certificate'
import { computed, onMounted, shallowRef } from 'vue'
import { ApiProblem } from '@/api/client'
import { useTitle } from '@/composables/useTitle'
import { timeWords } from '@/composables/words'
import CertificateSheet from '@/parts/CertificateSheet.vue'
import LinkButton from '@/parts/LinkButton.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { useLibrary } from '@/stores/library'
import { useSession } from '@/stores/session'
import { useVisit } from '@/stores/visit'

/** What was signed on this device and has no number yet: to be shown and printed, with its state on it. */
const props = defineProps<{ id: string }>()
useTitle('Provisional sheet')
const store = useVisit()
const library = useLibrary()
const session = useSession()
const problem = shallowRef<ApiProblem | null>(null)
async function load() {
  problem.value = null
  try {
    if (store.visit?.id !== props.id) await store.open(props.id)
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error
  }
}
onMounted(load)
const signed = computed(() => store.state.signed)
const payload = computed(() =>
  signed.value && library.library && store.visit
    ? certificatePayload(store.state, library.library, {
        number: 'Provisional',
        code: '',
        issuedAt: signed.value.at,
        utility: session.utility,
        visitId: store.visit.id,
        headHash: '',
        corrections: correctionsMade(store.events),
      })
    : null,
)
const print = () => window.print()
</script>

<template>
  <div>
    <ProblemNote :problem="problem" @retry="load" />
    <WaitingLine v-if="!store.visit && !problem" what="the visit" />
    <template v-else-if="store.state.certificate">
      <p>The certificate has been issued since.</p>
      <LinkButton
        variant="primary"
        :to="{ name: 'certificate', params: { id: store.state.certificate.certificateId } }"
        >Open {{ store.state.certificate.number }}</LinkButton
      >
    </template>
    <p v-else-if="!payload">This visit is not signed: there is nothing to show yet.</p>
    <template v-else>
      <p class="caution state">
        <strong>Provisional – no certificate.</strong> Signed on the device of {{ signed?.by }} at
        {{ timeWords(signed?.at ?? '') }}, and not at the server yet. The certificate is issued,
        with its number, when it arrives there; until then nobody can check this sheet.
      </p>
      <CertificateSheet :payload="payload" />
      <div class="actions no-print mt-3">
        <BButton variant="primary" @click="print">Print</BButton>
        <LinkButton :to="{ name: 'visit', params: { id } }">Back to the visit</LinkButton>
      </div>
    </template>
  </div>
</template>
