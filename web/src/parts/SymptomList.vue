<script setup lang="ts">
import type { FoundSymptom } from '@uvanta/core/symptoms'

/** Symptoms that fit what was seen: where to look, what to do first, what to check, and the guide for it. */
defineProps<{ found: readonly FoundSymptom[] }>()
</script>

<template>
  <ul class="rows symptoms">
    <li v-for="f in found" :key="f.id">
      <p class="head">
        <strong>{{ f.sign }}</strong>
        <RouterLink class="soft small" :to="{ name: 'machine', params: { id: f.machine.id } }">{{
          f.machine.title
        }}</RouterLink>
      </p>
      <dl>
        <dt>Look at</dt>
        <dd>{{ f.parts.map((p) => p.title).join(', ') }}</dd>
        <template v-if="f.first">
          <dt>First</dt>
          <dd>{{ f.first }}</dd>
        </template>
        <template v-if="f.checks.length > 0">
          <dt>Checks</dt>
          <dd>{{ f.checks.map((c) => c.title).join(', ') }}</dd>
        </template>
        <template v-if="f.guides.length > 0">
          <dt>Guide</dt>
          <dd>
            <template v-for="(g, n) in f.guides" :key="g.id"
              ><template v-if="n > 0">, </template
              ><RouterLink :to="{ name: 'guide', params: { id: g.id } }">{{
                g.title
              }}</RouterLink></template
            >
          </dd>
        </template>
      </dl>
    </li>
  </ul>
</template>

<style scoped>
.symptoms li {
  padding: 0.6rem 0;
}

.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.25rem 1rem;
  margin: 0 0 0.25rem;
}

dl {
  display: grid;
  grid-template-columns: 5rem minmax(0, 1fr);
  gap: 0.1rem 0.75rem;
  margin: 0;
}

dd {
  margin: 0;
}
</style>
