<script setup lang="ts">
import {
  traitsOf,
  correctionEffect,
  type PayloadOf,
  type Notice,
  stationTitles,
  type VisitEvent,
} from '@uvanta/core/visit'
import { prose } from '@uvanta/core/schema'
import { v7 as uuidv7 } from 'uuid'
import { computed, shallowRef, watch } from 'vue'
import { boolean, object } from 'yup'
import { useTrying } from '@/composables/useTrying'
import { outcomeWords } from '@/composables/words'
import DialogSheet from '@/parts/DialogSheet.vue'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'
import { eventWords } from '@/composables/eventWords'

/**
 * Corrects an entry: the old one stays in the log, struck through, with the reason. What that changes
 * is said before. On a signed visit the tester gives the password; everybody else asks the tester.
 */
const props = defineProps<{ event: VisitEvent | null }>()
const shown = defineModel<boolean>({ required: true })
const store = useVisit()
const library = useLibrary()
const refusal = shallowRef<Notice | null>(null)
const { busy, problem, trying } = useTrying()

/** The field of the payload that a person would mean. */
const FIELD: Partial<Record<VisitEvent['kind'], string>> = {
  note: 'text',
  repair: 'text',
  reading: 'value',
  'as-found-impossible': 'reason',
}
const field = computed(() => (props.event ? FIELD[props.event.kind] : undefined))
const asking = computed(() => !store.mine)
/** Verdict and certificate rest on it: the password stands for the hand that signed. */
const attested = computed(() =>
  Boolean(store.state.signed && props.event && traitsOf(props.event.kind).corrected === 'attested'),
)
const {
  values: form,
  submit,
  reset,
} = useEntry(
  object({
    /** What the entry should say; what of it fits, its own kind says. */
    value: prose(),
    withdraw: boolean().required(),
    why: prose(500).required('is missing: the reason stays on the record'),
    password: prose(200).test(
      'attested',
      'is missing: the visit is signed',
      (v) => !attested.value || asking.value || Boolean(v),
    ),
  }),
  { withdraw: false },
  save,
)
watch(shown, () => {
  const payload = (props.event?.payload ?? {}) as Record<string, string>
  const value = field.value ? payload[field.value] : undefined
  reset({ values: { value, withdraw: !field.value, why: undefined, password: undefined } })
  refusal.value = null
  problem.value = null
})

const correction = computed<PayloadOf<'correction'> | null>(() => {
  if (!props.event) return null
  const about = { of: props.event.id, why: form.why?.trim() ?? '' }
  if (form.withdraw) return { ...about, withdraw: true }
  const payload = { ...props.event.payload, [field.value ?? '']: form.value?.trim() ?? '' }
  return { ...about, withdraw: false, payload }
})
const changed = computed(() => {
  const payload = (props.event?.payload ?? {}) as Record<string, string>
  return form.withdraw || (field.value && (form.value?.trim() ?? '') !== payload[field.value])
})
/** How verdicts come out with it, while it is typed. */
const effect = computed(() => {
  if (!library.library || !correction.value || !changed.value || asking.value) return []
  try {
    return correctionEffect(
      store.events,
      {
        id: uuidv7(),
        kind: 'correction',
        payload: correction.value,
        deviceTime: new Date().toISOString(),
        deviceOffset: 0,
      },
      library.library,
    )
  } catch {
    // What is not a reading yet changes nothing that could be said.
    return []
  }
})
const outcome = (o: keyof typeof outcomeWords | null) => (o ? outcomeWords[o] : 'open')
const nameOf = (of: 'as-found' | 'as-left' | 'visit') =>
  of === 'visit' ? 'The visit' : (stationTitles[of].split(' ')[0] ?? of)

async function save() {
  problem.value = null
  if (!props.event || !correction.value) return
  const { of, why } = correction.value
  if (asking.value) refusal.value = store.record('correction-asked', { of, why })
  else if (attested.value) {
    if (!(await sendAttested(correction.value))) return
  } else refusal.value = store.record('correction', correction.value)
  if (!refusal.value) shown.value = false
}

const sendAttested = (payload: PayloadOf<'correction'>) =>
  trying(() => store.correctSigned(payload, form.password ?? ''))
</script>

<template>
  <DialogSheet
    v-model="shown"
    :title="asking ? 'Ask for a correction' : 'Correct an entry'"
    no-footer
  >
    <p v-if="event" class="soft">{{ eventWords(event) }}</p>
    <form novalidate @submit.prevent="submit">
      <p v-if="asking">The tester of this visit corrects it; what you ask for stands in the log.</p>
      <template v-else-if="field">
        <EntryField
          name="value"
          label="It should say"
          :mono="event?.kind === 'reading'"
          :disabled="form.withdraw"
        />
        <EntryField name="withdraw" label="Withdraw it instead" kind="switch" />
      </template>
      <p v-else>This entry is withdrawn; record it again afterwards.</p>
      <EntryField
        name="why"
        :label="asking ? 'What, and why' : 'Why'"
        placeholder="Two digits exchanged"
      />
      <ul v-if="effect.length > 0" class="effect" aria-label="What this changes">
        <li v-for="e in effect" :key="e.of">
          {{ nameOf(e.of) }}: {{ outcome(e.before) }} <span aria-hidden="true">→</span>
          <strong>{{ outcome(e.after) }}</strong>
        </li>
      </ul>
      <template v-if="attested && !asking">
        <EntryField
          name="password"
          label="Your password"
          kind="password"
          autocomplete="current-password"
        />
        <p class="soft small">
          The visit is signed. The certificate stands until it is replaced; the new one names you as
          the one who corrected.
        </p>
      </template>
      <ProblemNote :problem="problem" :refusal="refusal" />
      <div class="actions mt-3">
        <BButton type="submit" variant="primary" :disabled="busy">{{
          asking ? 'Ask the tester' : 'Correct it'
        }}</BButton>
        <BButton variant="link" @click="shown = false">Leave it</BButton>
      </div>
    </form>
  </DialogSheet>
</template>

<style scoped>
.effect {
  list-style: none;
  margin: 1rem 0;
  padding: 0.6rem 0.9rem;
  border-left: 4px solid var(--rule-strong);
  background: var(--paper-sunk);
}
</style>
