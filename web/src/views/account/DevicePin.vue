<script setup lang="ts">
import type { Device } from '@uvanta/contract'
import { api } from 'virtual:api'
import { computed, onMounted, ref, shallowRef } from 'vue'
import { object, string } from 'yup'
import { call } from '@/api/client'
import { useTrying } from '@/composables/useTrying'
import { timeWords } from '@/composables/words'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'
import ProblemNote from '@/parts/ProblemNote.vue'
import StateMark from '@/parts/StateMark.vue'
import { useDeviceKey } from '@/stores/deviceKey'
import { useSession } from '@/stores/session'

/** The PIN of this device, with which visits are signed without a line, and the devices that may. */
const keys = useDeviceKey()
const session = useSession()
const devices = shallowRef<readonly Device[]>([])
/** Those that were revoked are many after some years, and seldom asked for. */
const whole = ref(false)
const shown = computed(() =>
  whole.value ? devices.value : devices.value.filter((d) => !d.revokedAt),
)
const { busy, problem, trying } = useTrying()
const own = computed(() => keys.own())

async function load() {
  devices.value = (await call(api.devices.list)).items
}
const does = (work: () => Promise<unknown>) =>
  trying(async () => {
    await work()
    await load()
  })
onMounted(() => does(() => keys.refresh()))

/** Six alike, and rows up and down. */
const EASY = /^(\d)\1{5}$|012345|123456|234567|345678|456789|987654|876543|765432|654321|543210/
const { submit, reset } = useEntry(
  object({
    pin: string()
      .required('is missing')
      .matches(/^\d{6}$/, 'must be six digits')
      .test('guessed', 'is guessed at once: no row, no six alike', (v) => !v || !EASY.test(v)),
    again: string()
      .required('is missing')
      .test(
        'same',
        'is another: type both alike',
        (v, { parent }) => v === (parent as { pin?: string }).pin,
      ),
    password: string().required('is missing: confirm with it'),
    code: string(),
  }),
  {},
  async ({ pin, password, code }) => {
    await does(() => keys.setUp({ password, ...(code ? { code } : {}) }, pin))
    reset()
  },
)
const revoke = (d: Device) =>
  does(() =>
    d.id === own.value?.device ? keys.remove() : call(api.devices.revoke, { params: { id: d.id } }),
  )
</script>

<template>
  <section class="section" aria-labelledby="pin-title">
    <h2 id="pin-title">Signing without a line</h2>
    <p v-if="own">
      <StateMark state="pass" label="This device has a PIN of yours." />
      You sign with it where there is no line, and unlock the screen.
    </p>
    <form v-else novalidate class="set" @submit.prevent="submit">
      <p class="soft">
        A PIN of six digits opens a key that never leaves this device. With it you sign visits in a
        pit, and unlock the screen. The password itself is not kept.
      </p>
      <div class="fields">
        <EntryField
          name="pin"
          label="New PIN"
          kind="password"
          inputmode="numeric"
          autocomplete="off"
          maxlength="6"
        />
        <EntryField
          name="again"
          label="The same again"
          kind="password"
          inputmode="numeric"
          autocomplete="off"
          maxlength="6"
        />
        <EntryField
          name="password"
          label="Password"
          kind="password"
          autocomplete="current-password"
        />
        <EntryField
          v-if="session.person?.secondFactor"
          name="code"
          label="Code of your authenticator"
          inputmode="numeric"
          autocomplete="one-time-code"
          mono
        />
      </div>
      <BButton type="submit" variant="primary" :disabled="busy">Set the PIN</BButton>
    </form>
    <ProblemNote :problem="problem" @retry="does(() => keys.refresh())" />
    <ul v-if="shown.length > 0" class="rows mt-3" aria-label="Devices">
      <li v-for="d in shown" :key="d.id" class="device">
        <StateMark
          :state="d.revokedAt ? 'open' : 'pass'"
          :label="d.id === own?.device ? `${d.label} (this one)` : d.label"
        />
        <span class="soft">{{
          d.revokedAt
            ? `revoked ${timeWords(d.revokedAt)} by ${d.revokedBy}`
            : `since ${timeWords(d.registeredAt)}`
        }}</span>
        <BButton
          v-if="!d.revokedAt"
          variant="outline-danger"
          size="sm"
          :disabled="busy"
          :aria-label="`Revoke ${d.label}`"
          @click="revoke(d)"
          >Revoke</BButton
        >
      </li>
    </ul>
    <BButton v-if="shown.length < devices.length" variant="link" @click="whole = true"
      >And {{ devices.length - shown.length }} that were revoked</BButton
    >
  </section>
</template>

<style scoped>
.set {
  display: grid;
  gap: 1rem;
  justify-items: start;
}

.set p {
  margin: 0;
  max-width: 44rem;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(12rem, 1fr));
  gap: 1rem;
  width: min(44rem, 100%);
}

.device {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.5rem 1rem;
  align-items: center;
  padding: 0.5rem 0;
}
</style>
