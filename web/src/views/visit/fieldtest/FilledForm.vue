<script setup lang="ts">
import type { TestPlan } from '@uvanta/core/library'
import { actionsOf } from '@uvanta/core/procedure'
import { type Dimension, parseDisplayed, unitLabel, unitsOf } from '@uvanta/core/quantity'
import { doubtOf, type RunName } from '@uvanta/core/visit'
import { computed, reactive, ref, useTemplateRef } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useVisit } from '@/stores/visit'

/** A filled paper form of the same procedure: Enter to Enter, recorded in the order of its steps. */
const props = defineProps<{ run: RunName; plan: TestPlan }>()
const emit = defineEmits<{ close: [] }>()
const store = useVisit()
const form = useTemplateRef<HTMLFormElement>('form')

const records = computed(() =>
  props.plan.procedure.steps.flatMap((s) => (s.record ? [s.record] : [])),
)
const values = reactive<Record<string, string>>({})
const units = reactive<Record<string, string>>(
  Object.fromEntries(records.value.map((r) => [r.item, r.unit ?? ''])),
)
/** Gauge above the port, mm, where a hose hangs open to air. */
const heights = reactive<Record<string, string>>({})
/** Readings that their gauge cannot have shown, and why they stand all the same. */
const doubted = reactive<Record<string, boolean>>({})
const reasons = reactive<Record<string, string>>({})
const message = ref('')

/** Enter goes to the next field; on the last one it records. */
function onEnter(event: KeyboardEvent) {
  const fields = [...(form.value?.querySelectorAll<HTMLElement>('[data-field]') ?? [])]
  const here = fields.indexOf(event.target as HTMLElement)
  if (here < 0 || here === fields.length - 1) return
  event.preventDefault()
  fields[here + 1]?.focus()
}

function faultOf(): string {
  for (const r of records.value) {
    const value = values[r.item]?.trim() ?? ''
    if (!value) return `${r.title} is missing. Enter what stands on the form.`
    if (r.ask !== 'reading') continue
    try {
      parseDisplayed(value)
    } catch (error) {
      return `${r.title}: ${(error as Error).message}`
    }
    const doubt = doubtIn(r.item, r.dimension as Dimension, value)
    doubted[r.item] = doubt !== ''
    if (doubt && !reasons[r.item]?.trim()) {
      return `${r.title}: ${doubt} Mend it, or say beside it how that can be; then it is not assessed.`
    }
  }
  return ''
}

/** Why a gauge cannot have shown it, with what was probably meant. */
function doubtIn(item: string, dimension: Dimension, value: string): string {
  const run = store.state.runs[props.run]
  const doubt = run && doubtOf({ dimension, value, unit: units[item] ?? '' }, run)
  return doubt ? `${doubt.why}${doubt.meant ? `: ${doubt.meant}?` : '.'}` : ''
}

/** The whole form is one press: all of it is recorded, or none. */
function recordForm() {
  message.value = faultOf()
  if (message.value) return
  const { run } = props
  const refused = store.recordAll([
    ['note', { station: run, text: 'Entered from a filled paper form.' }],
    ...props.plan.procedure.steps.flatMap((step) => [
      ...actionsOf(step).flatMap((a) =>
        a.kind === 'move' ? [['valve-moved', { element: a.element, to: a.to }] as const] : [],
      ),
      ...(step.record ? [entryOf(step.record)] : []),
      ['step-done', { run, step: step.id }] as const,
    ]),
  ])
  message.value = refused ? `${refused.why} ${refused.remedy}` : ''
  if (!refused) emit('close')
}

function entryOf(r: (typeof records.value)[number]) {
  const { run } = props
  const value = values[r.item]?.trim() ?? ''
  if (r.ask === 'answer') {
    const label = r.answers?.find((a) => a.id === value)?.label ?? value
    return ['answer', { run, item: r.item, answer: value, label }] as const
  }
  return [
    'reading',
    {
      run,
      item: r.item,
      dimension: r.dimension as Dimension,
      value,
      unit: units[r.item] ?? '',
      source: 'typed',
      ...(doubted[r.item] ? { insisted: reasons[r.item]?.trim() ?? '' } : {}),
      ...(r.head
        ? { gaugeAbovePort: { value: heights[r.item]?.trim() || '0', unit: 'mm' as const } }
        : {}),
    },
  ] as const
}
</script>

<template>
  <form ref="form" class="filled" novalidate @submit.prevent="recordForm" @keydown.enter="onEnter">
    <p class="soft">What stands on the form, in its order. Enter goes to the next field.</p>
    <div v-for="r in records" :key="r.item" class="field">
      <label :for="`filled-${r.item}`">{{ r.title }}</label>
      <BFormSelect
        v-if="r.ask === 'answer'"
        :id="`filled-${r.item}`"
        v-model="values[r.item]"
        data-field
      >
        <option v-for="a in r.answers" :key="a.id" :value="a.id">{{ a.label }}</option>
      </BFormSelect>
      <div v-else class="pair">
        <BFormInput
          :id="`filled-${r.item}`"
          v-model="values[r.item]"
          class="mono"
          inputmode="decimal"
          autocomplete="off"
          data-field
        />
        <BFormSelect v-model="units[r.item]" :aria-label="`Unit of ${r.title}`">
          <option v-for="u in unitsOf(r.dimension as Dimension)" :key="u" :value="u">
            {{ unitLabel(r.dimension as Dimension, u) }}
          </option>
        </BFormSelect>
        <label v-if="r.head" class="height soft small"
          >Gauge above port, mm
          <BFormInput
            v-model="heights[r.item]"
            class="mono"
            inputmode="decimal"
            placeholder="0"
            data-field
        /></label>
        <label v-if="doubted[r.item]" class="height soft small"
          >It stands all the same, because <BFormInput v-model="reasons[r.item]" data-field
        /></label>
      </div>
    </div>
    <ProblemNote :message="message" />
    <div class="actions">
      <BButton type="submit" variant="primary" size="lg">Record the form</BButton>
      <BButton variant="link" @click="emit('close')">Back to the steps</BButton>
    </div>
  </form>
</template>

<style scoped>
.filled {
  max-width: 44rem;
}

.field {
  display: grid;
  grid-template-columns: minmax(10rem, 1fr) minmax(0, 20rem);
  gap: 0.5rem 1rem;
  align-items: center;
  border-top: 1px solid var(--rule);
  padding: 0.4rem 0;
}

.field label {
  font-weight: 600;
}

.pair {
  display: grid;
  grid-template-columns: 1fr 7rem;
  gap: 0.5rem;
}

.height {
  grid-column: 1 / -1;
}

.actions {
  margin-top: 1rem;
}

@media (max-width: 700px) {
  .field {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
