<script setup lang="ts">
import { apparatusOf } from '@uvanta/core/apparatus'
import { unitLabel } from '@uvanta/core/quantity'
import { planOfVisit, type RunName, stationTitles } from '@uvanta/core/visit'
import { computed, shallowRef } from 'vue'
import { ApiProblem } from '@/api/client'
import { dateWords } from '@/composables/words'
import { useTitle } from '@/composables/useTitle'
import EquipmentDrawing from '@/parts/drawing/EquipmentDrawing.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import TitleBlock from '@/parts/TitleBlock.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { useSession } from '@/stores/session'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'

const session = useSession()

/** The same procedure on paper, for when the battery dies: print it, fill it, enter it later. */
const props = defineProps<{ id: string; run: RunName }>()
const store = useVisit()
const library = useLibrary()
const problem = shallowRef<ApiProblem | null>(null)
async function load() {
  problem.value = null
  try {
    await store.open(props.id)
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error
    problem.value = error
  }
}
void load()

const equipment = computed(() => store.visit?.equipment)
useTitle(() => (equipment.value ? `${equipment.value.tag}, blank form` : undefined))
const plan = computed(() =>
  library.library && equipment.value && apparatusOf(equipment.value.kind)
    ? planOfVisit(store.state, library.library, props.run)
    : null,
)
const cells = computed(() => {
  const e = equipment.value
  if (!e || !store.visit) return []
  return [
    { label: 'Site', value: `${e.site}, ${e.address}`, span: 2 },
    { label: 'Position', value: e.position },
    { label: 'Serial', value: e.serial, mono: true },
    { label: 'Kind', value: `${e.kind} ${e.sizeIn} in` },
    { label: 'Test', value: stationTitles[props.run].split(' ')[0] ?? '' },
    { label: 'Planned', value: dateWords(store.visit.plannedOn) },
  ]
})
const print = () => window.print()
const BLANKS = ['Date and time', 'Gauge and its calibration', 'Line pressure', 'Tester and licence']
</script>

<template>
  <div class="paper-form">
    <ProblemNote :problem="problem" @retry="load" />
    <WaitingLine v-if="!store.visit && !problem" what="the form" />
    <template v-if="equipment && plan">
      <TitleBlock :title="equipment.tag" :cells="cells" />
      <p class="no-print mt-3">
        <BButton variant="primary" size="lg" @click="print">Print</BButton>
        <RouterLink class="ms-3" :to="{ name: 'visit', params: { id } }"
          >Back to the visit</RouterLink
        >
      </p>
      <p class="lead-line">{{ plan.procedure.title }}, {{ plan.pack.title }}.</p>
      <div class="blanks">
        <p v-for="b in BLANKS" :key="b">{{ b }}<span class="line" /></p>
      </div>
      <EquipmentDrawing :kind="equipment.kind" :tag="equipment.tag" class="sketch" />
      <ol class="rows">
        <li v-for="(s, n) in plan.procedure.steps" :key="s.id">
          <span class="box" aria-hidden="true" />
          <div>
            <strong>{{ n + 1 }}. {{ s.title }}</strong>
            <span v-if="s.hazard" class="hazard"> {{ s.hazard }}</span>
          </div>
          <div v-if="s.record" class="fill">
            {{ s.record.title }}
            <template v-if="s.record.ask === 'reading'"
              ><span class="line short" />
              {{
                unitLabel(
                  s.record.dimension ?? 'differential',
                  s.record.unit ?? session.units.differential,
                )
              }}
              <template v-if="s.record.head"
                >· gauge above port<span class="line short" /> mm</template
              ></template
            >
            <span v-for="a in s.record.answers" :key="a.id" class="choice"
              ><span class="box" aria-hidden="true" /> {{ a.label }}</span
            >
          </div>
        </li>
      </ol>
      <div class="blanks">
        <p>Remarks<span class="line" /></p>
        <p>Signature<span class="line" /></p>
      </div>
      <p class="soft small">
        Limits and verdict come from the rule pack when the form is entered. Local codes, makers’
        sheets and licensed practice come first.
      </p>
    </template>
  </div>
</template>

<style scoped>
.lead-line {
  margin: 1rem 0 0.5rem;
}

.blanks {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(18rem, 1fr));
  gap: 0.25rem 1.5rem;
}

.blanks p {
  display: flex;
  gap: 0.5rem;
  align-items: flex-end;
  min-height: 2.2rem;
  margin: 0;
}

.line {
  flex: 1;
  border-bottom: 1px solid var(--ink);
  display: inline-block;
}

.short {
  width: 6rem;
  margin: 0 0.4rem;
}

.sketch {
  max-width: 34rem;
  margin: 0.75rem auto;
}

.rows > li {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.2rem 0.75rem;
  padding: 0.4rem 0;
  break-inside: avoid;
}

.box {
  display: inline-block;
  width: 1rem;
  height: 1rem;
  border: 1.5px solid var(--ink);
  flex: none;
  margin-top: 0.2rem;
}

.fill {
  grid-column: 2;
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
  align-items: baseline;
}

.choice {
  display: inline-flex;
  gap: 0.4rem;
}
</style>
