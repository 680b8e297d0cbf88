<script setup lang="ts">
import { api, bodyOf, licenceKinds } from '@uvanta/contract'
import { computed, ref } from 'vue'
import type * as yup from 'yup'
import { ApiProblem, call } from '@/api/client'
import { useSingleKeys } from '@/composables/useKeys'
import { useTitle } from '@/composables/useTitle'
import { dateWords } from '@/composables/words'
import ProblemNote from '@/parts/ProblemNote.vue'
import RecordForm from '@/parts/form/RecordForm.vue'
import StateMark from '@/parts/StateMark.vue'
import TitleBlock from '@/parts/TitleBlock.vue'
import { useDeviceKey } from '@/stores/deviceKey'
import { useSession } from '@/stores/session'
import { useRouter } from 'vue-router'
import DevicePin from './DevicePin.vue'
import { endedWords } from './endedWords'
import OwnUnits from './OwnUnits.vue'
import PasskeyList from './PasskeyList.vue'
import SecondFactor from './SecondFactor.vue'
import SignedIn from './SignedIn.vue'

useTitle('Password and licences')
const session = useSession()
const singleKeys = useSingleKeys()
const router = useRouter()
const message = ref('')
const done = ref(false)
const keys = useDeviceKey()
const ended = ref('')
const attempt = ref(0)

const given = computed(() => session.person?.mustChangePassword ?? false)
/** Nothing but the own sign-in is to be seen to. */
const shut = computed(() => given.value || (session.person?.mustSetSecondFactor ?? false))
const body = bodyOf(api.session.changePassword)
async function change(given: yup.InferType<typeof body>) {
  message.value = ''
  done.value = false
  try {
    const keepDevice = keys.own()?.device
    const { ended: gone } = await call(api.session.changePassword, {
      body: { ...given, ...(keepDevice ? { keepDevice } : {}) },
    })
    ended.value = endedWords(gone)
    await session.load()
    done.value = true
    attempt.value++
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    message.value = error.message
  }
}
</script>

<template>
  <div v-if="session.person">
    <TitleBlock
      :title="session.person.name"
      :cells="[
        { label: 'Sign-in name', value: session.person.username, mono: true },
        { label: 'Role', value: session.person.roles.join(', ') },
      ]"
    />
    <p v-if="given" class="caution" role="status">
      Your password was chosen by somebody else. Choose your own below: nothing else opens before.
    </p>
    <SecondFactor v-if="!given && shut" />
    <section v-if="!shut" class="section">
      <h2>Licences</h2>
      <ul v-if="session.person.licences.length > 0" class="rows">
        <li v-for="l in session.person.licences" :key="l.id" class="licence">
          <StateMark
            :state="l.expiresOn < session.today ? 'failed' : 'pass'"
            :label="licenceKinds[l.kind as keyof typeof licenceKinds] ?? l.kind"
          />
          <span class="mono">{{ l.number }}</span>
          <span
            >{{ l.expiresOn < session.today ? 'expired' : 'valid to' }}
            {{ dateWords(l.expiresOn) }}</span
          >
        </li>
      </ul>
      <p v-else class="soft">None entered. The administrator enters them.</p>
    </section>
    <DevicePin v-if="session.has('technician') && !shut" />
    <SecondFactor v-if="!shut" />
    <PasskeyList v-if="!shut" />
    <SignedIn v-if="!shut" />
    <OwnUnits v-if="!shut" />
    <section v-if="!shut" class="section">
      <h2>Keys</h2>
      <BFormCheckbox v-model="singleKeys" switch
        >Single keys do something, as / for the search and ? for what there is</BFormCheckbox
      >
      <p class="soft">On this device. Off is better with speech input.</p>
    </section>
    <section v-if="given || !shut" class="section">
      <h2>Change the password</h2>
      <p v-if="done" role="status">
        <StateMark state="pass" label="The new password is in force." />
      </p>
      <ProblemNote :message="message" />
      <RecordForm
        :key="attempt"
        :schema="body"
        :initial="{}"
        :fields="[
          {
            name: 'current',
            label: 'Present password',
            kind: 'password',
            autocomplete: 'current-password',
          },
          {
            name: 'next',
            label: 'New password',
            kind: 'password',
            autocomplete: 'new-password',
            hint: 'At least 12 characters.',
          },
        ]"
        action="Change the password"
        @submit="change"
        @cancel="router.back()"
      />
    </section>
  </div>
</template>

<style scoped>
.licence {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(10rem, 1fr));
  gap: 0.5rem;
  padding: 0.7rem 0;
}
</style>
