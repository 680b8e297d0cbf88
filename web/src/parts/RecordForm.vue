<script setup lang="ts">
import { toTypedSchema } from '@vee-validate/yup'
import { useForm } from 'vee-validate'
import { ref, useId } from 'vue'
import type { ObjectSchema } from 'yup'
import type { FormField } from './formField'

/** A form made from a list of fields and a schema of the contract. */
const props = defineProps<{
  fields: readonly FormField[]
  schema: ObjectSchema<Record<string, unknown>>
  initial: Record<string, unknown>
  action: string
  busy?: boolean
}>()
const emit = defineEmits<{ submit: [values: Record<string, unknown>]; cancel: [] }>()

const id = useId()
const { handleSubmit, errors, values, setFieldValue } = useForm<Record<string, unknown>>({
  validationSchema: toTypedSchema(props.schema.pick(props.fields.map((f) => f.name)) as never),
  initialValues: { ...props.initial },
})

/** What is wrong with the fields together, as an expiry before the issue. */
const together = ref('')
const submit = handleSubmit(
  (given) => {
    together.value = ''
    emit('submit', { ...given })
  },
  ({ results }) => {
    together.value = results['' as never]?.['errors']?.[0] ?? ''
  },
)

function change(field: FormField, event: Event) {
  const input = event.target as HTMLInputElement
  if (field.type === 'checks') {
    const chosen = new Set((values[field.name] as string[] | undefined) ?? [])
    if (input.checked) chosen.add(input.value)
    else chosen.delete(input.value)
    setFieldValue(field.name, [...chosen])
  } else if (field.type === 'switch') setFieldValue(field.name, input.checked)
  else if (field.type === 'number')
    setFieldValue(field.name, input.value === '' ? undefined : Number(input.value))
  else setFieldValue(field.name, input.value === '' ? undefined : input.value)
}
</script>

<template>
  <form novalidate @submit.prevent="submit">
    <div class="fields">
      <div v-for="f in fields" :key="f.name" :class="{ whole: f.wide }">
        <fieldset v-if="f.type === 'checks'">
          <legend class="form-label">{{ f.label }}</legend>
          <label v-for="o in f.options" :key="o.value" class="check">
            <input
              type="checkbox"
              class="form-check-input"
              :value="o.value"
              :checked="(values[f.name] as string[] | undefined)?.includes(o.value)"
              @change="change(f, $event)"
            />
            {{ o.text }}
          </label>
        </fieldset>
        <label v-else-if="f.type === 'switch'" class="check">
          <input
            type="checkbox"
            class="form-check-input"
            :checked="Boolean(values[f.name])"
            @change="change(f, $event)"
          />
          {{ f.label }}
        </label>
        <template v-else>
          <label class="form-label" :for="`${id}-${f.name}`">{{ f.label }}</label>
          <select
            v-if="f.type === 'select'"
            :id="`${id}-${f.name}`"
            class="form-select"
            :class="{ 'is-invalid': errors[f.name] }"
            :value="values[f.name] ?? ''"
            @change="change(f, $event)"
          >
            <option value="" disabled>Choose</option>
            <option v-for="o in f.options" :key="o.value" :value="o.value">{{ o.text }}</option>
          </select>
          <input
            v-else
            :id="`${id}-${f.name}`"
            class="form-control"
            :class="{ mono: f.mono, 'is-invalid': errors[f.name] }"
            :type="f.type ?? 'text'"
            :step="f.type === 'number' ? 'any' : undefined"
            :autocomplete="f.autocomplete ?? 'off'"
            :value="values[f.name] ?? ''"
            :aria-describedby="errors[f.name] ? `${id}-${f.name}-fault` : undefined"
            @input="change(f, $event)"
          />
        </template>
        <p v-if="errors[f.name]" :id="`${id}-${f.name}-fault`" class="fault">
          {{ f.label }} {{ errors[f.name] }}.
        </p>
        <p v-else-if="f.hint" class="soft small hint">{{ f.hint }}</p>
      </div>
    </div>
    <p v-if="together" class="fault" role="alert">Check the entries: {{ together }}.</p>
    <div class="actions">
      <BButton type="submit" variant="primary" :disabled="busy">{{ action }}</BButton>
      <BButton variant="link" @click="emit('cancel')">Cancel</BButton>
    </div>
  </form>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(15rem, 1fr));
  gap: 1rem 1.25rem;
  margin-bottom: 1.25rem;
}

.whole {
  grid-column: 1 / -1;
}

.check {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  min-height: 48px;
}

fieldset .check {
  display: inline-flex;
  margin-right: 1.25rem;
}

.fault {
  color: var(--fail);
  margin: 0.25rem 0 0;
}

.hint {
  margin: 0.25rem 0 0;
}
</style>
