<script setup lang="ts">
/** Equipment without a drawing of its own: a valve in the pipe. */
defineProps<{ kind: string; tag: string }>()
</script>

<template>
  <svg class="drawing" viewBox="0 0 800 170" role="img" :aria-label="`Drawing of ${tag}, ${kind}`">
    <path class="wall" d="M10 66H790M10 100H790" />
    <circle cx="400" cy="83" r="42" class="body" />
    <path class="lever" d="M368 83h64" />
    <path class="light" d="M24 146h70m-12-6 12 6-12 6" />
    <text x="104" y="151">flow</text>
  </svg>
</template>

<style scoped>
.drawing {
  width: 100%;
  max-width: 56rem;
  display: block;
}

.wall {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3;
}

.body {
  fill: var(--paper-raised);
  stroke: var(--ink);
  stroke-width: 3;
}

.lever {
  stroke: var(--flow);
  stroke-width: 8;
}

.light {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 1.4;
}

text {
  fill: var(--ink-soft);
  font-size: 14px;
}
</style>
