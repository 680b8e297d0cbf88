<script setup lang="ts">
/** Nothing to show: says so, and what to do about it. */
defineProps<{ title: string }>()
</script>

<template>
  <div class="empty">
    <h2>{{ title }}</h2>
    <p class="soft"><slot /></p>
  </div>
</template>

<style scoped>
.empty {
  border: 1px dashed var(--rule);
  padding: 1.5rem;
  margin: 1rem 0;
}

p {
  margin: 0;
}
</style>
