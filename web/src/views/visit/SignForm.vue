<script setup lang="ts">
import { passes } from '@uvanta/core/rules'
import type { PayloadOf } from '@uvanta/core/visit'
import { prose } from '@uvanta/core/schema'
import { useField } from 'vee-validate'
import { ref, shallowRef } from 'vue'
import { object } from 'yup'
import { ApiProblem } from '@/api/client'
import { dateWords } from '@/composables/words'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useSession } from '@/stores/session'
import { useVisit } from '@/stores/visit'
import SignaturePad from './SignaturePad.vue'

/** Drawn signature and password: the visit is closed with the verdict as it was read. */
const props = defineProps<{ outcome: PayloadOf<'signed'>['outcome']; certified: boolean }>()
const store = useVisit()
const session = useSession()
const busy = ref(false)
const problem = shallowRef<ApiProblem | null>(null)
const message = ref('')
const passed = () => passes(props.outcome)

const { submit, set } = useEntry(
  object({
    signature: prose(40_000).required('is missing: draw it in the box'),
    password: prose(200).required('is missing: confirm with it'),
  }),
  {},
  sign,
)
const { value: signature, errorMessage: unsigned } = useField<string>('signature')

async function sign(entered: { signature: string; password: string }) {
  problem.value = null
  message.value = ''
  const payload = {
    signature: entered.signature,
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
    await store.sign(payload, entered.password)
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error
  } finally {
    set('password', '', false)
    busy.value = false
  }
}
</script>

<template>
  <form novalidate @submit.prevent="submit">
    <p class="form-label">Signature of {{ session.person?.name }}</p>
    <SignaturePad v-model="signature" />
    <p v-if="unsigned" class="fault">Signature {{ unsigned }}.</p>
    <EntryField
      name="password"
      class="password mt-3"
      label="Password"
      kind="password"
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
              : 'Sign and issue the report'
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
