<script setup lang="ts">
import { throwSymmetry } from '@uvanta/core/craft'
import { roundTo } from '@uvanta/core/quantity'
import { computed, reactive } from 'vue'
import StateMark from '@/parts/StateMark.vue'
import AttachResult from './AttachResult.vue'
import { attempt } from './attempt'

/** A shuttle thrown both ways: equal projections, or the shaft is in backwards. */
const form = reactive({ one: '31', other: '30' })
const outcome = computed(() =>
  attempt(() => throwSymmetry({ one: Number(form.one), other: Number(form.other) })),
)
const longest = computed(() => Math.max(Number(form.one) || 0, Number(form.other) || 0, 1))
const length = (text: string) => (70 * Math.min(Number(text) || 0, longest.value)) / longest.value
</script>

<template>
  <section class="section" aria-labelledby="throw-title">
    <h2 id="throw-title">Throws of a shuttle</h2>
    <div class="entry">
      <label>One end, mm <BFormInput v-model="form.one" class="mono" /></label>
      <label>Other end, mm <BFormInput v-model="form.other" class="mono" /></label>
    </div>
    <svg viewBox="0 0 320 70" role="img" aria-label="Both projections, drawn to one scale">
      <path d="M90 10H230V60H90Z" class="body" />
      <path :d="`M90 29H${90 - length(form.one)}V41H90`" class="rod" />
      <path :d="`M230 29H${230 + length(form.other)}V41H230`" class="rod" />
    </svg>
    <p v-if="'says' in outcome" class="caution" role="alert">{{ outcome.says }}</p>
    <template v-else>
      <p>
        <StateMark :state="outcome.answer.equal ? 'pass' : 'fail'" :label="outcome.answer.says" />
      </p>
      <AttachResult
        :result="{
          computation: 'throw-symmetry',
          title: 'Throws of a shuttle',
          says: `${form.one} and ${form.other} mm, ${roundTo(outcome.answer.difference, 1)} apart. ${outcome.answer.says}`,
        }"
      />
    </template>
  </section>
</template>

<style scoped>
.entry {
  display: grid;
  grid-template-columns: 9rem 9rem;
  gap: 0.6rem;
  margin-bottom: 0.5rem;
}

label {
  font-weight: 600;
}

svg {
  max-width: 20rem;
}

.body,
.rod {
  fill: var(--paper-raised);
  stroke: var(--ink);
  stroke-width: 2.6;
}
</style>
