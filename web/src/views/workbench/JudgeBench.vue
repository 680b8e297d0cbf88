<script setup lang="ts">
import { apparatusKinds, apparatusOf, nominalDimension, nominalNames } from '@uvanta/core/apparatus'
import { CannotCompute } from '@uvanta/core/errors'
import { testPlanOf } from '@uvanta/core/library'
import { type Dimension, parseDisplayed, unitsOf } from '@uvanta/core/quantity'
import { judgeTest, type TestRun } from '@uvanta/core/rules'
import { computed, reactive, ref, watch } from 'vue'
import { sentence, unitOptions } from '@/composables/words'
import EquipmentDrawing from '@/parts/drawing/EquipmentDrawing.vue'
import FigureEntry from '@/parts/form/FigureEntry.vue'
import VerdictList from '@/parts/VerdictList.vue'
import { useLibrary } from '@/stores/library'

/** A test judged without a visit: the figures of a colleague’s sheet, or a case to learn from. */
interface Figure {
  text: string
  unit: string
}
const library = useLibrary()
const kind = ref('spring regulator')
const packId = ref('')
const figures = reactive<Record<string, Figure>>({})
const answers = reactive<Record<string, string>>({})

const titleOf = (k: string) => sentence(apparatusOf(k)?.title ?? k)
const kinds = apparatusKinds
  .map((value) => ({ value, text: titleOf(value) }))
  .toSorted((a, b) => a.text.localeCompare(b.text))
const packs = computed(() =>
  (library.library?.rulePacks ?? []).filter((p) => p.tests.some((t) => t.kind === kind.value)),
)
watch(packs, (now) => (packId.value = now[0]?.id ?? ''), { immediate: true })
const plan = computed(() =>
  library.library && packs.value.some((p) => p.id === packId.value)
    ? testPlanOf(library.library, packId.value, kind.value)
    : null,
)
const records = computed(() => plan.value?.procedure.steps.flatMap((s) => s.record ?? []) ?? [])
const readings = computed(() => records.value.filter((r) => r.ask === 'reading'))
const questions = computed(() => records.value.filter((r) => r.ask === 'answer'))
const nominals = computed(() => apparatusOf(kind.value)?.nominals ?? [])

watch(
  [kind, packId],
  () => {
    for (const key of Object.keys(figures)) delete figures[key]
    for (const key of Object.keys(answers)) delete answers[key]
  },
  { flush: 'sync' },
)
const figure = (name: string, dimension: Dimension, unit?: string): Figure =>
  (figures[name] ??= { text: '', unit: unit ?? unitsOf(dimension)[0] ?? '' })

/** What was entered of a figure; nothing where it was left empty. */
function given(name: string, dimension: Dimension) {
  const { text = '', unit = '' } = figures[name] ?? {}
  if (text.trim() === '') return []
  parseDisplayed(text)
  return [{ dimension, value: text.trim(), unit }]
}
const outcome = computed(() => {
  if (!plan.value) return null
  try {
    const run = {
      readings: readings.value.flatMap((r) =>
        given(r.item, r.dimension as Dimension).map((q) => ({
          item: r.item,
          ...q,
          ...given(`${r.item} held`, 'time').reduce<{ heldS?: number }>(
            (_, held) => ({ heldS: Number(held.value) * (held.unit === 'min' ? 60 : 1) }),
            {},
          ),
        })),
      ),
      answers: questions.value.flatMap((q) => {
        const option = q.answers?.find((a) => a.id === answers[q.item])
        return option ? [{ item: q.item, answer: option.id, label: option.label }] : []
      }),
      order: records.value.map((r) => r.item),
      nominals: Object.fromEntries(
        nominals.value.flatMap((name) =>
          given(name, nominalDimension(name)).map((q) => [name, q] as const),
        ),
      ),
    }
    return { verdict: judgeTest(plan.value, run as TestRun) }
  } catch (error) {
    if (error instanceof CannotCompute) return { says: error.message }
    throw error
  }
})
</script>

<template>
  <section class="section whole" aria-labelledby="bench-judge">
    <h2 id="bench-judge">Judge a test</h2>
    <p class="soft">
      As a visit would judge it. It is no record: nothing here stands on a certificate.
    </p>
    <div class="choice">
      <div>
        <label for="judge-kind">Equipment</label>
        <BFormSelect id="judge-kind" v-model="kind" :options="kinds" />
      </div>
      <div>
        <label for="judge-pack">Rules</label>
        <BFormSelect
          id="judge-pack"
          v-model="packId"
          :options="packs.map((p) => ({ value: p.id, text: p.title }))"
        />
      </div>
    </div>
    <div v-if="plan" class="sides">
      <div>
        <EquipmentDrawing class="drawn" :kind="kind" :tag="titleOf(kind)" />
        <h3 v-if="nominals.length > 0">What it is judged by</h3>
        <div class="entry">
          <FigureEntry
            v-for="n in nominals"
            :key="n"
            v-model:text="figure(n, nominalDimension(n)).text"
            v-model:unit="figure(n, nominalDimension(n)).unit"
            :label="nominalNames[n]"
            :units="unitOptions(nominalDimension(n))"
          />
        </div>
        <h3>Readings</h3>
        <div class="entry">
          <template v-for="r in readings" :key="r.item">
            <FigureEntry
              v-model:text="figure(r.item, r.dimension as Dimension, r.unit).text"
              v-model:unit="figure(r.item, r.dimension as Dimension, r.unit).unit"
              :label="r.title"
              :units="unitOptions(r.dimension as Dimension)"
            />
            <FigureEntry
              v-if="r.hold"
              v-model:text="figure(`${r.item} held`, 'time', 'min').text"
              v-model:unit="figure(`${r.item} held`, 'time', 'min').unit"
              :label="`${r.title}: held for`"
              :units="[
                { value: 's', text: 's' },
                { value: 'min', text: 'min' },
              ]"
            />
          </template>
        </div>
        <h3 v-if="questions.length > 0">Seen</h3>
        <div class="entry">
          <div v-for="q in questions" :key="q.item">
            <label :for="`judge-${q.item}`">{{ q.title }}</label>
            <BFormSelect
              :id="`judge-${q.item}`"
              v-model="answers[q.item]"
              :options="[
                { value: undefined, text: '–' },
                ...(q.answers ?? []).map((a) => ({ value: a.id, text: a.label })),
              ]"
            />
          </div>
        </div>
      </div>
      <div aria-live="polite">
        <p v-if="outcome && 'says' in outcome" class="caution" role="alert">{{ outcome.says }}</p>
        <VerdictList
          v-else-if="outcome?.verdict"
          :verdict="outcome.verdict"
          title="Readings and verdict"
        />
      </div>
    </div>
  </section>
</template>

<style scoped>
.whole {
  grid-column: 1 / -1;
}

.choice {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(14rem, 1fr));
  gap: 0.75rem 1.5rem;
  max-width: 46rem;
}

label {
  font-weight: 600;
}

.sides {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 0 2.5rem;
}

.drawn {
  max-width: 34rem;
  margin-top: 1rem;
}

h3 {
  font-size: 1.125rem;
  margin: 1rem 0 0.4rem;
}

.entry {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(13rem, 1fr));
  gap: 0.6rem 1rem;
  align-items: end;
}

@media (max-width: 50em) {
  .sides {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
