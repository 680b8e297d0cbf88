<script setup lang="ts">
import type { Verification } from '@uvanta/contract'
import { api } from 'virtual:api'
import { advisoriesOf, type CertificatePayload, typedCode } from '@uvanta/core/certificate'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { call, fileUrl } from '@/api/client'
import { useLoad } from '@/composables/useLoad'
import { useTitle } from '@/composables/useTitle'
import { dateWords } from '@/composables/words'
import LinkButton from '@/parts/LinkButton.vue'
import CertificateSheet from '@/parts/CertificateSheet.vue'
import DroppedFile from './DroppedFile.vue'
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
    title: 'Genuine, not replaced',
    text: 'This certificate was issued by the utility named below.',
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
  forgotten: {
    title: 'No longer on record',
    text: 'The utility issued a certificate of this number. Its record was deleted when the time for which records are kept was over: what it said can no longer be confirmed here.',
  },
  unknown: {
    title: 'Unknown',
    text: 'No certificate has this code. Compare it letter by letter with the paper; if it agrees, ask the utility.',
  },
} as const

/** What it says of the equipment today: the first thing that somebody wants to know. */
type Means = NonNullable<Verification['means']>
const sayings: Readonly<
  Record<Means['state'], (on: string | undefined, beside: string) => string>
> = {
  passed: (on, beside) => `Passed${beside}${on ? `; the next test is due ${dateWords(on)}` : ''}.`,
  failed: (on) => `FAILED${on ? `: to be repaired by ${dateWords(on)}` : ''}.`,
  temporary: (on, beside) =>
    `Passed${beside}, with a temporary repair, to be renewed by ${dateWords(on ?? '')}.`,
  overdue: (on) => `Passed then, but a new test was due ${dateWords(on ?? '')}: overdue.`,
  overtaken: (on) => `Out of date: it was tested again ${dateWords(on ?? '')}.`,
  'not-assessed': () => 'Neither passed nor failed: it could not be assessed.',
}
const MARKS: Readonly<Record<Means['state'], string>> = {
  passed: 'pass',
  failed: 'fail',
  temporary: 'temporary-repair',
  overdue: 'overdue',
  overtaken: 'superseded',
  'not-assessed': 'open',
}
const means = computed(() => value.value?.means ?? null)
/** Advisories out of their limits beside a pass. */
const beside = computed(() => (payload.value ? advisoriesOf(payload.value) : ''))

/** A file that verified leads to what its code says today. */
function fromFile({ code }: CertificatePayload) {
  typed.value = code
  void router.push({ name: 'verify', params: { code } })
}

const short = ref('')
function look() {
  const code = typed.value.trim().toUpperCase()
  const parts = typedCode(code)
  short.value =
    parts && 'numberOnly' in parts
      ? `${parts.numberOnly} is the number alone. Type the eight characters behind it too: they prove the paper.`
      : ''
  if (!code || short.value) return
  void router.push({
    name: 'verify',
    params: { code: parts && 'code' in parts ? parts.code : code },
  })
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
    <p v-if="short" class="caution" role="alert">{{ short }}</p>
    <ProblemNote :problem="problem" @retry="load" />
    <template v-if="value">
      <div class="result" :class="means ? MARKS[means.state] : value.verdict" role="status">
        <template v-if="means">
          <h1 class="means">
            <StateMark
              :state="MARKS[means.state]"
              :label="sayings[means.state](means.on, beside)"
            />
          </h1>
          <RouterLink v-if="value.later" :to="{ name: 'verify', params: { code: value.later } }"
            >The later certificate</RouterLink
          >
          <p>
            <strong>{{ words[value.verdict].title }}.</strong>
          </p>
        </template>
        <h1 v-else class="means">
          <StateMark :state="value.verdict" :label="words[value.verdict].title" />
        </h1>
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
      <p v-if="value.utility.phone" class="ask">
        Questions: {{ value.utility.name }},
        <a :href="`tel:${value.utility.phone.replaceAll(' ', '')}`">{{ value.utility.phone }}</a>
      </p>
      <p v-if="payload" class="soft small">
        The signed file can be checked without us: it is a JWS, and the public key is at
        <a href="/.well-known/jwks.json">/.well-known/jwks.json</a>.
      </p>
    </template>
    <DroppedFile class="mt-4" @verified="fromFile" />
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

.means {
  margin: 0;
}

.result.open,
.forgotten {
  color: var(--ink-soft);
}

.pass {
  color: var(--pass);
  background: var(--pass-wash);
}

.temporary-repair,
.superseded {
  color: var(--warn);
  background: var(--warn-wash);
}

.fail,
.overdue,
.altered,
.void,
.unknown {
  color: var(--fail);
  background: var(--fail-wash);
}
</style>
