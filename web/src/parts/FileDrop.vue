<script setup lang="ts">
import { ref, useId } from 'vue'

/** A place for a file: it is dropped there, or chosen. */
defineProps<{ label: string; accept: string }>()
const emit = defineEmits<{ file: [file: File] }>()
const id = useId()
const over = ref(false)

function take(file: File | undefined) {
  over.value = false
  if (file) emit('file', file)
}
const dropped = (event: DragEvent) => take(event.dataTransfer?.files[0])
const chosen = (event: Event) => take((event.target as HTMLInputElement).files?.[0])
/** The same file may be chosen again, after it was changed. */
const forget = (event: Event) => ((event.target as HTMLInputElement).value = '')
</script>

<template>
  <div
    class="drop no-print"
    :class="{ over }"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="dropped"
  >
    <label :for="id">{{ label }}</label>
    <input
      :id="id"
      type="file"
      :accept="accept"
      class="form-control"
      @click="forget"
      @change="chosen"
    />
    <slot />
  </div>
</template>

<style scoped>
.drop {
  border: 2px dashed var(--rule);
  padding: 0.75rem 1rem;
  margin-bottom: 1.25rem;
  max-width: 36rem;
  display: grid;
  gap: 0.5rem;
}

.over {
  border-color: var(--blue);
  background: var(--blue-wash);
}

label {
  font-weight: 600;
}
</style>
