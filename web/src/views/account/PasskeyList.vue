<script setup lang="ts">
import type { Passkey } from '@uvanta/contract'
import { api } from 'virtual:api'
import { line, prose, strictObject } from '@uvanta/core/schema'
import { onMounted, ref, shallowRef } from 'vue'
import { call } from '@/api/client'
import { canHavePasskeys } from '@/composables/canHavePasskeys'
import { NotProved } from '@/composables/notProved'
import { makePasskey } from '@/composables/passkey'
import { useTrying } from '@/composables/useTrying'
import { timeWords } from '@/composables/words'
import RecordForm from '@/parts/form/RecordForm.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useSession } from '@/stores/session'
import { codeField } from './codeField'

/** The own passkeys: signing in with a finger, a face or the PIN of a device instead of password and code. */
const passkeys = shallowRef<readonly Passkey[]>([])
const { busy, problem, trying } = useTrying()
const possible = canHavePasskeys()
const opened = ref(false)
const put = ref('')
const session = useSession()
const schema = strictObject({
  label: line(80).required(),
  password: prose(200).required(),
  code: line(20),
})

const load = () =>
  trying(async () => {
    passkeys.value = (await call(api.passkeys.list)).items
  })
onMounted(load)
const add = ({ label, ...proof }: { label: string; password: string; code?: string | undefined }) =>
  trying(async () => {
    put.value = ''
    try {
      passkeys.value = await makePasskey(label, proof)
      opened.value = false
    } catch (error) {
      if (!(error instanceof NotProved)) throw error
      put.value = error.message
    }
  })
async function takeOff(id: string) {
  if (await trying(() => call(api.passkeys.remove, { params: { id } }))) await load()
}
</script>

<template>
  <section class="section" aria-labelledby="passkeys-title">
    <h2 id="passkeys-title">Passkeys</h2>
    <p class="soft">
      With a passkey you sign in by finger, face or the PIN of a device, without password and code.
      <template v-if="!possible"
        >This browser, or this address, has none: the address has to be a name.</template
      >
    </p>
    <ProblemNote :message="problem?.message ?? put" />
    <ul v-if="passkeys.length > 0" class="rows">
      <li v-for="k in passkeys" :key="k.id" class="own-line">
        <strong>{{ k.label }}</strong>
        <span class="soft"
          >since {{ timeWords(k.createdAt) }},
          {{ k.lastUsedAt ? `used ${timeWords(k.lastUsedAt)}` : 'not used yet' }}</span
        >
        <BButton
          variant="outline-danger"
          :disabled="busy"
          :aria-label="`Take ${k.label} off`"
          @click="takeOff(k.id)"
          >Take off</BButton
        >
      </li>
    </ul>
    <RecordForm
      v-if="opened"
      :schema="schema"
      :initial="{}"
      :fields="[
        { name: 'label', label: 'What it is in', hint: 'For instance: my telephone.' },
        {
          name: 'password',
          label: 'Password',
          kind: 'password',
          autocomplete: 'current-password',
        },
        ...(session.person?.secondFactor ? [codeField] : []),
      ]"
      action="Set the passkey up"
      :busy="busy"
      @submit="add"
      @cancel="opened = false"
    />
    <BButton v-else-if="possible" class="mt-3" variant="outline-primary" @click="opened = true"
      >Set a passkey up</BButton
    >
  </section>
</template>
