<script setup lang="ts">
import type { PayloadOf, Refusal, VisitEvent } from '@uvanta/core/visit'
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useVisit } from '@/stores/visit'
import { eventWords } from './eventWords'

/** Corrects an entry: the old one stays in the log, struck through, with the reason. */
const props = defineProps<{ event: VisitEvent | null }>()
const shown = defineModel<boolean>({ required: true })
const store = useVisit()
const form = reactive({ value: '', why: '' })
const withdraw = ref(false)
const refusal = shallowRef<Refusal | null>(null)
const message = ref('')

/** The field of the payload that a person would mean. */
const FIELD: Partial<Record<VisitEvent['kind'], string>> = {
  note: 'text',
  repair: 'text',
  reading: 'value',
  'as-found-impossible': 'reason',
}
const field = computed(() => (props.event ? FIELD[props.event.kind] : undefined))
watch(shown, () => {
  const payload = (props.event?.payload ?? {}) as Record<string, string>
  form.value = field.value ? (payload[field.value] ?? '') : ''
  form.why = ''
  withdraw.value = !field.value
  refusal.value = null
  message.value = ''
})

function save() {
  message.value = ''
  if (!props.event) return
  if (!form.why.trim()) {
    message.value = 'Say why it is corrected; the reason stays on the record.'
    return
  }
  const payload: PayloadOf<'correction'> = withdraw.value
    ? { of: props.event.id, why: form.why.trim(), withdraw: true }
    : {
        of: props.event.id,
        why: form.why.trim(),
        withdraw: false,
        payload: { ...props.event.payload, [field.value ?? '']: form.value.trim() },
      }
  refusal.value = store.record('correction', payload)
  if (!refusal.value) shown.value = false
}
</script>

<template>
  <BModal v-model="shown" title="Correct an entry" no-footer>
    <p v-if="event" class="soft">{{ eventWords(event) }}</p>
    <form novalidate @submit.prevent="save">
      <template v-if="field">
        <label class="form-label" for="correct-value">It should say</label>
        <input
          id="correct-value"
          v-model="form.value"
          class="form-control"
          :class="{ mono: event?.kind === 'reading' }"
          :disabled="withdraw"
        />
        <label class="check"
          ><input v-model="withdraw" type="checkbox" class="form-check-input" /> Withdraw it
          instead</label
        >
      </template>
      <p v-else>This entry is withdrawn; record it again afterwards.</p>
      <label class="form-label" for="correct-why">Why</label>
      <input
        id="correct-why"
        v-model="form.why"
        class="form-control"
        placeholder="Two digits exchanged"
      />
      <ProblemNote
        :problem="null"
        :message="message || (refusal ? `${refusal.why} ${refusal.todo}` : '')"
      />
      <div class="actions mt-3">
        <BButton type="submit" variant="primary">Correct it</BButton>
        <BButton variant="link" @click="shown = false">Leave it</BButton>
      </div>
    </form>
  </BModal>
</template>

<style scoped>
.check {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  min-height: 48px;
}
</style>
