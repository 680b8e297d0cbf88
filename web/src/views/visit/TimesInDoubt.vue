<script setup lang="ts">
import { type Notice, timesToAttest } from '@uvanta/core/visit'
import { computed, shallowRef } from 'vue'
import ReasonForm from '@/parts/form/ReasonForm.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useSession } from '@/stores/session'
import { useVisit } from '@/stores/visit'

/** What of the times of a visit keeps it from being signed, and its release by whoever answers for it. */
const store = useVisit()
const session = useSession()
const refusal = shallowRef<Notice | null>(null)

const words = {
  clock: {
    says: 'The clock of the device was more than 12 hours off when it last sent.',
    technician:
      'Set the clock of the device and record one more entry, as a note. Or ask an administrator to attest the times.',
    role: 'administrator',
    label: 'How you know when the work was done',
  },
  validity: {
    says: 'License or calibration covered the day of the test, and had ended when the entries arrived.',
    technician: 'A reviewer releases the times before this visit can be signed.',
    role: 'reviewer',
    label: 'How you know that the test was made while both were valid',
  },
} as const
const open = computed(() =>
  timesToAttest(store.state).map((what) => ({
    what,
    ...words[what],
    mine: !store.mine && session.has(words[what].role),
  })),
)

function release(what: keyof typeof words, why: string) {
  refusal.value = store.record('times-attested', { what, why })
}
</script>

<template>
  <section v-if="open.length > 0" class="section no-print mb-4" aria-labelledby="times-title">
    <h2 id="times-title">Times in doubt</h2>
    <template v-for="o in open" :key="o.what">
      <p class="caution mb-3">{{ o.says }}</p>
      <ReasonForm
        v-if="o.mine"
        :label="o.label"
        action="Release the times"
        @given="release(o.what, $event)"
      >
        <ProblemNote :refusal="refusal" />
      </ReasonForm>
      <p v-else>{{ o.technician }}</p>
    </template>
  </section>
</template>
