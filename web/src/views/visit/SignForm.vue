<script setup lang="ts">
import { passes } from '@uvanta/core/rules'
import { isDrawnLine, type PayloadOf, type Notice } from '@uvanta/core/visit'
import { useOnline } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'
import { ApiProblem } from '@/api/client'
import { dateWords } from '@/composables/words'
import EntryField from '@/parts/form/EntryField.vue'
import { keepTyped } from '@/parts/form/keepTyped'
import PinField from '@/parts/form/PinField.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useDeviceKey, WrongPin } from '@/stores/deviceKey'
import { useSession } from '@/stores/session'
import { useVisit } from '@/stores/visit'
import SignaturePad from './SignaturePad.vue'

/** Drawn signature, and PIN or password: the visit is closed with the verdict as it was read. */
const props = defineProps<{ outcome: PayloadOf<'signed'>['outcome']; certified: boolean }>()
const store = useVisit()
const session = useSession()
const keys = useDeviceKey()
const online = useOnline()
const busy = ref(false)
const problem = shallowRef<ApiProblem | null>(null)
const refusal = shallowRef<Notice | null>(null)
const message = ref('')
const signature = ref('')
const password = ref('')
const forget = keepTyped(
  `${store.visit?.id}/signature`,
  () => signature.value,
  (kept) => (signature.value = kept),
)
const passed = computed(() => passes(props.outcome))
const byPassword = ref(false)
const withPin = computed(() => keys.own() !== undefined && !byPassword.value)
const action = computed(() => {
  if (!passed.value) return 'Sign the failure'
  return props.certified ? 'Sign and issue the certificate' : 'Sign and issue the report'
})

const signed = () => ({
  signature: signature.value,
  name: session.person?.name ?? '',
  outcome: props.outcome,
})

/** Whether everything is there, and may be signed now. */
function ready(): boolean {
  problem.value = null
  message.value = ''
  refusal.value = isDrawnLine(signature.value)
    ? store.refusal('signed', signed())
    : {
        why: signature.value
          ? 'The signature is too small to be seen on paper.'
          : 'The signature is missing.',
        remedy: 'Draw it in the box.',
      }
  return refusal.value === null
}

async function attempt(sign: () => Promise<unknown>) {
  if (!ready()) return
  busy.value = true
  try {
    await sign()
    if (!refusal.value) forget()
  } catch (error) {
    if (error instanceof WrongPin) message.value = error.message
    else if (error instanceof ApiProblem) problem.value = error
    else throw error
  } finally {
    busy.value = false
  }
}
const signWithPin = (pin: string) =>
  attempt(async () => {
    refusal.value = await store.signByKey(signed(), (text) => keys.sign(pin, text))
  })
function signWithPassword() {
  if (!password.value) {
    ready()
    message.value = 'The password is missing: confirm with it.'
    return
  }
  return attempt(async () => {
    const given = password.value
    // Without a line it is typed again: it is kept nowhere.
    password.value = ''
    await store.sign(signed(), given)
  })
}
</script>

<template>
  <form novalidate @submit.prevent="signWithPassword">
    <p class="form-label">Signature of {{ session.person?.name }}</p>
    <SignaturePad v-model="signature" />
    <PinField
      v-if="withPin"
      class="mt-3"
      :busy="busy"
      :label="`${action}: the PIN of this device`"
      @pin="signWithPin"
    />
    <EntryField
      v-else
      v-model="password"
      class="password mt-3"
      label="Password"
      kind="password"
      autocomplete="current-password"
    />
    <ProblemNote :problem="problem" :message="message" :refusal="refusal" />
    <p v-if="!online" class="soft mt-2">
      <template v-if="withPin"
        >There is no line: the visit is closed on this device, and its document is issued when the
        signature arrives.</template
      >
      <template v-else
        >There is no line, and this device has no PIN of yours: what you drew is kept here until
        there is one. With a line, set a PIN under your name.</template
      >
    </p>
    <div class="actions mt-3">
      <BButton
        v-if="!withPin"
        type="submit"
        :variant="passed ? 'primary' : 'outline-primary'"
        size="lg"
        :disabled="busy"
      >
        {{ action }}
      </BButton>
      <BButton v-if="keys.own()" variant="link" @click="byPassword = !byPassword">{{
        withPin ? 'With the password' : 'With the PIN'
      }}</BButton>
      <span class="soft small">Dated {{ dateWords(session.today) }}</span>
    </div>
  </form>
</template>

<style scoped>
.password {
  max-width: 24rem;
}
</style>
