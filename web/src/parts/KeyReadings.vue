<script setup lang="ts">
import type { KeyReading } from '@uvanta/core/certificate'
import { outcomeWords } from '@/composables/words'
import Reading from './Reading.vue'
import StateMark from './StateMark.vue'

/** What a reader of a certificate looks for first: each value with its limits, as found beside as left. */
defineProps<{ keys: readonly KeyReading[] }>()
const runs = [
  { name: 'found', title: 'As found' },
  { name: 'left', title: 'As left' },
] as const
</script>

<template>
  <div class="keys">
    <section v-for="k in keys" :key="k.id" class="key">
      <h2>{{ k.title }}</h2>
      <p class="soft small">{{ k.limits }}</p>
      <dl>
        <template v-for="r in runs" :key="r.name">
          <template v-if="k[r.name]">
            <dt class="soft small">{{ r.title }}</dt>
            <dd>
              <Reading :value="k[r.name]?.value ?? ''" :unit="k[r.name]?.unit ?? ''" />
              <StateMark
                :state="k[r.name]?.outcome ?? 'not-assessed'"
                :label="outcomeWords[k[r.name]?.outcome ?? 'not-assessed']"
              />
            </dd>
          </template>
        </template>
      </dl>
    </section>
  </div>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(15rem, 100%), 1fr));
  border: 1px solid var(--rule-strong);
  margin-bottom: 1.5rem;
}

.key {
  padding: 0.6rem 0.9rem;
  border-inline-end: 1px solid var(--rule);
}

.key:last-child {
  border-inline-end: 0;
}

h2 {
  font-size: 1rem;
  margin: 0;
}

p {
  margin: 0 0 0.4rem;
}

dl {
  display: grid;
  grid-template-columns: 4.5rem 1fr;
  gap: 0.25rem 0.75rem;
  align-items: baseline;
  margin: 0;
}

dd {
  display: flex;
  flex-wrap: wrap;
  gap: 0.25rem 0.9rem;
  align-items: baseline;
  margin: 0;
}
</style>
