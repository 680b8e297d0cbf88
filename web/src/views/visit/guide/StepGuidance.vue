<script setup lang="ts">
import { passedOver, type PlacedStep, relaxingOf } from '@uvanta/core/guide'
import { settingAsFound } from '@uvanta/core/visit'
import { computed } from 'vue'
import PartShape from '@/parts/drawing/PartShape.vue'
import StepNotes from '@/parts/guide/StepNotes.vue'
import { useVisit } from '@/stores/visit'
import { useGuide } from '../bench/useGuide'
import LubricantNote from './LubricantNote.vue'

/** What a step has to be known for before it is done: hazard, which way, never, figures with their source. */
const props = defineProps<{ step: PlacedStep }>()
const store = useVisit()
const { guide, run, valueOf, slotOf, partOf } = useGuide(() => props.step.at)

const part = computed(() =>
  partOf(props.step.fit ?? props.step.renew ?? props.step.remove ?? props.step.inspect),
)
const titleOf = (id: string) =>
  [...(guide.value?.parts ?? []), ...(guide.value?.fasteners ?? [])].find((p) => p.id === id)
    ?.title ?? id
const over = computed(() => (run.value ? passedOver(run.value, props.step) : null))
const asFound = computed(() =>
  run.value ? settingAsFound(store.state, run.value, props.step) : undefined,
)
/** What the sheet says for this step: torque, ceiling, turn, count. */
const figures = computed(() => {
  const step = relaxingOf(props.step) ?? props.step
  const { to, slot, rounds, hold } = step
  // The torque of a step of its own stands on its card.
  const torques = step.untilNoneMoves || !props.step.tighten ? [to?.torque, to?.ceiling] : []
  return [...torques, slot, rounds, hold].flatMap((id) => {
    const value = valueOf(id)
    if (!id || !value) return []
    return [{ id, title: slotOf(id)?.title ?? id, value, ceiling: id === to?.ceiling }]
  })
})
const PATTERNS = {
  cross: 'crosswise',
  'pairs-first': 'the pair first, then crosswise',
  even: 'evenly, turn for turn',
  none: '',
} as const
const tightenWords = computed(() => {
  const { to, pattern, untilNoneMoves } = props.step
  if (!to) return ''
  const how = to.turn ?? (to.snug ? 'snug, then check' : to.effect ? `tight when ${to.effect}` : '')
  const cross = pattern ? PATTERNS[pattern] : ''
  return [how, cross, untilNoneMoves ? 'round and round until none moves' : '']
    .filter(Boolean)
    .join(' · ')
})
</script>

<template>
  <p v-if="step.differs" class="differs">{{ step.differs }}</p>
  <p v-if="over" class="differs">
    Not the tray walked back: {{ part?.title }} goes in now, although {{ over.title }} came off
    last.
  </p>
  <p v-if="step.hazard" class="caution">{{ step.hazard }}</p>
  <div v-if="step.orient" class="orient">
    <PartShape
      v-if="part"
      :shape="part.shape"
      :title="part.title"
      :facing="step.facing ?? undefined"
    />
    <p><strong>Which way</strong> {{ step.orient }}</p>
  </div>
  <StepNotes :step="step" :title-of="titleOf" />
  <LubricantNote :step="step" />
  <p v-if="step.never" class="caution">{{ step.never }}</p>
  <p v-if="asFound" class="figure">
    <span class="mono">{{ asFound }}</span> <span class="soft">as it was found</span>
  </p>
  <p v-if="tightenWords" class="how">{{ tightenWords }}</p>
  <p v-for="f in figures" :key="f.id" class="figure">
    <span class="mono">{{ f.value.value }} {{ f.value.unit }}</span>
    <span class="soft"
      >{{ f.ceiling ? 'no more than – ' : '' }}{{ f.title }} · {{ f.value.source }}</span
    >
  </p>
</template>

<style scoped>
.differs {
  border: 3px solid var(--blue);
  padding: 0.5rem 0.8rem;
  font-weight: 700;
}

.orient {
  display: flex;
  gap: 1rem;
  align-items: center;
  border: 2px solid var(--blue);
  background: var(--paper-raised);
  padding: 0.5rem 0.9rem;
  font-size: 1.125rem;
  margin-bottom: 0.75rem;
}

.orient p {
  margin: 0;
}

strong {
  margin-right: 0.5rem;
}

.caution {
  margin-bottom: 0.6rem;
}

.how {
  font-size: 1.125rem;
}

.figure .mono {
  font-size: 2rem;
  font-weight: 600;
  margin-right: 0.75rem;
}
</style>
