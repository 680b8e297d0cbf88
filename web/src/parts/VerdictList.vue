<script setup lang="ts">
import { advisoryWords, type Judgement } from '@uvanta/core/rules'
import type { Moved } from '@uvanta/core/visit'
import { dateWords, outcomeWords, unitWords } from '@/composables/words'
import Reading from './Reading.vue'
import StateMark from './StateMark.vue'

/** Every item of a verdict with its reading, limit, margin and reason; then the whole. */
const props = defineProps<{
  verdict: Judgement
  title?: string
  /** The whole stands elsewhere on the page. */
  itemsOnly?: boolean
  /** Items whose trace can be looked at. */
  traced?: readonly string[]
  /** What its readings have moved by since the visit before. */
  moved?: readonly Moved[]
}>()
const emit = defineEmits<{ trace: [item: string] }>()

const movedOf = (item: string) => props.moved?.find((m) => m.item === item)
const percent = (p: number) => (p < 0.001 ? 'under 0.1 %' : `${(p * 100).toFixed(1)} %`)
</script>

<template>
  <section class="verdict" :aria-label="title ?? 'Verdict'">
    <h2 v-if="title">{{ title }}</h2>
    <ul class="rows">
      <li v-for="i in verdict.items" :key="i.id" class="item">
        <StateMark :state="i.outcome" />
        <div class="what">
          <div>
            <div class="name">
              {{ i.title
              }}<span v-if="i.requirement !== 'required'" class="soft small">
                · {{ i.requirement }}</span
              >
            </div>
            <BButton
              v-if="traced?.includes(i.id)"
              class="trace"
              size="sm"
              variant="link"
              @click="emit('trace', i.id)"
              >Trace of {{ i.title.toLowerCase() }}</BButton
            >
          </div>
          <div>
            <div v-if="i.reason !== i.answer" class="soft small reason">{{ i.reason }}</div>
            <div v-if="i.heldS !== undefined" class="soft small">
              Held {{ (i.heldS / 60).toFixed(1) }} min
            </div>
            <div v-if="movedOf(i.id)" class="soft small">
              Left at <span class="mono">{{ movedOf(i.id)?.left }}</span> on
              {{ dateWords(movedOf(i.id)?.on) }}: moved
              <span class="mono">{{ movedOf(i.id)?.by }}</span>
            </div>
            <div v-if="i.counted" class="soft small">Counted: its limit is held as printed</div>
            <div v-if="i.expanded" class="soft small facts mono">
              U {{ i.expanded
              }}<template v-if="i.tur && Number.isFinite(i.tur)">
                · ratio {{ i.tur.toFixed(0) }}:1</template
              ><template v-if="i.questioned"> (low)</template
              ><template v-if="i.falseAccept">
                · false accept {{ percent(i.falseAccept) }}</template
              >
              <template v-if="i.guarded && i.simple !== i.guarded">
                · guarded: {{ outcomeWords[i.guarded].toLowerCase() }}</template
              >
            </div>
          </div>
        </div>
        <Reading
          v-if="i.reading"
          :value="i.corrected ?? i.reading"
          :unit="unitWords(i.dimension ?? '', i.unit ?? '')"
        />
        <span v-else-if="i.answer" class="answer">{{ i.answer.split(' – ')[0] }}</span>
      </li>
    </ul>
    <details v-if="verdict.items.some((i) => i.expanded)" class="soft small">
      <summary>What U and ratio say</summary>
      U: the true value lies within so much of the reading, in 19 cases of 20, by the gauge’s
      accuracy and resolution. Ratio: the limit against U; a low one leaves the verdict open to
      doubt near the limit. False accept: how probable it is that what passed does not meet its
      limit.
    </details>
    <div v-if="!itemsOnly" class="whole" :class="verdict.outcome" role="status">
      <StateMark
        :state="verdict.outcome"
        :label="`${outcomeWords[verdict.outcome]}${advisoryWords(verdict)}`"
      />
      <p>{{ verdict.reason }}</p>
      <p class="soft small">
        {{ verdict.rulePack.title }}, version {{ verdict.rulePack.version }} ·
        {{ verdict.decisionRule }} acceptance
      </p>
    </div>
  </section>
</template>

<style scoped>
h2 {
  font-size: 1.0625rem;
  margin-bottom: 0.5rem;
}

.item {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) fit-content(40%);
  gap: 0.6rem;
  padding: 0.5rem 0;
  align-items: start;
}

.name {
  font-weight: 600;
}

.verdict {
  container-type: inline-size;
}

@container (min-width: 38rem) {
  .what {
    display: grid;
    grid-template-columns: 15rem minmax(0, 1fr);
    gap: 0.25rem 1rem;
  }

  .item {
    padding: 0.3rem 0;
  }
}

.reason {
  line-height: 1.3;
}

.trace {
  padding: 0;
  text-align: start;
}

.facts {
  font-size: 0.875rem;
}

.answer {
  font-weight: 600;
}

.whole {
  padding: 0.75rem 0.9rem;
  background: var(--paper-sunk);
}

.whole.pass,
.whole.pass-uncertain {
  background: var(--pass-wash);
}

.whole.fail,
.whole.fail-uncertain {
  background: var(--fail-wash);
}

.whole :deep(.state) {
  font-size: 1.25rem;
  font-weight: 700;
}

.whole p {
  margin: 0.25rem 0 0;
}
</style>
