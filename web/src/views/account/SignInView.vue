<script setup lang="ts">
import { line } from '@uvanta/core/schema'
import { nextTick, onMounted, ref, shallowRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { object, string } from 'yup'
import { ApiProblem } from '@/api/client'
import { canHavePasskeys } from '@/composables/canHavePasskeys'
import { NotProved } from '@/composables/notProved'
import { useTitle } from '@/composables/useTitle'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'
import PinField from '@/parts/form/PinField.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import VisitLine from '@/parts/VisitLine.vue'
import type { KeptKey } from '@/stores/device'
import { useDeviceKey, WrongPin } from '@/stores/deviceKey'
import { useLock } from '@/stores/lock'

useTitle('Sign in')
const lock = useLock()
const router = useRouter()
const route = useRoute()
const busy = ref(false)
const message = ref('')

/** The password was right, and a code is asked for as well. */
const coded = ref(false)
const { submit } = useEntry(
  object({
    username: line(80).required('is missing'),
    password: string().required('is missing'),
    code: string().max(20),
  }),
  {},
  ({ username, password, code }) =>
    attempt(() => lock.openWithPassword(username.trim().toLowerCase(), password, code?.trim())),
)
const keys = useDeviceKey()
const chosen = shallowRef<KeptKey | null>(null)
onMounted(() => keys.refresh())
const enter = (pin: string) =>
  attempt(async () => {
    if (chosen.value) await lock.openWithPin(chosen.value, pin)
  })

async function attempt(open: () => Promise<void>) {
  message.value = ''
  busy.value = true
  try {
    await open()
    const { to } = route.query
    await router.replace(typeof to === 'string' && /^\/(?!\/)/.test(to) ? to : '/')
  } catch (error) {
    if (!(error instanceof ApiProblem || error instanceof WrongPin || error instanceof NotProved))
      throw error
    // The first time nothing is wrong: the field for it appears.
    const asked = error instanceof ApiProblem && error.code === 'second-factor' && !coded.value
    coded.value = coded.value || asked
    message.value = asked ? '' : error.message
    if (asked) void nextTick(() => document.querySelector<HTMLElement>('.code input')?.focus())
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="sign-in">
    <div class="sheet">
      <div class="drawing" aria-hidden="true">
        <VisitLine :done="['prepare', 'arrive']" :skipped="[]" small />
      </div>
      <h1>Uvanta</h1>
      <p class="soft">Service visits for gas and water equipment: measured, judged, signed.</p>
      <ProblemNote :message="message" />
      <form novalidate @submit.prevent="submit">
        <EntryField
          name="username"
          label="Name"
          autocomplete="username"
          autocapitalize="none"
          spellcheck="false"
          autofocus
        />
        <EntryField
          name="password"
          label="Password"
          kind="password"
          autocomplete="current-password"
        />
        <EntryField
          v-if="coded"
          name="code"
          class="code"
          label="Code of your authenticator, or a recovery code"
          mono
          autocomplete="one-time-code"
        />
        <BButton type="submit" variant="primary" size="lg" :disabled="busy">Sign in</BButton>
        <BButton
          v-if="canHavePasskeys()"
          variant="outline-primary"
          size="lg"
          :disabled="busy"
          @click="attempt(lock.openWithPasskey)"
          >With a passkey</BButton
        >
      </form>
      <section v-if="keys.kept.length > 0" class="here" aria-labelledby="here-title">
        <h2 id="here-title">With a PIN of this device</h2>
        <div class="people">
          <BButton
            v-for="k in keys.kept"
            :key="k.personId"
            :variant="k === chosen ? 'primary' : 'outline-primary'"
            @click="chosen = k"
            >{{ k.person.name }}</BButton
          >
        </div>
        <PinField v-if="chosen" :key="chosen.personId" class="mt-3" :busy="busy" @pin="enter" />
      </section>
      <p class="foot soft small">
        <RouterLink :to="{ name: 'verify' }">Check a certificate</RouterLink> – no account needed
      </p>
    </div>
  </div>
</template>

<style scoped>
.sign-in {
  display: grid;
  place-items: center;
  min-height: 88vh;
}

.sheet {
  width: min(30rem, 100%);
  border: 2px solid var(--rule-strong);
  background: var(--paper-raised);
  padding: 1.75rem;
}

.drawing {
  border-bottom: 1px solid var(--rule);
  margin: -0.5rem 0 1.25rem;
  padding-bottom: 1rem;
}

.drawing :deep(.small-line) {
  width: 100%;
  height: 52px;
}

h1 {
  font-size: 2.25rem;
}

form {
  display: grid;
  gap: 1.1rem;
}

.here {
  margin-top: 1.5rem;
  padding-top: 1rem;
  border-top: 1px solid var(--rule);
}

.here h2 {
  font-size: 1.0625rem;
}

.people {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}

.foot {
  margin: 1.25rem 0 0;
}
</style>
