<script setup lang="ts">
import { computed } from 'vue'
import { activeKeys } from '@/composables/useKeys'

const shown = defineModel<boolean>({ required: true })
const keys = computed(() => [...activeKeys].sort((a, b) => a.key.localeCompare(b.key)))
</script>

<template>
  <BModal v-model="shown" title="Keys of this view" ok-only ok-title="Close">
    <dl class="keys">
      <template v-for="k in keys" :key="k.key">
        <dt>
          <kbd>{{ k.key }}</kbd>
        </dt>
        <dd>{{ k.does }}</dd>
      </template>
    </dl>
  </BModal>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: 5rem 1fr;
  gap: 0.5rem;
  margin: 0;
}

dd {
  margin: 0;
}

kbd {
  background: var(--paper-sunk);
  color: var(--ink);
  border: 1px solid var(--rule);
}
</style>
