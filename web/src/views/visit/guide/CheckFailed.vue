<script setup lang="ts">
import { type PlacedStep, stepWords } from '@uvanta/core/guide'
import type { Notice } from '@uvanta/core/visit'
import { computed, shallowRef } from 'vue'
import ReasonForm from '@/parts/form/ReasonForm.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'

/** A check that failed: the work is taken up again from the step that the guide names. */
const props = defineProps<{ step: PlacedStep; back?: PlacedStep | undefined }>()
const emit = defineEmits<{ again: [] }>()
const store = useVisit()
const library = useLibrary()
const refusal = shallowRef<Notice | null>(null)

/** The guide to which the answer leads; its variant is the one of the same name, else its first. */
const other = computed(() => library.library?.guides.find((g) => g.id === props.step.leadsTo))
function takeOther() {
  const { guide: chosen } = store.state
  const to = other.value
  const variant = to?.variants.find((v) => v.id === chosen?.variant) ?? to?.variants[0]
  if (!to || !variant) return
  refusal.value = store.record('guide-chosen', {
    guideId: to.id,
    version: to.version,
    variant: variant.id,
    ...(chosen?.sheet ? { sheet: chosen.sheet } : {}),
  })
  if (!refusal.value) emit('again')
}

function again(what: string) {
  if (!props.back) return
  const reason = what || `Failed: ${props.step.trial ?? stepWords(props.step)}`
  refusal.value = store.record('guide-redo', { from: props.back.id, reason })
  if (!refusal.value) emit('again')
}
</script>

<template>
  <div class="caution failed" role="status">
    <template v-if="back">
      <p>Then do not go on. Take it up again from: {{ stepWords(back) }}.</p>
      <ReasonForm
        label="What was wrong"
        action="Take up again from there"
        placeholder="A lump, a cut ring, something binds"
        optional
        @given="again"
      >
        <ProblemNote :refusal="refusal" />
      </ReasonForm>
    </template>
    <template v-else-if="step.otherwise">
      <p>Then do not go on. {{ step.otherwise }}.</p>
      <BButton v-if="other" variant="primary" @click="takeOther">Take {{ other.title }}</BButton>
      <ProblemNote :refusal="refusal" />
    </template>
    <p v-else>
      Then do not go on. Press the step from which the work is taken up again, and say what failed.
    </p>
  </div>
</template>

<style scoped>
.failed p {
  margin-bottom: 0.5rem;
}

.failed p:last-child {
  margin-bottom: 0;
}
</style>
