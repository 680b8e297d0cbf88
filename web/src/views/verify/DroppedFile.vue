<script setup lang="ts">
import type { CertificatePayload } from '@uvanta/core/certificate'
import { compactVerify, createLocalJWKSet, errors, type JSONWebKeySet } from 'jose'
import { ref } from 'vue'
import FileDrop from '@/parts/FileDrop.vue'

/** A signed file is checked here in the browser, with the public keys of the utility; it is sent nowhere. */
const emit = defineEmits<{ verified: [payload: CertificatePayload] }>()
const says = ref('')

async function check(file: File) {
  says.value = ''
  try {
    const keys = (await (await fetch('/.well-known/jwks.json')).json()) as JSONWebKeySet
    const { payload } = await compactVerify((await file.text()).trim(), createLocalJWKSet(keys))
    emit('verified', JSON.parse(new TextDecoder().decode(payload)) as CertificatePayload)
  } catch (error) {
    says.value = words(error)
  }
}
function words(error: unknown): string {
  if (error instanceof errors.JWSSignatureVerificationFailed)
    return 'This file was changed after it was signed, or signed by somebody else. Do not rely on it.'
  if (error instanceof errors.JWKSNoMatchingKey)
    return 'This file was not signed with a key of this utility. Do not rely on it.'
  if (error instanceof TypeError && !navigator.onLine)
    return 'The public keys cannot be fetched without a line. Try again with one.'
  return 'This is no signed file of a certificate. It ends in .jws, and comes from the page of the certificate.'
}
</script>

<template>
  <FileDrop
    label="Or check a signed file (.jws): drop it here, or choose it"
    accept=".jws,text/plain"
    @file="check"
  >
    <p v-if="says" class="caution" role="alert">{{ says }}</p>
  </FileDrop>
</template>
