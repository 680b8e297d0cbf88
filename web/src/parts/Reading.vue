<script setup lang="ts">
/** A number as the hero: large in the mono face, its unit small behind it. */
const MINUS = '\u2212'
defineProps<{ value: string; unit?: string; size?: 'large' | 'normal'; struck?: boolean }>()
</script>

<template>
  <span class="reading mono" :class="[size ?? 'normal', { struck }]"
    ><span class="value">{{ value.replace(/^-/, MINUS) }}</span
    ><span v-if="unit" class="unit">{{ ' ' + unit }}</span></span
  >
</template>

<style scoped>
.value {
  font-size: 1.375rem;
  font-weight: 550;
  letter-spacing: -0.01em;
}

.large .value {
  font-size: 2.75rem;
  line-height: 1.1;
}

.unit {
  font-size: 0.875rem;
  color: var(--ink-soft);
}

.struck .value {
  text-decoration: line-through;
}
</style>
