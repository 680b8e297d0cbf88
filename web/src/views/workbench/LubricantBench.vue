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

/** Which lubricant on which rubber in which service, and why. */
const elastomer = ref<Elastomer>('epdm')
const lubricant = ref<Lubricant>('petrolatum')
const service = ref<LubricantService>('drinking-water')
const advice = computed(() => lubricantAdvice(elastomer.value, lubricant.value, service.value))
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
        >Lubricant
        <BFormSelect v-model="lubricant">
          <option v-for="(t, id) in lubricants" :key="id" :value="id">{{ t }}</option>
        </BFormSelect>
      </label>
      <label
        >Service
        <BFormSelect v-model="service">
          <option v-for="(t, id) in lubricantServices" :key="id" :value="id">{{ t }}</option>
        </BFormSelect>
      </label>
    </div>
    <p class="verdict">
      <StateMark :state="MARKS[advice.verdict][0]" :label="MARKS[advice.verdict][1]" />
    </p>
    <p v-for="r in advice.reasons" :key="r">{{ r }}</p>
    <p v-if="advice.instead.length > 0">
      <strong>Instead</strong> {{ advice.instead.map((l) => lubricants[l]).join(', ') }}
    </p>
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

.verdict :deep(.state) {
  font-size: 1.5rem;
  font-weight: 700;
}

p {
  margin-bottom: 0.3rem;
}
</style>
