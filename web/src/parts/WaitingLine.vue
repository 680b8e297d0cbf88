<script setup lang="ts">
/** Something is on its way: a pipe filling. Appears only when it takes a while. */
defineProps<{ what: string }>()
</script>

<template>
  <p class="waiting" role="status"><span aria-hidden="true" />Loading {{ what }} …</p>
</template>

<style scoped>
.waiting {
  color: var(--ink-soft);
  padding: 1.5rem 0;
  animation: appear 0s 0.3s both;
}

span {
  display: inline-block;
  width: 4rem;
  height: 9px;
  margin-right: 0.75rem;
  border-block: 2px solid var(--ink);
  background: linear-gradient(var(--flow), var(--flow)) no-repeat;
  animation: fill 1.1s linear infinite;
}

@keyframes fill {
  from {
    background-size: 0 100%;
  }

  to {
    background-size: 100% 100%;
  }
}

@keyframes appear {
  from {
    visibility: hidden;
  }
}
</style>
