<script setup lang="ts">
import { passes } from '@uvanta/core/rules'
import type { PayloadOf } from '@uvanta/core/visit'
import { ref, shallowRef } from 'vue'
import { ApiProblem } from '@/api/client'
import { dateWords } from '@/composables/words'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useSession } from '@/stores/session'
import { useVisit } from '@/stores/visit'
import SignaturePad from './SignaturePad.vue'

/** Drawn signature and password: the visit is closed with the verdict as it was read. */
const props = defineProps<{ outcome: PayloadOf<'signed'>['outcome']; certified: boolean }>()
const store = useVisit()
const session = useSession()
const signature = ref('')
const password = ref('')
const busy = ref(false)
const problem = shallowRef<ApiProblem | null>(null)
const message = ref('')
const passed = () => passes(props.outcome)

async function sign() {
  problem.value = null
  message.value = ''
  if (!signature.value) message.value = 'Draw your signature in the box.'
  else if (!password.value) message.value = 'Confirm with your password.'
  if (message.value) return
  const payload = {
    signature: signature.value,
    name: session.person?.name ?? '',
    outcome: props.outcome,
  }
  const refused = store.refusal('signed', payload)
  if (refused) {
    message.value = `${refused.why} ${refused.remedy}`
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
</script>

<template>
  <form novalidate @submit.prevent="sign">
    <p class="form-label">Signature of {{ session.person?.name }}</p>
    <SignaturePad v-model="signature" />
    <label class="form-label mt-3" for="sign-password">Password</label>
    <BFormInput
      id="sign-password"
      v-model="password"
      class="password"
      type="password"
      autocomplete="current-password"
    />
    <ProblemNote :problem="problem" :message="message" />
    <div class="actions mt-3">
      <BButton
        type="submit"
        :variant="passed() ? 'primary' : 'outline-primary'"
        size="lg"
        :disabled="busy"
      >
        {{
          passed()
            ? certified
              ? 'Sign and issue the certificate'
              : 'Sign and close'
            : 'Sign the failure'
        }}
      </BButton>
      <span class="soft small">Dated {{ dateWords(session.today) }}</span>
    </div>
  </form>
</template>

<style scoped>
.password {
  max-width: 24rem;
}
</style>
