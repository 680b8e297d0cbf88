<script setup lang="ts">
import { useTitle } from '@/composables/useTitle'
import { timeWords } from '@/composables/words'
import CertificateSheet from '@/parts/CertificateSheet.vue'
import LinkButton from '@/parts/LinkButton.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { useVisitDocument } from './bench/useVisitDocument'

/** What was signed on this device and has no number yet: to be shown and printed, with its state on it. */
const props = defineProps<{ id: string }>()
useTitle('Provisional sheet')
const { store, problem, load, signed, payload } = useVisitDocument(() => props.id)
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
        <strong>Provisional – no certificate.</strong> Signed on the device of
        {{ signed?.recordedBy }} at {{ timeWords(signed?.recordedAt ?? '') }}, and not at the server
        yet. The certificate is issued, with its number, when it arrives there; until then nobody
        can check this sheet.
      </p>
      <CertificateSheet :payload="payload" />
      <div class="actions no-print mt-3">
        <BButton variant="primary" @click="print">Print</BButton>
        <LinkButton :to="{ name: 'visit', params: { id } }">Back to the visit</LinkButton>
      </div>
    </template>
  </div>
</template>
