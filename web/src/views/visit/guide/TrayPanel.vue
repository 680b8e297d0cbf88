<script setup lang="ts">
import type { GuideRun } from '@uvanta/core/guide'
import { computed } from 'vue'

/** The tray, parts in the order they came off, and the kit, item by item. */
const props = defineProps<{ run: GuideRun }>()
const kitLeft = computed(() => props.run.kit.filter((k) => k.used < k.count))
</script>

<template>
  <section class="tray" aria-label="Tray and kit">
    <h2>Tray</h2>
    <ol v-if="run.tray.length > 0" class="slots">
      <li v-for="(p, n) in run.tray" :key="p.id" :class="{ gone: p.gone }">
        <span class="mono">{{ n + 1 }}</span> {{ p.title }}
        <small v-if="p.gone">thrown away – a new one goes in</small>
      </li>
    </ol>
    <p v-else class="soft empty">Empty. Parts are laid down here in the order they come off.</p>
    <template v-if="run.kit.length > 0">
      <h2>Kit</h2>
      <ul class="rows kit">
        <li v-for="k in run.kit" :key="k.id">
          <span>{{ k.title }}</span>
          <span class="mono">{{ k.used }} / {{ k.count }}</span>
        </li>
      </ul>
      <p class="soft small">
        {{ kitLeft.length === 0 ? 'Everything in the kit is fitted.' : 'Used / in the kit.' }}
      </p>
    </template>
  </section>
</template>

<style scoped>
h2 {
  font-size: 1.0625rem;
  margin-bottom: 0.4rem;
}

.slots {
  list-style: none;
  margin: 0 0 1.25rem;
  padding: 0.5rem;
  border: 2px solid var(--rule-strong);
  background: var(--paper-raised);
  display: grid;
  gap: 0.35rem;
}

.slots li {
  border: 1px solid var(--rule);
  padding: 0.45rem 0.6rem;
}

.slots .mono {
  color: var(--ink-soft);
  margin-right: 0.4rem;
}

.gone {
  border-style: dashed !important;
  color: var(--ink-soft);
}

.gone small {
  display: block;
}

.empty {
  border: 2px dashed var(--rule);
  padding: 0.75rem;
}

.kit li {
  display: flex;
  justify-content: space-between;
  gap: 1rem;
  padding: 0.4rem 0;
}
</style>
