<script setup lang="ts">
import { api, bodyOf, type NewSecondFactor } from '@uvanta/contract'
import { computed, ref, shallowRef } from 'vue'
import type * as yup from 'yup'
import { call } from '@/api/client'
import { qrPicture } from '@/composables/qrPicture'
import { useTrying } from '@/composables/useTrying'
import RecordForm from '@/parts/form/RecordForm.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import { useDeviceKey } from '@/stores/deviceKey'
import { saveToFile } from '@/stores/saveToFile'
import { useSession } from '@/stores/session'
import { codeField } from './codeField'
import { endedWords } from './endedWords'

/** A code of an authenticator beside the password: set up, confirmed by a first code, taken off. */
const session = useSession()
const begun = shallowRef<(NewSecondFactor & { picture: string }) | null>(null)
const recovery = shallowRef<readonly string[]>([])
const { busy, problem, trying } = useTrying()
const opened = ref(false)
const has = computed(() => session.person?.secondFactor ?? false)
const must = computed(() => session.person?.mustSetSecondFactor ?? false)

const beginning = bodyOf(api.session.beginSecondFactor)
const confirming = bodyOf(api.session.confirmSecondFactor)
const removing = bodyOf(api.session.removeSecondFactor)
const keys = useDeviceKey()
const ended = ref('')

const begin = (body: yup.InferType<typeof beginning>) =>
  trying(async () => {
    const made = await call(api.session.beginSecondFactor, { body })
    begun.value = { ...made, picture: await qrPicture(made.uri) }
  })
const confirm = (body: yup.InferType<typeof confirming>) =>
  trying(async () => {
    const keepDevice = keys.own()?.device
    const made = await call(api.session.confirmSecondFactor, {
      body: { ...body, ...(keepDevice ? { keepDevice } : {}) },
    })
    recovery.value = made.recovery
    ended.value = endedWords(made.ended)
    begun.value = null
  })
/** Only now the rest of the application opens: the recovery codes are shown once. */
const kept = () =>
  trying(async () => {
    await session.load()
    recovery.value = []
    opened.value = false
  })
const takeOff = (body: yup.InferType<typeof removing>) =>
  trying(async () => {
    await call(api.session.removeSecondFactor, { body })
    await session.load()
    opened.value = false
  })
function close() {
  begun.value = null
  opened.value = false
  problem.value = null
}
const save = () =>
  saveToFile('uvanta-recovery-codes.txt', `${recovery.value.join('\n')}\n`, 'text/plain')
/** In groups of four, as somebody types it. */
const grouped = (secret: string) => secret.replaceAll(/(.{4})/g, '$1 ').trim()
const passwordField = {
  name: 'password',
  label: 'Password',
  kind: 'password',
  autocomplete: 'current-password',
} as const
</script>

<template>
  <section class="section">
    <h2>Second factor</h2>
    <p v-if="must && !begun && recovery.length === 0" class="caution" role="status">
      Your role asks for a second factor. Set it up below: nothing else opens before.
    </p>
    <ProblemNote :message="problem?.message ?? ''" />
    <template v-if="recovery.length > 0">
      <p role="status">
        <StateMark state="pass" label="From now on a code is asked for at sign-in." />
      </p>
      <p v-if="ended" role="status">{{ ended }}</p>
      <p>
        Keep these where the authenticator is not: each signs you in once when the device is lost.
        They are not shown again.
      </p>
      <ul class="codes mono" aria-label="Recovery codes">
        <li v-for="c in recovery" :key="c">{{ c }}</li>
      </ul>
      <div class="actions">
        <BButton variant="primary" :disabled="busy" @click="kept">They are kept</BButton>
        <BButton variant="outline-primary" @click="save">Save to a file</BButton>
      </div>
    </template>
    <template v-else-if="begun">
      <div class="setting-up">
        <img :src="begun.picture" alt="The key as a QR code" width="200" height="200" />
        <div>
          <p>
            Take it up with an authenticator, by its camera or as a text, then type the 6 digits
            that it shows.
          </p>
          <p class="mono secret">{{ grouped(begun.secret) }}</p>
          <p><a :href="begun.uri">Open it in the authenticator of this device</a></p>
          <RecordForm
            :schema="confirming"
            :initial="{}"
            :fields="[codeField]"
            action="Confirm"
            :busy="busy"
            @submit="confirm"
            @cancel="close"
          />
        </div>
      </div>
    </template>
    <template v-else-if="has">
      <p>
        <StateMark state="pass" label="A code of your authenticator is asked for at sign-in." />
      </p>
      <RecordForm
        v-if="opened"
        :schema="removing"
        :initial="{}"
        :fields="[passwordField, codeField]"
        action="Remove"
        :busy="busy"
        @submit="takeOff"
        @cancel="close"
      />
      <BButton v-else variant="outline-primary" @click="opened = true">Remove</BButton>
    </template>
    <template v-else>
      <p>
        Whoever gets to know your password is still not you: a code of an authenticator on your
        telephone is asked for as well.
      </p>
      <RecordForm
        v-if="opened || must"
        :schema="beginning"
        :initial="{}"
        :fields="[passwordField]"
        action="Show the key"
        :busy="busy"
        @submit="begin"
        @cancel="close"
      />
      <BButton v-else variant="outline-primary" @click="opened = true">Set it up</BButton>
    </template>
  </section>
</template>

<style scoped>
.setting-up {
  display: flex;
  flex-wrap: wrap;
  gap: 1.5rem;
  align-items: flex-start;
  margin-top: 0.6rem;
}

.setting-up > div {
  flex: 1 1 18rem;
  max-width: 30rem;
}

img {
  border: 1px solid var(--rule-strong);
  background: #fff;
}

.secret {
  overflow-wrap: anywhere;
}

.codes {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(9rem, 1fr));
  gap: 0.25rem 1rem;
  max-width: 28rem;
  padding: 0.9rem 1rem;
  border: 1px solid var(--rule-strong);
  list-style: none;
  font-size: 1.125rem;
}
</style>
