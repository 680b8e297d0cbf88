<script setup lang="ts">
import {
  differenceOnce,
  expandGuide,
  guideStations,
  type GuideText,
  variantOf,
} from '@uvanta/core/guide'
import { proofOf } from '@uvanta/core/library'
import { buildsOf } from '@uvanta/core/machine'
import { stationTitles } from '@uvanta/core/visit'
import { computed, defineAsyncComponent, onMounted, ref } from 'vue'
import { useTitle } from '@/composables/useTitle'
import { dateWords } from '@/composables/words'
import EmptySheet from '@/parts/EmptySheet.vue'
import StateMark from '@/parts/StateMark.vue'
import TitleBlock from '@/parts/TitleBlock.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import PartShape from '@/parts/drawing/PartShape.vue'
import GuideLine from './GuideLine.vue'
import { useLibrary } from '@/stores/library'

const MachineParts = defineAsyncComponent(() => import('@/parts/machine/MachineParts.vue'))
const GuideCompare = defineAsyncComponent(() => import('./GuideCompare.vue'))

/** A job guide as a document: to read, to print, with what the prover says of it. */
const props = defineProps<{ id: string }>()
const library = useLibrary()
onMounted(() => void Promise.all([library.load(), library.loadEarlier()]))

const inForce = computed(() => library.library?.guides.find((g) => g.id === props.id))
/** Versions that are no longer in force, newest first. */
const earlier = computed(() =>
  (library.library?.earlier.guides ?? [])
    .filter((e) => e.guide.id === props.id)
    .sort((a, b) => b.guide.version - a.guide.version),
)
const version = ref<number | null>(null)
const text = computed<GuideText | null>(() => {
  const old = earlier.value.find((e) => e.guide.version === version.value)
  if (old) return old
  return inForce.value
    ? { guide: inForce.value, subGuides: library.library?.subGuides ?? [] }
    : null
})
const guide = computed(() => text.value?.guide)
const comparing = ref(false)
const newest = computed<GuideText | null>(() =>
  inForce.value ? { guide: inForce.value, subGuides: library.library?.subGuides ?? [] } : null,
)
const other = computed(
  () => earlier.value.find((e) => e.guide.version === version.value) ?? earlier.value[0],
)
useTitle(() => guide.value?.title)
const subGuides = computed(() => text.value?.subGuides ?? [])
const machine = computed(() => library.library?.machines.find((m) => m.id === guide.value?.machine))
const build = computed(
  () =>
    guide.value?.variants[0]?.options ?? (machine.value ? buildsOf(machine.value)[0] : []) ?? [],
)
const proof = computed(() =>
  guide.value
    ? proofOf(guide.value, subGuides.value, { machines: library.library?.machines ?? [] })
    : null,
)
const stations = computed(() => {
  if (!guide.value) return []
  const steps = differenceOnce(expandGuide(guide.value, subGuides.value).steps)
  return guideStations
    .map((at) => ({ at, steps: steps.filter((s) => s.at === at) }))
    .filter((s) => s.steps.length > 0)
})
const services = computed(() => {
  const own = guide.value
  return own ? [...new Set(own.variants.map((v) => variantOf(own, v.id).service))].join(', ') : ''
})
/** What every variant wants, then what only one of them does. */
const gear = computed(() => [
  ...(guide.value?.gear ?? []),
  ...(guide.value?.variants.flatMap((v) => v.gear?.map((g) => `${g} (${v.title})`) ?? []) ?? []),
])
const jobTitle = (id: string) => guide.value?.jobs?.find((j) => j.id === id)?.title ?? id
const print = () => window.print()
</script>

<template>
  <div>
    <WaitingLine v-if="!library.library" what="the guide" />
    <EmptySheet v-else-if="!guide" title="There is no such guide"
      ><RouterLink :to="{ name: 'library' }">Back to the library</RouterLink></EmptySheet
    >
    <template v-else>
      <TitleBlock
        :title="guide.title"
        :cells="[
          { label: 'Version', value: `${guide.version} of ${dateWords(guide.date)}` },
          { label: 'Service', value: services },
          { label: 'Variants', value: guide.variants.map((v) => v.title).join(', '), span: 2 },
        ]"
      />
      <p class="proof">
        <StateMark
          v-if="proof"
          :state="proof.faults.length === 0 ? 'pass' : 'fail'"
          :label="
            proof.faults.length === 0
              ? `Proved on ${proof.paths} ways through it`
              : `${proof.faults.length} faults`
          "
        />
        <span class="no-print choices">
          <label v-if="earlier.length > 0"
            >Version
            <BFormSelect v-model="version">
              <option :value="null">{{ inForce?.version }}, in force</option>
              <option v-for="e in earlier" :key="e.guide.version" :value="e.guide.version">
                {{ e.guide.version }} of {{ dateWords(e.guide.date) }}
              </option>
            </BFormSelect>
          </label>
          <BButton
            v-if="other"
            variant="outline-primary"
            :aria-pressed="comparing"
            @click="comparing = !comparing"
            >{{ comparing ? 'Read it' : 'Compare versions' }}</BButton
          >
          <BButton variant="outline-primary" @click="print">Print</BButton>
        </span>
      </p>
      <GuideCompare v-if="comparing && other && newest" :before="other" :after="newest" />
      <template v-else>
        <p class="soft">{{ guide.source }}</p>
        <div class="lists">
          <section v-if="guide.jobs">
            <h2>Sub-jobs</h2>
            <ul>
              <li v-for="j in guide.jobs" :key="j.id">
                {{ j.title
                }}<span v-if="j.brings" class="soft">
                  – brings: {{ j.brings.map(jobTitle).join(', ') }}</span
                >
              </li>
            </ul>
          </section>
          <section v-if="guide.kit">
            <h2>Kit</h2>
            <ul>
              <li v-for="k in guide.kit" :key="k.id">
                {{ k.count }} × {{ k.title
                }}<span v-if="k.job" class="soft"> · {{ jobTitle(k.job) }}</span>
              </li>
            </ul>
          </section>
          <section v-if="guide.tools">
            <h2>Tools</h2>
            <ul>
              <li v-for="t in guide.tools" :key="t.title">
                {{ t.title }}<span class="soft">{{ t.instead ? `, or ${t.instead}` : '' }}</span>
              </li>
            </ul>
          </section>
          <section v-if="gear.length > 0">
            <h2>Gear</h2>
            <ul>
              <li v-for="g in gear" :key="g">{{ g }}</li>
            </ul>
          </section>
          <section v-if="guide.slots">
            <h2>From the spec sheet</h2>
            <ul>
              <li v-for="s in guide.slots" :key="s.id">{{ s.title }}</li>
            </ul>
          </section>
          <section class="parts">
            <h2>Parts, and what people call them</h2>
            <ul>
              <li v-for="p in guide.parts" :key="p.id" class="part">
                <PartShape :shape="p.shape" :title="p.title" /><span
                  >{{ p.title }}
                  <span class="soft">{{
                    p.synonyms ? ` (${p.synonyms.join(', ')})` : ''
                  }}</span></span
                >
              </li>
            </ul>
          </section>
        </div>
        <section v-if="machine" class="section">
          <h2>
            The machine:
            <RouterLink :to="{ name: 'machine', params: { id: machine.id } }">{{
              machine.title
            }}</RouterLink>
          </h2>
          <MachineParts :machine="machine" :options="build" />
        </section>
        <section v-for="s in stations" :key="s.at" class="section">
          <h2>{{ stationTitles[s.at] }}</h2>
          <ol class="rows">
            <li v-for="step in s.steps" :key="step.id">
              <GuideLine :guide="guide" :step="step" />
            </li>
          </ol>
        </section>
      </template>
    </template>
  </div>
</template>

<style scoped>
.proof {
  display: flex;
  gap: 1rem;
  align-items: center;
  justify-content: space-between;
  margin: 1rem 0 0.5rem;
  font-weight: 600;
}

.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: end;
}

.parts {
  grid-column: 1 / -1;
}

.lists .parts ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(16rem, 1fr));
  gap: 0 1.5rem;
  padding: 0;
}

.part {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  list-style: none;
}

.lists {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(15rem, 1fr));
  gap: 1rem 2rem;
}

.lists h2 {
  font-size: 1.0625rem;
}

.lists ul {
  padding-left: 1.1rem;
}

.rows li {
  display: grid;
  grid-template-columns: 3rem 1fr;
  gap: 0.5rem;
  padding: 0.5rem 0;
  break-inside: avoid;
}
</style>
