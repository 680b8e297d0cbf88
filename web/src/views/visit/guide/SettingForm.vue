<script setup lang="ts">
import { ref } from 'vue'

/** A setting as it was found, written down before anything disturbs it. */
const emit = defineEmits<{ written: [setting: string] }>()
const setting = ref('')
</script>

<template>
  <form class="setting" novalidate @submit.prevent="emit('written', setting.trim())">
    <label
      >As found
      <input
        v-model="setting"
        class="form-control"
        placeholder="Turns, height, scale"
        autocomplete="off"
    /></label>
    <BButton type="submit" variant="primary" size="lg">Written down</BButton>
  </form>
</template>

<style scoped>
.setting {
  display: grid;
  gap: 0.75rem;
  max-width: 28rem;
}

label {
  font-weight: 600;
}
</style>
