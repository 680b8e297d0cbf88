<script setup lang="ts">
import type { TestPlan } from '@uvanta/core/library'
import { actionsOf } from '@uvanta/core/procedure'
import { type Dimension, unitLabel, unitsOf } from '@uvanta/core/quantity'
import { doubtOf, type RunName } from '@uvanta/core/visit'
import { ASIDE } from '@uvanta/core/rules'
import { displayed, prose } from '@uvanta/core/schema'
import { computed, ref, useTemplateRef } from 'vue'
import { object, string } from 'yup'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useVisit } from '@/stores/visit'

/** A filled paper form of the same procedure: Enter to Enter, recorded in the order of its steps. */
const props = defineProps<{ run: RunName; plan: TestPlan }>()
const emit = defineEmits<{ close: [] }>()
const store = useVisit()
const form = useTemplateRef<HTMLFormElement>('form')

type Record = NonNullable<TestPlan['procedure']['steps'][number]['record']>
const records = computed(() =>
  props.plan.procedure.steps.flatMap((s) => (s.record ? [s.record] : [])),
)
/** What stands on the form for one item. */
interface Filled {
  /** A reading as displayed, or the id of an answer. */
  value: string
  unit: string
  /** Gauge above the port, mm, where a hose hangs open to air. */
  height?: string | undefined
  /** How long it was held, min. */
  held?: string | undefined
  /** Why a reading stands that its gauge cannot have shown. */
  insisted?: string | undefined
}
const filledSchema = (r: Record) =>
  object({
    value: (r.ask === 'answer' ? string() : displayed()).required(
      'is missing: enter what stands on the form',
    ),
    unit: string(),
    height: displayed(),
    held: r.hold ? displayed().required('is missing: how long was it held?') : displayed(),
    insisted: prose(500).test('doubt', 'is missing', function (insisted) {
      const doubt = doubtIn(r, this.parent as Filled)
      return (
        !doubt ||
        Boolean(insisted?.trim()) ||
        this.createError({
          message: `is missing. ${doubt} Mend it, or say how that can be; then it is not assessed`,
        })
      )
    }),
  })
const schema = object(Object.fromEntries(records.value.map((r) => [r.item, filledSchema(r)])))
const { values, submit } = useEntry<{ [item: string]: Filled }>(
  schema as never,
  Object.fromEntries(
    records.value.map((r) => [r.item, { value: undefined as never, unit: r.unit ?? '' }]),
  ),
  recordForm,
)
const message = ref('')

/** Enter goes to the next field; on the last one it records. */
function onEnter(event: KeyboardEvent) {
  const fields = [...(form.value?.querySelectorAll<HTMLElement>('[data-field]') ?? [])]
  const here = fields.indexOf(event.target as HTMLElement)
  if (here < 0 || here === fields.length - 1) return
  event.preventDefault()
  fields[here + 1]?.focus()
}

/** Why a gauge cannot have shown it, with what was probably meant. */
function doubtIn(r: Record, filled: Partial<Filled> | undefined): string {
  const run = store.state.runs[props.run]
  if (!run || r.ask !== 'reading' || !displayed().isValidSync(filled?.value)) return ''
  if (!filled?.value) return ''
  const doubt = doubtOf(
    { dimension: r.dimension as Dimension, value: filled.value, unit: filled.unit ?? '' },
    run,
  )
  return doubt ? `${doubt.why}${doubt.meant ? `: ${doubt.meant}?` : '.'}` : ''
}

/** How long each step lies back, s: what is held for five minutes was begun five minutes before its end. */
function secondsAgo(): ReadonlyMap<string, number> {
  const ago = new Map<string, number>()
  let later = 0
  for (const { id, record } of [...props.plan.procedure.steps].reverse()) {
    ago.set(id, later)
    later += record?.hold ? 60 * Number(values[record.item]?.held ?? 0) : 0
  }
  return ago
}

/** The whole form is one press: all of it is recorded, or none. */
function recordForm() {
  const { run } = props
  const ago = secondsAgo()
  const refused = store.recordAll([
    ['note', { station: run, text: 'Entered from a filled paper form.' }],
    ...props.plan.procedure.steps.flatMap((step) => [
      ...actionsOf(step).flatMap((a) =>
        a.kind === 'move'
          ? [['valve-moved', { element: a.element, to: a.to }, ago.get(step.id)] as const]
          : [],
      ),
      ...(step.record ? [[...entryOf(step.record), ago.get(step.id)] as const] : []),
      ['step-done', { run, step: step.id }, ago.get(step.id)] as const,
    ]),
  ])
  message.value = refused ? `${refused.why} ${refused.remedy}` : ''
  if (!refused) emit('close')
}

function entryOf(r: Record) {
  const { run } = props
  const filled = values[r.item]
  const value = filled?.value.trim() ?? ''
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
      unit: filled?.unit ?? '',
      source: 'typed',
      ...(r.aside ? { channel: ASIDE } : {}),
      ...(doubtIn(r, filled) ? { insisted: filled?.insisted?.trim() ?? '' } : {}),
      ...(r.hold && filled?.held ? { heldS: Number(filled.held) * 60 } : {}),
      ...(r.head
        ? { gaugeAbovePort: { value: filled?.height?.trim() ?? '0', unit: 'mm' as const } }
        : {}),
    },
  ] as const
}

const unitOptions = (r: Record) => {
  const dimension = r.dimension as Dimension
  return unitsOf(dimension).map((value) => ({ value, text: unitLabel(dimension, value) }))
}
</script>

<template>
  <form ref="form" class="filled" novalidate @submit.prevent="submit" @keydown.enter="onEnter">
    <p class="soft">What stands on the form, in its order. Enter goes to the next field.</p>
    <div v-for="r in records" :key="r.item" class="field">
      <EntryField
        v-if="r.ask === 'answer'"
        :name="`${r.item}.value`"
        :label="r.title"
        kind="choice"
        :options="(r.answers ?? []).map((a) => ({ value: a.id, text: a.label }))"
        data-field
      />
      <template v-else>
        <EntryField
          :name="`${r.item}.value`"
          :label="r.title"
          mono
          inputmode="decimal"
          data-field
        />
        <EntryField
          :name="`${r.item}.unit`"
          :label="`Unit of ${r.title}`"
          quiet
          kind="choice"
          :options="unitOptions(r)"
        />
        <EntryField
          v-if="r.hold"
          class="beside"
          :name="`${r.item}.held`"
          label="Held, min"
          mono
          inputmode="decimal"
          :placeholder="r.hold.unit === 'min' ? r.hold.value : ''"
          data-field
        />
        <EntryField
          v-if="r.head"
          class="beside"
          :name="`${r.item}.height`"
          label="Gauge above port, mm"
          mono
          inputmode="decimal"
          placeholder="0"
          data-field
        />
        <EntryField
          v-if="doubtIn(r, values[r.item])"
          class="beside"
          :name="`${r.item}.insisted`"
          label="It stands all the same, because"
          data-field
        />
      </template>
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
  max-width: 34rem;
}

.field {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 7rem;
  gap: 0.25rem 0.75rem;
  align-items: end;
  border-top: 1px solid var(--rule);
  padding: 0.4rem 0 0.6rem;
}

.beside {
  grid-column: 1 / -1;
}

.actions {
  margin-top: 1rem;
}
</style>
