<script setup lang="ts">
import type { VisitEvent } from '@uvanta/core/visit'
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { useTitle } from '@/composables/useTitle'
import { timeWords } from '@/composables/words'
import DialogSheet from '@/parts/DialogSheet.vue'
import EmptySheet from '@/parts/EmptySheet.vue'
import LinkButton from '@/parts/LinkButton.vue'
import TitleBlock from '@/parts/TitleBlock.vue'
import type { WaitingEntry } from '@/stores/device'
import { outbox } from '@/stores/outbox'
import { saveToFile } from '@/stores/saveToFile'
import { useSession } from '@/stores/session'
import { useVisit } from '@/stores/visit'
import { useWaiting, type WaitingVisit } from '@/stores/waiting'
import { eventWords } from '@/composables/eventWords'

/** Everything of the person signed in that has not reached the server: what it is, how old, and why. */
useTitle('Waiting entries')
const waiting = useWaiting()
const session = useSession()
const visit = useVisit()
const entries = shallowRef<readonly WaitingEntry[]>([])
const busy = ref(false)
/** The visit whose entries are about to be withdrawn. */
const withdrawing = shallowRef<WaitingVisit | null>(null)

async function read() {
  await waiting.refresh()
  entries.value = await outbox.of(session.person?.id ?? '')
}
onMounted(read)
// What is sent meanwhile goes from the list.
watch(
  () => waiting.visits,
  async () => (entries.value = await outbox.of(session.person?.id ?? '')),
)
async function send() {
  busy.value = true
  try {
    await visit.flush()
    await waiting.send()
    await read()
  } finally {
    busy.value = false
  }
}
const of = (v: WaitingVisit) => entries.value.filter((e) => e.visitId === v.visitId)
const words = ({ draft }: WaitingEntry) =>
  eventWords({ personId: '', personName: '', ...draft } as VisitEvent) ?? 'A step of the test'
const save = (rows: readonly WaitingEntry[]) =>
  saveToFile('uvanta-waiting-entries.json', JSON.stringify(rows, null, 2))
/** Nothing goes without a copy of it. */
async function withdraw() {
  const rows = withdrawing.value ? of(withdrawing.value) : []
  withdrawing.value = null
  save(rows)
  await outbox.forget(rows.map((e) => e.id))
  visit.close()
  await read()
}
const oldest = computed(() => entries.value[0]?.draft.deviceTime)
</script>

<template>
  <div>
    <TitleBlock
      title="Waiting entries"
      subtitle="Recorded on this device, not on the server yet"
      :cells="[
        { label: 'Entries', value: String(entries.length), mono: true },
        { label: 'Visits', value: String(waiting.visits.length), mono: true },
        { label: 'Oldest', value: oldest ? timeWords(oldest) : '–' },
      ]"
    />
    <EmptySheet v-if="entries.length === 0" title="Nothing waits">
      Everything that you recorded on this device has reached the server.
    </EmptySheet>
    <template v-else>
      <p class="soft mt-3">
        They are sent by themselves as soon as there is a line, oldest visit first, under your name
        alone.
      </p>
      <div class="actions">
        <BButton variant="primary" :disabled="busy" @click="send">Send now</BButton>
        <BButton variant="outline-primary" @click="save(entries)">Save them to a file</BButton>
      </div>
      <section v-for="v in waiting.visits" :key="v.visitId" class="section">
        <h2>
          {{ v.tag }} <span class="soft">· {{ v.count }} since {{ timeWords(v.since) }}</span>
        </h2>
        <p v-if="v.says" class="caution">
          The server does not take them: <strong>{{ v.says }}</strong> Open the visit to mend it;
          what cannot be mended is withdrawn, with a copy.
        </p>
        <ol class="rows">
          <li v-for="e in of(v)" :key="e.id" class="entry">
            <span class="mono small">{{ timeWords(e.draft.deviceTime) }}</span>
            <span>{{ words(e) }}</span>
          </li>
        </ol>
        <div class="actions mt-2">
          <LinkButton :to="{ name: 'visit', params: { id: v.visitId } }"
            >Open {{ v.tag }}</LinkButton
          >
          <BButton v-if="v.says" variant="outline-danger" @click="withdrawing = v"
            >Withdraw them</BButton
          >
        </div>
      </section>
    </template>
    <DialogSheet
      :model-value="withdrawing !== null"
      title="Withdraw what waits"
      no-footer
      @update:model-value="withdrawing = null"
    >
      <p>
        {{ withdrawing?.count }} entries of {{ withdrawing?.tag }} are taken off this device and do
        not reach the server. A file with them is saved first.
      </p>
      <div class="actions">
        <BButton variant="primary" @click="withdrawing = null">Keep them</BButton>
        <BButton variant="outline-danger" @click="withdraw">Save a file and withdraw</BButton>
      </div>
    </DialogSheet>
  </div>
</template>

<style scoped>
.entry {
  display: grid;
  grid-template-columns: 11rem minmax(0, 1fr);
  gap: 0.25rem 1rem;
  padding: 0.4rem 0;
  overflow-wrap: anywhere;
}

@media (max-width: 43.75em) {
  .entry {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
