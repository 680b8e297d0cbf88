<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import { ApiProblem } from '@/api/client'
import EntryField from '@/parts/form/EntryField.vue'
import PinField from '@/parts/form/PinField.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useDeviceKey, WrongPin } from '@/stores/deviceKey'
import { type LockReason, useLock } from '@/stores/lock'
import { useSession } from '@/stores/session'

/** Over everything while the device is locked: what was open and typed stays behind it. */
const lock = useLock()
const session = useSession()
const keys = useDeviceKey()
const router = useRouter()
const kept = computed(() => keys.own())
const byPassword = ref(false)
const password = ref('')
const code = ref('')
const coded = computed(() => session.person?.secondFactor ?? false)
const message = ref('')
const busy = ref(false)
const withPin = computed(() => kept.value !== undefined && !byPassword.value)
const titles: Readonly<Record<LockReason, string>> = {
  hand: 'Locked',
  idle: 'Locked: nobody touched it for a quarter of an hour',
  start: 'Who is there?',
  ended: 'Your session has ended',
}
const form = useTemplateRef<HTMLFormElement>('form')
onMounted(() => void nextTick(() => form.value?.querySelector('input')?.focus()))

async function attempt(open: () => Promise<void>) {
  message.value = ''
  busy.value = true
  try {
    await open()
  } catch (error) {
    if (!(error instanceof ApiProblem || error instanceof WrongPin)) throw error
    message.value = error.message
  } finally {
    password.value = ''
    code.value = ''
    busy.value = false
  }
}
const openWithPin = (pin: string) =>
  attempt(async () => {
    if (kept.value) await lock.openWithPin(kept.value, pin)
  })
const openWithPassword = () =>
  attempt(() =>
    lock.openWithPassword(session.person?.username ?? '', password.value, code.value.trim()),
  )
async function somebodyElse() {
  lock.leaveTo()
  await router.push({ name: 'sign-in' })
}
</script>

<template>
  <div class="lock" role="dialog" aria-modal="true" aria-labelledby="lock-title">
    <form ref="form" class="sheet" novalidate @submit.prevent="openWithPassword">
      <h1 id="lock-title">{{ lock.reason ? titles[lock.reason] : '' }}</h1>
      <p>
        <strong>{{ session.person?.name }}</strong>
        <span class="soft"> – what is open and what you typed is still here.</span>
      </p>
      <ProblemNote :message="message" />
      <PinField v-if="withPin" :busy="busy" @pin="openWithPin" />
      <template v-else>
        <EntryField
          v-model="password"
          label="Password"
          kind="password"
          autocomplete="current-password"
        />
        <EntryField
          v-if="coded"
          v-model="code"
          label="Code of your authenticator"
          mono
          autocomplete="one-time-code"
        />
        <BButton type="submit" variant="primary" size="lg" :disabled="busy || !password"
          >Go on</BButton
        >
      </template>
      <div class="others">
        <BButton v-if="kept" variant="link" @click="byPassword = !byPassword">{{
          withPin ? 'With the password' : 'With the PIN'
        }}</BButton>
        <BButton variant="link" @click="somebodyElse">Somebody else</BButton>
      </div>
    </form>
  </div>
</template>

<style scoped>
.lock {
  position: fixed;
  inset: 0;
  z-index: 1090;
  display: grid;
  place-items: center;
  padding: 1rem;
  background: var(--paper);
  overflow: auto;
}

.sheet {
  width: min(26rem, 100%);
  border: 2px solid var(--rule-strong);
  background: var(--paper-raised);
  padding: 1.75rem;
  display: grid;
  gap: 1rem;
}

h1 {
  font-size: 1.5rem;
  margin: 0;
}

p {
  margin: 0;
}

.others {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
}
</style>
