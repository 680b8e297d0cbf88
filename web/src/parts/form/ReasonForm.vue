<script setup lang="ts">
import { prose } from '@uvanta/core/schema'
import { object } from 'yup'
import EntryField from './EntryField.vue'
import { useEntry } from './useEntry'

/** Asks for one reason, in words, before something is carried out with it. */
const props = withDefaults(
  defineProps<{
    label: string
    action: string
    variant?: 'primary' | 'outline-primary' | 'outline-danger'
    placeholder?: string
    /** It may be left empty; then the reason is an empty text. */
    optional?: boolean
  }>(),
  { variant: 'primary' },
)
const emit = defineEmits<{ given: [reason: string] }>()
const reason = prose(500).test('words', 'is missing', (v) => props.optional || Boolean(v?.trim()))
const { submit, reset } = useEntry<{ reason?: string | undefined }>(object({ reason }), {}, (v) =>
  emit('given', v.reason?.trim() ?? ''),
)
defineExpose({ reset: () => reset() })
</script>

<template>
  <form class="reason" novalidate @submit.prevent="submit">
    <EntryField name="reason" :label="label" :placeholder="placeholder" />
    <slot />
    <div class="actions">
      <BButton type="submit" :variant="variant">{{ action }}</BButton>
      <slot name="beside" />
    </div>
  </form>
</template>

<style scoped>
.reason {
  display: grid;
  gap: 0.75rem;
}
</style>
