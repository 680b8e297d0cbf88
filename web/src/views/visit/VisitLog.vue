<script setup lang="ts">
import { type ClockDoubt, traitsOf, type VisitEvent } from '@uvanta/core/visit'
import { computed, ref, shallowRef } from 'vue'
import { clockWords } from '@/composables/words'
import { useSession } from '@/stores/session'
import { useVisit } from '@/stores/visit'
import { useLogEntries } from './bench/useLogEntries'
import CorrectDialog from './CorrectDialog.vue'

/** The visit's log as it was written; corrected entries stay, struck through. */
const store = useVisit()
const session = useSession()
const correcting = shallowRef<VisitEvent | null>(null)
const dialog = ref(false)
const inOrder = useLogEntries()
const entries = computed(() => [...inOrder.value].reverse())
/** The newest are what a technician looks for; the record on paper has all. */
const NEWEST = 12
const all = ref(false)
const shown = computed(() => (all.value ? entries.value : entries.value.slice(0, NEWEST)))
const mayCorrect = computed(() => store.mine || session.has('reviewer', 'planner', 'technician'))
const doubtWords: Readonly<Record<ClockDoubt, string>> = {
  'clock-far-off': 'clock of the device more than 12 hours off',
  'expired-on-arrival': 'license or calibration had ended when it arrived',
  'before-planned': 'time of the device, before the visit was planned',
  'far-from-arrival': 'time of the device, far from when it arrived',
  'another-zone': 'clock of the device in another time zone',
  'clock-off': 'clock of the device more than 5 minutes off',
}

function correct(event: VisitEvent) {
  correcting.value = event
  dialog.value = true
}
</script>

<template>
  <section class="section" aria-labelledby="log-title">
    <h2 id="log-title">Log</h2>
    <ol class="rows log">
      <li v-for="{ event, words, correction, now, doubt, asked } in shown" :key="event.id">
        <span class="mono small time">{{ clockWords(event.deviceTime) }}</span>
        <span>
          <s v-if="correction">{{ words }}</s>
          <template v-else>{{ words }}</template>
          <template v-if="correction">
            <strong> {{ now ?? 'withdrawn' }}</strong>
            <span class="soft small"> – {{ correction.why }} ({{ correction.recordedBy }})</span>
          </template>
          <span v-if="doubt" class="apart doubt small">{{ doubtWords[doubt] }}</span>
          <strong v-if="asked" class="apart small"
            >correction asked for by {{ asked.recordedBy }}</strong
          >
        </span>
        <span class="soft small who">{{ event.seq ? event.personName : 'waits to be sent' }}</span>
        <BButton
          v-if="mayCorrect && traitsOf(event.kind).corrected !== 'never' && event.seq"
          size="sm"
          variant="link"
          :aria-label="`${store.mine ? 'Correct' : 'Ask to correct'}: ${words}`"
          @click="correct(event)"
          >{{ store.mine ? 'Correct' : 'Ask' }}</BButton
        >
        <span v-else />
      </li>
    </ol>
    <BButton v-if="!all && entries.length > NEWEST" variant="link" @click="all = true"
      >All {{ entries.length }} entries</BButton
    >
    <CorrectDialog v-model="dialog" :event="correcting" />
  </section>
</template>

<style scoped>
.apart {
  margin-left: 0.6rem;
}

.doubt {
  color: var(--ink-soft);
  border-bottom: 2px dashed var(--rule-strong);
}

.log li {
  display: grid;
  grid-template-columns: 5.2rem 1fr 9rem 6rem;
  gap: 0.75rem;
  align-items: center;
  min-height: 48px;
  padding: 0.15rem 0;
}

@media (max-width: 43.75em) {
  .log li {
    grid-template-columns: 5.2rem 1fr auto;
  }

  .who {
    display: none;
  }
}
</style>
