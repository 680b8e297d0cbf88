<script setup lang="ts">
import { useId } from 'vue'

/** A figure as it is displayed, with its unit beside it. */
defineProps<{ label: string; units?: readonly { value: string; text: string }[] }>()
const text = defineModel<string>('text', { required: true })
const unit = defineModel<string>('unit', { required: true })
const id = useId()
</script>

<template>
  <div>
    <label :for="id">{{ label }}</label>
    <div class="pair">
      <BFormInput :id="id" v-model="text" class="mono" inputmode="decimal" autocomplete="off" />
      <BFormSelect
        v-if="units && units.length > 1"
        v-model="unit"
        :aria-label="`Unit of ${label}`"
        :options="[...units]"
      />
      <span v-else-if="units?.[0]?.text" class="alone soft">{{ units[0].text }}</span>
    </div>
  </div>
</template>

<style scoped>
label {
  font-weight: 600;
}

.pair {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0.3rem;
}

.alone {
  align-self: center;
}
</style>
