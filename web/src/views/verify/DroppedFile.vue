<script setup lang="ts">
import type { CertificatePayload } from '@uvanta/core/certificate'
import { compactVerify, createLocalJWKSet, errors, type JSONWebKeySet } from 'jose'
import { ref } from 'vue'

/** A signed file is checked here in the browser, with the public keys of the utility; it is sent nowhere. */
const emit = defineEmits<{ verified: [payload: CertificatePayload] }>()
const says = ref('')
const over = ref(false)

async function check(file: File | undefined) {
  over.value = false
  says.value = ''
  if (!file) return
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
const dropped = (event: DragEvent) => check(event.dataTransfer?.files[0])
function chosen(event: Event) {
  const input = event.target as HTMLInputElement
  void check(input.files?.[0]).then(() => (input.value = ''))
}
</script>

<template>
  <div
    class="drop no-print"
    :class="{ over }"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="dropped"
  >
    <label for="jws">Or check a signed file (.jws): drop it here, or choose it</label>
    <input id="jws" type="file" accept=".jws,text/plain" class="form-control" @change="chosen" />
    <p v-if="says" class="caution" role="alert">{{ says }}</p>
  </div>
</template>

<style scoped>
.drop {
  border: 2px dashed var(--rule);
  padding: 0.75rem 1rem;
  margin-bottom: 1.25rem;
  max-width: 36rem;
  display: grid;
  gap: 0.5rem;
}

.over {
  border-color: var(--blue);
  background: var(--blue-wash);
}

label {
  font-weight: 600;
}

p {
  margin: 0;
}
</style>
