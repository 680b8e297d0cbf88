<script setup lang="ts">
import { api, type Verification } from '@uvanta/contract'
import type { CertificatePayload } from '@uvanta/core/certificate'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { call, fileUrl } from '@/api/client'
import { useLoad } from '@/composables/useLoad'
import { useTitle } from '@/composables/useTitle'
import LinkButton from '@/parts/LinkButton.vue'
import CertificateSheet from '@/parts/CertificateSheet.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'

const props = defineProps<{ code?: string }>()
const router = useRouter()
const typed = ref(props.code ?? '')
useTitle('Check a certificate')
const { value, problem, load } = useLoad<Verification | null>(() =>
  props.code
    ? call(api.certificates.verify, { params: { code: props.code } })
    : Promise.resolve(null),
)
watch(() => props.code, load, { immediate: true })
const payload = computed(() => value.value?.payload as CertificatePayload | null | undefined)

const words = {
  genuine: {
    title: 'Genuine and current',
    text: 'This certificate was issued by the utility named below and stands.',
  },
  superseded: {
    title: 'Superseded',
    text: 'This certificate is genuine, but another one has taken its place.',
  },
  void: {
    title: 'Void',
    text: 'This certificate was issued, and later declared void. Do not rely on it.',
  },
  altered: {
    title: 'Altered',
    text: 'What is stored under this code is not what was signed. Do not rely on it, and tell the utility.',
  },
  unknown: {
    title: 'Unknown',
    text: 'No certificate has this code. Compare it letter by letter with the paper; if it agrees, ask the utility.',
  },
} as const

function look() {
  const code = typed.value.trim().toUpperCase()
  if (code) void router.push({ name: 'verify', params: { code } })
}
</script>

<template>
  <div>
    <p class="soft brand">Uvanta · check a certificate</p>
    <form class="look no-print" role="search" @submit.prevent="look">
      <label class="form-label" for="code">Code under the QR code</label>
      <div>
        <BFormInput
          id="code"
          v-model="typed"
          class="mono"
          autocapitalize="characters"
          spellcheck="false"
          placeholder="LH-2026-000000-XXXXXXXX"
        />
        <BButton type="submit" variant="primary">Check</BButton>
      </div>
    </form>
    <ProblemNote :problem="problem" @retry="load" />
    <template v-if="value">
      <div class="result" :class="value.verdict" role="status">
        <StateMark :state="value.verdict" :label="words[value.verdict].title" />
        <p>
          {{ words[value.verdict].text }}
          <template v-if="value.reason">Reason: {{ value.reason }}</template>
        </p>
        <RouterLink
          v-if="value.replacedBy"
          :to="{ name: 'verify', params: { code: value.replacedBy } }"
          >The certificate in force</RouterLink
        >
      </div>
      <CertificateSheet v-if="payload" :payload="payload">
        <template #actions>
          <LinkButton
            variant="outline-primary"
            :href="fileUrl(api.certificates.verifyJws, { code: code ?? '' })"
            >Signed file</LinkButton
          >
        </template>
      </CertificateSheet>
      <p v-if="payload" class="soft small">
        The signed file can be checked without us: it is a JWS, and the public key is at
        <a href="/.well-known/jwks.json">/.well-known/jwks.json</a>.
      </p>
    </template>
  </div>
</template>

<style scoped>
.brand {
  border-bottom: 2px solid var(--rule-strong);
  padding-bottom: 0.5rem;
}

.look {
  max-width: 36rem;
  margin-bottom: 1.25rem;
}

.look div {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0.6rem;
}

.result {
  border: 3px solid currentColor;
  padding: 1rem 1.25rem;
  margin-bottom: 1.25rem;
}

.result p {
  margin: 0.25rem 0 0;
  color: var(--ink);
}

.result :deep(.state) {
  font-size: 2rem;
  font-weight: 750;
}

.genuine {
  color: var(--pass);
  background: var(--pass-wash);
}

.superseded {
  color: var(--warn);
  background: var(--warn-wash);
}

.void,
.unknown {
  color: var(--fail);
  background: var(--fail-wash);
}
</style>
