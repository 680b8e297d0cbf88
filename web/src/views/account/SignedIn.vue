<script setup lang="ts">
import type { SessionLine } from '@uvanta/contract'
import { api } from 'virtual:api'
import { computed, onMounted, ref, shallowRef } from 'vue'
import { call } from '@/api/client'
import { useTrying } from '@/composables/useTrying'
import { timeWords } from '@/composables/words'
import ProblemNote from '@/parts/ProblemNote.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { useDeviceKey } from '@/stores/deviceKey'
import { endedWords } from './endedWords'

/** Where the own name is signed in, and how it is signed out there: a lost telephone, a shared desk. */
const lines = shallowRef<readonly SessionLine[] | null>(null)
const { problem, trying } = useTrying()
const keys = useDeviceKey()
const ended = ref('')
const FIRST = 6
const whole = ref(false)
const shown = computed(() => (whole.value ? lines.value : lines.value?.slice(0, FIRST)))

async function load() {
  await trying(async () => {
    lines.value = (await call(api.session.list)).items
  })
}
async function end(id: string) {
  if (await trying(() => call(api.session.end, { params: { id } }))) await load()
}
async function endOthers() {
  const keepDevice = keys.own()?.device
  const query = keepDevice ? { keepDevice } : {}
  const done = await trying(async () => {
    const { ended: gone } = await call(api.session.endOthers, { query })
    ended.value = endedWords(gone)
  })
  if (done) await load()
}
onMounted(load)
</script>

<template>
  <section class="section">
    <h2>Signed in</h2>
    <ProblemNote :problem="problem" @retry="load" />
    <WaitingLine v-if="!lines && !problem" what="where you are signed in" />
    <ul v-else-if="lines" class="rows">
      <li v-for="l in shown" :key="l.id" class="own-line">
        <strong>{{ l.device }}</strong>
        <span class="soft">since {{ timeWords(l.begunAt) }}, used {{ timeWords(l.usedAt) }}</span>
        <span v-if="l.here" class="soft">this one</span>
        <BButton v-else variant="link" @click="end(l.id)">Sign out there</BButton>
      </li>
    </ul>
    <BButton v-if="lines && lines.length > FIRST && !whole" variant="link" @click="whole = true"
      >All {{ lines.length }}</BButton
    >
    <p v-if="ended" role="status">{{ ended }}</p>
    <p class="soft">
      Signing out everywhere else also ends your passkeys and the keys of your other devices.
    </p>
    <BButton variant="outline-primary" @click="endOthers">Sign out everywhere else</BButton>
  </section>
</template>
