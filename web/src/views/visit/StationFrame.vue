<script setup lang="ts">
/** The shape of every station: the step in the middle, what goes with it beside. */
defineProps<{ title: string; lead?: string }>()
</script>

<template>
  <div class="frame" :class="{ alone: !$slots.aside }">
    <section class="step" :aria-label="title">
      <h2>{{ title }}</h2>
      <p v-if="lead" class="lead">{{ lead }}</p>
      <slot />
    </section>
    <aside v-if="$slots.aside" class="beside"><slot name="aside" /></aside>
  </div>
</template>

<style scoped>
.frame {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 24rem;
  gap: 2rem;
}

.alone {
  grid-template-columns: minmax(0, 52rem);
}

h2 {
  font-size: 1.625rem;
  line-height: 1.2;
  text-wrap: pretty;
}

.lead {
  max-width: 44rem;
  font-size: 1.0625rem;
}

@media (max-width: 62.5em) {
  .frame {
    grid-template-columns: minmax(0, 1fr);
    gap: 1.25rem;
  }

  h2 {
    font-size: 1.375rem;
  }
}

/* In sight and in reach of the thumb, however much there is to read before it. */
.step :deep(.actions:has(> .btn-primary):not(.caution *)),
.step :deep(.guide-step .answers) {
  position: sticky;
  bottom: 0;
  padding: 0.4rem 0;
  background: var(--paper);
  z-index: 1;
}

/* A form ends with its own. */
.step :deep(.guide-step form > .btn-primary.btn-lg) {
  position: sticky;
  bottom: 0.4rem;
  z-index: 1;
}

@media (max-width: 43.75em) {
  .step :deep(.guide-step form > .btn-primary.btn-lg) {
    bottom: calc(var(--nav-height) + 0.4rem);
  }

  .step :deep(.actions:has(> .btn-primary):not(.caution *)),
  .step :deep(.guide-step .answers) {
    bottom: var(--nav-height);
  }
}
</style>
