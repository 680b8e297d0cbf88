<script setup lang="ts">
import { type Equipment, nominalsOf } from '@uvanta/contract'
import { api } from 'virtual:api'
import {
  apparatusOf,
  nominalDimension,
  type NominalName,
  nominalNames,
} from '@uvanta/core/apparatus'
import { unitsOf } from '@uvanta/core/quantity'
import { displayed } from '@uvanta/core/schema'
import { computed, ref, shallowRef } from 'vue'
import { object, string } from 'yup'
import { ApiProblem, call } from '@/api/client'
import { unitOptions } from '@/composables/words'
import DialogSheet from '@/parts/DialogSheet.vue'
import EntryField from '@/parts/form/EntryField.vue'
import { useEntry } from '@/parts/form/useEntry'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useLibrary } from '@/stores/library'

/** What a piece of equipment is judged by, as its plate, its spec sheet or the station’s papers say. */
const props = defineProps<{ equipment: Equipment }>()
const emit = defineEmits<{ saved: [] }>()
const shown = defineModel<boolean>({ required: true })
const problem = shallowRef<ApiProblem | null>(null)
const busy = ref(false)

const names = apparatusOf(props.equipment.kind)?.nominals ?? []
interface Entered {
  value?: string | undefined
  unit: string
}
const schema = object(
  Object.fromEntries(
    names.map((name) => [name, object({ value: displayed(), unit: string().required() })]),
  ),
)
const own = (name: NominalName) => nominalsOf(props.equipment).find((n) => n.name === name)?.value
const { values, submit, set } = useEntry<{ [name: string]: Entered }>(
  schema as never,
  Object.fromEntries(
    names.map((name) => {
      const known = own(name)
      return [
        name,
        { value: known?.value, unit: known?.unit ?? unitsOf(nominalDimension(name))[0] ?? '' },
      ]
    }),
  ),
  save,
)

/** What the spec sheet of its model gives, where nothing is entered yet. */
const library = useLibrary()
const rated = computed(() => {
  const sheet = library.library?.specSheets.find((s) => s.id === props.equipment.specSheet)
  return (sheet?.ratings ?? []).filter((r) => names.includes(r.name) && !values[r.name]?.value)
})
function takeRated() {
  for (const { name, value } of rated.value) set(name, { value: value.value, unit: value.unit })
}

async function save(entered: { readonly [name: string]: Entered }) {
  busy.value = true
  problem.value = null
  const given = names.flatMap((name) => {
    const { value, unit = '' } = entered[name] ?? {}
    return value ? [{ name, value: { dimension: nominalDimension(name), value, unit } }] : []
  })
  try {
    await call(api.register.changeEquipment, {
      params: { id: props.equipment.id },
      version: props.equipment.version,
      body: {
        setPoint: given.find((n) => n.name === 'set-point')?.value ?? null,
        nominals: given.filter((n) => n.name !== 'set-point'),
      },
    })
    shown.value = false
    emit('saved')
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <DialogSheet v-model="shown" title="Nominal values" no-footer scrollable>
    <p class="soft">
      From the plate, the spec sheet or the papers of the station. What is left empty is not judged.
    </p>
    <BButton v-if="rated.length > 0" class="mb-3" variant="outline-primary" @click="takeRated"
      >Take {{ rated.length }} figures from its spec sheet</BButton
    >
    <form novalidate @submit.prevent="submit">
      <div v-for="name in names" :key="name" class="pair">
        <EntryField :name="`${name}.value`" :label="nominalNames[name]" mono inputmode="decimal" />
        <EntryField
          :name="`${name}.unit`"
          :label="`Unit of ${nominalNames[name]}`"
          quiet
          kind="choice"
          :options="unitOptions(nominalDimension(name))"
        />
      </div>
      <ProblemNote :problem="problem" />
      <div class="actions mt-3">
        <BButton type="submit" variant="primary" :disabled="busy">Save</BButton>
        <BButton variant="link" @click="shown = false">Leave it</BButton>
      </div>
    </form>
  </DialogSheet>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 7rem;
  gap: 0.5rem;
  align-items: end;
  margin-bottom: 0.6rem;
}
</style>
