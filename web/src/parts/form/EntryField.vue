<script setup lang="ts" generic="V">
import { useField } from 'vee-validate'
import { computed, useAttrs, useId, useTemplateRef } from 'vue'
import type { FieldLook } from './formField'
import { withPoint } from './withPoint'

/**
 * One labelled entry. With a name it belongs to the form around it, is checked by that form’s schema
 * and says what is wrong with it; without one it only holds what is typed.
 */
defineOptions({ inheritAttrs: false })
const props = withDefaults(defineProps<FieldLook & { name?: string; fault?: string }>(), {
  kind: 'line',
})
const model = defineModel<V>()
const id = useId()
/** Place and size are the field’s; everything else that is said belongs to its control. */
const { class: klass, ...rest } = useAttrs()
const { value, errorMessage } = useField<V | undefined>(() => props.name ?? id, undefined, {
  standalone: props.name === undefined,
  syncVModel: props.name === undefined,
  initialValue: model.value,
})

const wrong = computed(() =>
  props.fault ? props.fault : errorMessage.value ? `${props.label} ${errorMessage.value}.` : '',
)
const TYPES = {
  number: 'number',
  date: 'date',
  time: 'time',
  password: 'password',
  search: 'search',
} as const
const type = computed(() =>
  props.kind in TYPES ? TYPES[props.kind as keyof typeof TYPES] : ('text' as const),
)
const decimal = computed(() => props.inputmode === 'decimal')
/** An empty entry is none: what is optional is left out, what is required is missing. */
const shown = computed({
  get: () => (value.value ?? '') as string | number,
  set: (typed: string | number | null) => {
    if (typed === '' || typed === null) value.value = undefined
    else if (props.kind === 'number') value.value = Number(typed) as V
    else value.value = (decimal.value ? withPoint(String(typed)) : typed) as V
  },
})
const chosen = computed({
  get: () => value.value ?? '',
  set: (option) => (value.value = option === '' ? undefined : (option as V)),
})
const checked = computed({
  get: () => (value.value ?? (props.kind === 'checks' ? [] : false)) as boolean | string[],
  set: (state) => (value.value = state as V),
})
const describedBy = computed(() => (wrong.value ? `${id}-fault` : undefined))
const state = computed(() => (wrong.value ? false : null))

const control = useTemplateRef<{ focus?: () => void }>('control')
defineExpose({ focus: () => control.value?.focus?.() })
</script>

<template>
  <div class="entry-field" :class="klass">
    <fieldset v-if="kind === 'checks'">
      <legend class="form-label checks">{{ label }}</legend>
      <BFormCheckboxGroup v-model="checked as string[]" stacked :options="[...(options ?? [])]" />
    </fieldset>
    <BFormCheckbox
      v-else-if="kind === 'switch'"
      :id="id"
      v-model="checked as boolean"
      class="check"
      :disabled="disabled"
      >{{ label }}</BFormCheckbox
    >
    <template v-else>
      <label class="form-label" :class="{ 'visually-hidden': quiet }" :for="id">{{ label }}</label>
      <BFormSelect
        v-if="kind === 'choice'"
        v-bind="rest"
        :id="id"
        ref="control"
        v-model="chosen"
        :class="{ mono }"
        :state="state"
        :disabled="disabled"
        :aria-describedby="describedBy"
      >
        <option v-if="placeholder || value === undefined" value="" :disabled="!placeholder">
          {{ placeholder ?? 'Choose' }}
        </option>
        <option v-for="o in options" :key="o.value" :value="o.value">{{ o.text }}</option>
      </BFormSelect>
      <BFormTextarea
        v-else-if="kind === 'lines'"
        :id="id"
        ref="control"
        v-model="shown"
        no-resize
        :rows="rows ?? 3"
        :placeholder="placeholder"
        :disabled="disabled"
        :state="state"
        :aria-describedby="describedBy"
      />
      <BFormInput
        v-else
        v-bind="rest"
        :id="id"
        ref="control"
        v-model="shown"
        :class="{ mono }"
        :type="type"
        :step="kind === 'number' ? 'any' : undefined"
        :inputmode="inputmode"
        :autocomplete="autocomplete ?? 'off'"
        :placeholder="placeholder"
        :disabled="disabled"
        :state="state"
        :aria-describedby="describedBy"
      />
    </template>
    <p v-if="wrong" :id="`${id}-fault`" class="fault">{{ wrong }}</p>
    <p v-else-if="hint" class="soft small hint">{{ hint }}</p>
  </div>
</template>

<style scoped>
.check {
  min-height: 48px;
  padding-top: 0.75rem;
}

legend.checks {
  float: none;
  font-size: 1rem;
}

.fault {
  color: var(--fail);
  margin: 0.25rem 0 0;
}

.hint {
  margin: 0.25rem 0 0;
}
</style>
