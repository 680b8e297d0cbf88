<script setup lang="ts">
import { api, bodyOf, type Equipment } from '@uvanta/contract'
import { computed } from 'vue'
import type * as yup from 'yup'
import { call } from '@/api/client'
import RecordDialog from '@/parts/form/RecordDialog.vue'
import { useRecordDialog } from '@/parts/form/useRecordDialog'

/** Takes equipment out of service, or puts it back, with the reason. */
const props = defineProps<{ equipment: Equipment }>()
const emit = defineEmits<{ changed: [] }>()
const body = bodyOf(api.register.changeService)
type Body = yup.InferType<typeof body>
const out = computed(() => props.equipment.condition === 'out-of-service')
const action = computed(() => (out.value ? 'Put back into service' : 'Take out of service'))
const dialog = useRecordDialog<Equipment, Body>(async ({ id, version }, given) => {
  await call(api.register.changeService, { params: { id }, version, body: given })
  emit('changed')
})
const fields = computed(
  () =>
    [
      {
        name: 'why',
        label: 'Why',
        wide: true,
        hint: out.value
          ? 'It is due at once: nobody knows how it stands.'
          : 'It falls due with nothing and is not planned any more. What was found stays to be read.',
      },
    ] as const,
)
</script>

<template>
  <BButton variant="outline-primary" @click="dialog.open(equipment)">{{ action }}</BButton>
  <RecordDialog
    v-model="dialog.shown.value"
    :title="`${equipment.tag}: ${action.toLowerCase()}`"
    :fields="fields"
    :schema="body"
    :initial="{ inService: out }"
    :action="action"
    :busy="dialog.busy.value"
    :problem="dialog.problem.value"
    @submit="dialog.submit"
  />
</template>
