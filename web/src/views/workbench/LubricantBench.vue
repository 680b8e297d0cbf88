<script setup lang="ts">
import {
  type Elastomer,
  elastomers,
  type Lubricant,
  lubricantAdvice,
  lubricants,
  type LubricantService,
  lubricantServices,
} from '@uvanta/core/craft'
import { computed, ref } from 'vue'
import StateMark from '@/parts/StateMark.vue'
import AttachResult from './AttachResult.vue'

/** Every lubricant on one rubber in one service, and why; one of them is looked at and kept. */
const elastomer = ref<Elastomer>('epdm')
const lubricant = ref<Lubricant>('petrolatum')
const service = ref<LubricantService>('drinking-water')
const adviceFor = (l: Lubricant) => lubricantAdvice(elastomer.value, l, service.value)
const advice = computed(() => adviceFor(lubricant.value))
const ORDER = ['fits', 'questionable', 'clash'] as const
/** What fits comes first. */
const all = computed(() =>
  (Object.keys(lubricants) as Lubricant[])
    .map((id) => ({ id, ...adviceFor(id) }))
    .sort((a, b) => ORDER.indexOf(a.verdict) - ORDER.indexOf(b.verdict)),
)
const MARKS = {
  fits: ['pass', 'Fits'],
  questionable: ['pass-uncertain', 'Questionable'],
  clash: ['fail', 'Clashes'],
} as const
</script>

<template>
  <section class="section" aria-labelledby="lubricant-title">
    <h2 id="lubricant-title">Lubricant</h2>
    <div class="entry">
      <label
        >Rubber
        <BFormSelect v-model="elastomer">
          <option v-for="(t, id) in elastomers" :key="id" :value="id">{{ t }}</option>
        </BFormSelect>
      </label>
      <label
        >Service
        <BFormSelect v-model="service">
          <option v-for="(t, id) in lubricantServices" :key="id" :value="id">{{ t }}</option>
        </BFormSelect>
      </label>
    </div>
    <ul class="all" aria-label="Lubricants">
      <li v-for="l in all" :key="l.id">
        <BFormRadio v-model="lubricant" :value="l.id" name="lubricant">
          <span class="name">{{ lubricants[l.id] }}</span>
          <StateMark :state="MARKS[l.verdict][0]" :label="MARKS[l.verdict][1]" />
        </BFormRadio>
        <div v-if="l.id === lubricant" class="why" aria-live="polite">
          <p v-for="r in l.reasons" :key="r">{{ r }}</p>
        </div>
      </li>
    </ul>
    <p class="soft">General compatibility: the maker’s sheet governs.</p>
    <AttachResult
      :result="{
        computation: 'lubricant-advice',
        title: 'Lubricant',
        says: `${lubricants[lubricant]} on ${elastomers[elastomer]}, ${lubricantServices[service]}: ${MARKS[advice.verdict][1].toLowerCase()}. ${advice.reasons.join(' ')}`,
      }"
    />
  </section>
</template>

<style scoped>
.entry {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
  gap: 0.6rem;
  margin-bottom: 0.75rem;
}

label {
  font-weight: 600;
}

.all {
  list-style: none;
  padding: 0;
  margin: 0 0 0.75rem;
}

.all li {
  border-bottom: 1px solid var(--rule);
}

.all :deep(.form-check) {
  display: flex;
  gap: 0.75rem;
  align-items: center;
  min-height: 48px;
  margin: 0;
}

.all :deep(.form-check-input) {
  flex: none;
  margin-top: 0;
}

.all :deep(.form-check-label) {
  display: flex;
  flex: 1;
  flex-wrap: wrap;
  gap: 0.25rem 1rem;
  justify-content: space-between;
}

.name {
  font-weight: 500;
}

.why {
  padding: 0 0 0.6rem 1.5rem;
}

p {
  margin-bottom: 0.3rem;
}
</style>
