<script setup lang="ts">
import { checkCost } from '@uvanta/core/procedure'
import type { DiagnosisQuestion } from '@uvanta/core/visit'
import { computed, watch } from 'vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'
import { useDiagnosis } from '@/workers/useDiagnosis'

/** After a test that did not pass: what it may be, by likelihood, and what to look at. */
const props = defineProps<{ question: DiagnosisQuestion }>()
const emit = defineEmits<{ suspects: [elements: readonly string[]] }>()
const store = useVisit()
const library = useLibrary()
const { diagnosis, part, failed } = useDiagnosis(computed(() => props.question))

const SHOWN = 4
/** Faults that are rarer than this are looked for once those before them are ruled out. */
const LEAST = 0.03
const shown = computed(
  () =>
    diagnosis.value?.suspects.slice(0, SHOWN).map((s) => ({
      ...s,
      faults: s.faults.filter((f, n) => n === 0 || f.chance >= LEAST),
    })) ?? [],
)
/** The check that was not made and would tell most, and what it costs. */
const next = computed(() => {
  const { procedure } = props.question
  const [best] = diagnosis.value?.next ?? []
  const step = procedure.steps.find((s) => s.record?.item === best?.item)
  const cost = best && checkCost(procedure, best.item)
  if (!step || !cost) return null
  const supply = cost.interrupts ? 'the supply is shut off meanwhile' : 'the supply stays on'
  return { title: step.title, cost: `about ${cost.minutes} min, ${supply}` }
})
/** What the machine’s own table says to do first about the likeliest part, else what its likeliest fault wants. */
const firstAid = computed(() => {
  const [suspect] = shown.value
  const family = store.visit?.equipment.family ?? ''
  const own = library.library?.machines
    .filter((m) => m.families.includes(family))
    .flatMap((m) =>
      (m.symptoms ?? []).filter(
        (s) => s.first && m.parts.find((p) => p.id === s.look[0])?.element === suspect?.element,
      ),
    )
    .find((s) => s.first)?.first
  return suspect ? (own ?? suspect.faults[0]?.first) : undefined
})
const percent = (chance: number) => `${Math.round(chance * 100)} %`
/** Readings that sound equipment may show as well are taken again before anything is opened. */
const doubtful = computed(() => (diagnosis.value?.sound ?? 0) > 0.2)
watch(diagnosis, (d) => emit('suspects', d?.suspects.map((s) => s.element) ?? []))
</script>

<template>
  <!-- Said once it is worked out, and not at every step on the way. -->
  <section
    class="section"
    aria-labelledby="diagnosis-title"
    aria-live="polite"
    :aria-busy="!diagnosis && !failed"
  >
    <h2 id="diagnosis-title">What it may be</h2>
    <p v-if="failed" class="soft">It could not be worked out on this device.</p>
    <template v-else-if="!diagnosis">
      <label for="diagnosis-part" class="soft"
        >The model is asked what each fault would read.</label
      >
      <progress id="diagnosis-part" :value="part" max="1"></progress>
    </template>
    <template v-else>
      <p v-if="doubtful" class="caution">
        Sound equipment may read like this as well ({{ percent(diagnosis.sound) }}): take the
        readings once more before it is opened.
      </p>
      <p v-if="!diagnosis.explained" class="caution">
        No single fault explains all of this. There may be two, or one that the model does not know.
      </p>
      <p v-if="diagnosis.pairs.length > 0">
        Two faults together may explain it:
        <template v-for="(p, n) in diagnosis.pairs.slice(0, 2)" :key="p.elements.join()"
          ><template v-if="n > 0">; </template
          ><strong>{{ p.labels[0] }} and {{ p.labels[1] }}</strong> ({{
            percent(p.chance)
          }})</template
        >.
      </p>
      <ol class="suspects">
        <li v-for="s in shown" :key="s.element">
          <p class="head">
            <strong>{{ s.label }}</strong>
            <meter :value="s.chance" :aria-label="`How likely: ${s.label}`" />
            <span class="mono">{{ percent(s.chance) }}</span>
          </p>
          <dl>
            <template v-for="f in s.faults" :key="f.fault">
              <dt>
                {{ f.title }} <span class="mono soft">{{ percent(f.chance) }}</span>
              </dt>
              <dd>{{ f.look }} {{ f.first }}</dd>
            </template>
          </dl>
        </li>
      </ol>
      <template v-if="next">
        <h3>The check that would tell most</h3>
        <p>{{ next.title }} – {{ next.cost }}.</p>
      </template>
      <template v-if="firstAid">
        <h3>Try this first</h3>
        <p>{{ firstAid }}</p>
        <p class="soft small">
          The readings above stay on record as found. Isolate, vent and prove zero before anything
          is opened or cleaned; then test again.
        </p>
      </template>
      <p class="soft small">
        Worked out with a model of the kind, one fault at a time. The opened part decides; the
        maker’s sheet and the local code come first.
      </p>
    </template>
  </section>
</template>

<style scoped>
progress {
  width: 100%;
  height: 0.75rem;
  accent-color: var(--blue);
}

.suspects {
  list-style: none;
  padding: 0;
  margin: 0;
}

.suspects > li {
  border-top: 1px solid var(--rule);
  padding: 0.6rem 0 0.4rem;
}

.head {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 6rem 3.5rem;
  gap: 0.75rem;
  align-items: center;
  margin: 0;
  font-size: 1.125rem;
}

.head .mono {
  text-align: right;
}

/* How likely is no verdict: it has no verdict's colour. */
meter {
  width: 100%;
  height: 0.75rem;
  background: none;
}

meter::-webkit-meter-bar {
  height: 0.75rem;
  background: var(--paper-sunk);
  border: 1px solid var(--rule-strong);
  border-radius: 0;
}

meter::-webkit-meter-optimum-value,
meter::-moz-meter-bar {
  background: var(--blue);
  border-radius: 0;
}

dl {
  margin: 0.25rem 0 0;
}

dt {
  font-weight: 600;
}

dd {
  margin: 0 0 0.4rem;
}
</style>
