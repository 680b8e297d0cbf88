<script setup lang="ts">
import { guideOfVisit, kitOfVisit, orderedOn, type Notice } from '@uvanta/core/visit'
import { computed, ref, shallowRef, watch } from 'vue'
import DialogSheet from '@/parts/DialogSheet.vue'
import EntryField from '@/parts/form/EntryField.vue'
import ReasonForm from '@/parts/form/ReasonForm.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'

/** Ends a visit that cannot be finished; its log stays, and another visit is planned. */
const store = useVisit()
const library = useLibrary()
/** The office calls a visit off that nobody has begun. */
const title = computed(() =>
  store.mine || store.state.begun ? 'Stop this visit' : 'Call this visit off',
)
const shown = ref(false)
const refusal = shallowRef<Notice | null>(null)

/** The inspection that waits for a part. */
const waits = computed(() =>
  library.library ? orderedOn(store.state, library.library) : undefined,
)
/** The part and the kit that has it, where the sheet lists one. */
const proposed = computed(() => {
  const text = library.library ? guideOfVisit(store.state, library.library) : null
  const part = text?.guide.parts.find((p) => p.id === waits.value?.inspect)
  if (!text || !part || !library.library) return ''
  const from = text.guide.steps.find((s) => s.renew === part.id)?.from
  const item = text.guide.kit?.find((k) => k.id === from)
  const kit = item && kitOfVisit(store.state, library.library, item.job)
  return kit ? `${part.title}, ${kit.number}` : part.title
})
const what = ref('')
watch(proposed, (words) => (what.value ||= words), { immediate: true })
const comeBackOn = ref('')

function stop(reason: string) {
  const order = { what: what.value.trim(), comeBackOn: comeBackOn.value }
  if (waits.value && !(order.what && order.comeBackOn)) {
    refusal.value = {
      why: 'A part is to be ordered.',
      remedy: 'Say what is ordered, and the day on which the work goes on.',
    }
    return
  }
  refusal.value = store.record('stopped', { reason, ...(waits.value ? { order } : {}) })
  if (!refusal.value) shown.value = false
}
</script>

<template>
  <span class="no-print">
    <BButton variant="link" @click="shown = true">{{ title }}</BButton>
    <DialogSheet v-model="shown" :title="title" no-footer>
      <p>
        What is on record stays. Nothing more can be recorded on this visit; plan another when it
        can go on. Leave the equipment so that nobody is hurt by it, and say so.
      </p>
      <div v-if="waits" class="order">
        <EntryField v-model="what" label="What is ordered" placeholder="Pin kit, with its number" />
        <EntryField v-model="comeBackOn" label="The work goes on, on" kind="date" />
        <p class="soft">That visit is planned at once, with what to bring.</p>
      </div>
      <ReasonForm
        label="Why the work ends here"
        action="Stop the visit"
        variant="outline-danger"
        @given="stop"
      >
        <ProblemNote :refusal="refusal" />
        <template #beside>
          <BButton variant="link" @click="shown = false">Carry on</BButton>
        </template>
      </ReasonForm>
    </DialogSheet>
  </span>
</template>

<style scoped>
.order {
  display: grid;
  gap: 0.75rem;
  margin-bottom: 0.75rem;
}
</style>
