<script setup lang="ts">
import { type PlacedStep, stepWords } from '@uvanta/core/guide'
import type { PayloadOf, Refusal } from '@uvanta/core/visit'
import { computed, ref, shallowRef } from 'vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useVisit } from '@/stores/visit'
import SlotValue from './SlotValue.vue'
import { useGuide } from './useGuide'

/** One step of a guide: the sentence large, why, what never, and one big action. */
const props = defineProps<{ step: PlacedStep; number: number; of: number }>()
const store = useVisit()
const { guide, missing, valueOf, slotOf } = useGuide(() => props.step.at)
const refusal = shallowRef<Refusal | null>(null)
const rounds = ref(1)

const partTitle = (id: string) => guide.value?.parts.find((p) => p.id === id)?.title ?? id
/** What the sheet says for this step: torque, ceiling, turn, count. */
const figures = computed(() => {
  const { to, slot, rounds: r, hold } = props.step
  return [to?.torque, to?.ceiling, slot, r, hold].flatMap((id) => {
    const value = id ? valueOf(id) : undefined
    return id && value
      ? [
          {
            id,
            title: slotOf(id)?.title ?? id,
            text: `${value.value} ${value.unit ?? ''}`,
            source: value.source,
            ceiling: id === to?.ceiling,
          },
        ]
      : []
  })
})
const tightenWords = computed(() => {
  const { to, pattern, untilNoneMoves } = props.step
  if (!to) return ''
  const how = to.turn ?? (to.snug ? 'snug, then check' : (to.effect ?? ''))
  const cross = pattern && pattern !== 'none' ? `${pattern.replace('-', ' ')} pattern` : ''
  return [how, cross, untilNoneMoves ? 'round and round until none moves' : '']
    .filter(Boolean)
    .join(' · ')
})

function done(finding?: string) {
  const payload: PayloadOf<'guide-step'> = {
    step: props.step.id,
    at: props.step.at,
    ...(finding ? { finding } : {}),
    ...(props.step.repeat ? { rounds: rounds.value } : {}),
  }
  refusal.value = store.record('guide-step', payload)
}
</script>

<template>
  <div>
    <p class="soft small">Step {{ number }} of {{ of }} · {{ step.id }}</p>
    <h3 class="say">{{ stepWords(step) }}</h3>
    <p v-if="step.differs" class="differs">{{ step.differs }}</p>
    <p v-if="step.hazard" class="caution">{{ step.hazard }}</p>
    <p v-if="step.orient" class="orient"><strong>Which way</strong> {{ step.orient }}</p>
    <p v-if="step.never" class="caution never"><strong>Never</strong> {{ step.never }}</p>
    <p v-if="tightenWords" class="how">{{ tightenWords }}</p>
    <p v-for="f in figures" :key="f.id" class="figure">
      <span class="mono">{{ f.text }}</span>
      <span class="soft"
        >{{ f.ceiling ? 'no more than – ' : '' }}{{ f.title }} · {{ f.source }}</span
      >
    </p>

    <SlotValue
      v-for="s in missing"
      :key="s"
      :slot-id="s"
      :slot-title="slotOf(s)?.title ?? s"
      :dimension="slotOf(s)?.dimension"
    />

    <template v-if="missing.length === 0">
      <ol v-if="step.steps" class="inner">
        <li v-for="i in step.steps" :key="i.id">{{ stepWords(i) }}</li>
      </ol>
      <div
        v-if="step.verdicts"
        class="answers"
        role="group"
        :aria-label="partTitle(step.inspect ?? '')"
      >
        <p class="soft">
          Look for: {{ step.defects?.join(', ') }} – by {{ step.by?.join(' and ') ?? 'eye' }}
        </p>
        <BButton
          v-for="v in step.verdicts"
          :key="v.id"
          size="lg"
          :variant="v.id === 'stop' ? 'outline-danger' : 'outline-primary'"
          @click="done(v.id)"
          >{{ v.title }}</BButton
        >
      </div>
      <div v-else class="actions">
        <label v-if="step.repeat" class="rounds"
          >Rounds
          <input
            v-model.number="rounds"
            type="number"
            min="1"
            :max="step.most ?? 50"
            class="form-control mono"
          />
        </label>
        <BButton variant="primary" size="lg" @click="done()">{{
          step.repeat
            ? `Done – ${step.until}`
            : step.orient
              ? 'Yes, it goes this way – done'
              : step.gate
                ? 'Confirmed'
                : 'Done'
        }}</BButton>
      </div>
    </template>
    <ProblemNote :problem="null" :message="refusal ? `${refusal.why} ${refusal.todo}` : ''" />
    <p v-if="step.why" class="why"><strong>Why</strong> {{ step.why }}</p>
    <p v-if="step.tip" class="why"><strong>Tip</strong> {{ step.tip }}</p>
    <p v-for="s in step.school" :key="s.school" class="why">
      <strong>{{ s.school }}</strong> {{ s.says }}
    </p>
  </div>
</template>

<style scoped>
.say {
  font-size: 1.75rem;
  line-height: 1.2;
  text-wrap: pretty;
  margin-bottom: 0.6rem;
}

.differs {
  border: 3px solid var(--blue);
  padding: 0.5rem 0.8rem;
  font-weight: 700;
}

.orient {
  border-left: 6px solid var(--blue);
  background: var(--blue-wash);
  padding: 0.6rem 0.9rem;
  font-size: 1.125rem;
}

.orient strong,
.never strong,
.why strong {
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

.answers {
  display: grid;
  gap: 0.6rem;
  max-width: 30rem;
}

.answers p {
  margin: 0;
}

.answers .btn {
  justify-content: flex-start;
  text-align: left;
}

.why {
  color: var(--ink-soft);
  margin: 0.6rem 0 0;
  max-width: 44rem;
}

.why strong {
  color: var(--ink);
}

.rounds input {
  width: 6rem;
}

@media (max-width: 700px) {
  .say {
    font-size: 1.375rem;
  }

  .actions .btn-primary {
    width: 100%;
  }
}
</style>
