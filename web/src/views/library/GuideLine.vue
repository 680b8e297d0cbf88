<script setup lang="ts">
import { type Guide, type PlacedStep, slotsOf, stepWords } from '@uvanta/core/guide'
import { computed } from 'vue'
import StepNotes from '@/parts/guide/StepNotes.vue'

/** A step as a line of the document: what is done, when, and all that it says beside. */
const props = defineProps<{ guide: Guide; step: PlacedStep }>()
const variantTitle = (id: string) => props.guide.variants.find((v) => v.id === id)?.title ?? id
const slotTitle = (id: string) => props.guide.slots?.find((s) => s.id === id)?.title ?? id
const partTitle = (id: string) => props.guide.parts.find((p) => p.id === id)?.title ?? id
const jobTitle = (id: string) => props.guide.jobs?.find((j) => j.id === id)?.title ?? id
const foundWords = (when: Readonly<Record<string, readonly string[]>>) =>
  Object.entries(when)
    .map(([part, found]) => `${partTitle(part).toLowerCase()}: ${found.join(' or ')}`)
    .join(', ')
/** When it is done, besides always. */
const conditions = computed(() => {
  const { only, jobs, without, when, whenAny } = props.step
  return [
    ...(only ? [only.map(variantTitle).join(', ')] : []),
    ...(jobs ? [`with ${jobs.map(jobTitle).join(', or ')}`] : []),
    ...(without ? [`without ${without.map(jobTitle).join(', ')}`] : []),
    ...(when ? [`if ${foundWords(when)}`] : []),
    ...(whenAny ? [`if ${whenAny.map(foundWords).join('; or ')}`] : []),
  ]
})
const choiceWords = ({ title, widens }: { title: string; widens?: string | undefined }) =>
  widens ? `${title} (widens the work: ${jobTitle(widens)})` : title
</script>

<template>
  <span class="mono soft">{{ step.id }}</span>
  <div>
    <strong>{{ stepWords(step) }}</strong>
    <span v-for="c in conditions" :key="c" class="soft small"> · {{ c }}</span>
    <p v-if="step.differs" class="differs">{{ step.differs }}</p>
    <p v-if="step.hazard" class="caution">{{ step.hazard }}</p>
    <p v-if="step.orient" class="line"><strong>Which way</strong> {{ step.orient }}</p>
    <StepNotes :step="step" :title-of="partTitle" />
    <p v-if="step.verdicts" class="line">
      Look for {{ step.defects?.join(', ') }}. Found:
      {{ step.verdicts.map(choiceWords).join(' · ') }}
    </p>
    <p v-if="step.answers" class="line">Answers: {{ step.answers.map(choiceWords).join(' · ') }}</p>
    <p v-for="s in slotsOf(step)" :key="s" class="line">From the spec sheet: {{ slotTitle(s) }}</p>
    <p v-if="step.to?.effect" class="line">Tight when {{ step.to.effect }}</p>
    <p v-if="step.never" class="line never">{{ step.never }}</p>
    <p v-if="step.why" class="line soft">{{ step.why }}</p>
    <p v-if="step.tip" class="line soft">{{ step.tip }}</p>
    <p v-if="step.until" class="line">Until {{ step.until }}; at most {{ step.most }} times.</p>
  </div>
</template>

<style scoped>
.differs {
  border: 2px solid var(--blue);
  padding: 0.3rem 0.6rem;
  margin: 0.3rem 0;
  font-weight: 700;
}

.never {
  font-weight: 600;
}

.line {
  margin: 0.15rem 0 0;
}

.line strong {
  margin-right: 0.4rem;
}
</style>
