<script setup lang="ts">
/** How far a long piece of work has come, and a way to end it. */
defineProps<{ doing: string; done: number; total: number; note: string }>()
defineEmits<{ stop: [] }>()
</script>

<template>
  <div class="run">
    <label>
      {{ doing }} <span class="mono">{{ done }}</span> of
      <span class="mono">{{ total }}</span> lines
      <progress :value="done" :max="total" />
    </label>
    <BButton variant="outline-primary" @click="$emit('stop')">Stop</BButton>
    <p class="soft small">{{ note }}</p>
  </div>
</template>

<style scoped>
.run {
  display: grid;
  grid-template-columns: minmax(0, 32rem) auto;
  justify-content: start;
  align-items: end;
  gap: 0.25rem 1rem;
}

label {
  font-weight: 600;
}

progress {
  display: block;
  width: 100%;
  height: 14px;
  margin-top: 0.4rem;
  accent-color: var(--blue);
}

p {
  grid-column: 1 / -1;
  margin: 0;
}
</style>
