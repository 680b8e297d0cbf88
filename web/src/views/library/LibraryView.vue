<script setup lang="ts">
import { expandGuide, type Guide } from '@uvanta/core/guide'
import { symptomFinder } from '@uvanta/core/symptoms'
import { useUrlSearchParams } from '@vueuse/core'
import { api } from 'virtual:api'
import { renewalPolicies } from '@uvanta/core/guide'
import { computed, onMounted, ref, shallowRef, useTemplateRef } from 'vue'
import { ApiProblem, call } from '@/api/client'
import { useKeys } from '@/composables/useKeys'
import { useTitle } from '@/composables/useTitle'
import EmptySheet from '@/parts/EmptySheet.vue'
import SymptomList from '@/parts/SymptomList.vue'
import TitleBlock from '@/parts/TitleBlock.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { useLibrary } from '@/stores/library'

type LibraryFaults = readonly { file: string; line: number; message: string }[]

/** The know-how in force: job guides by group, test procedures, rule packs. */
useTitle('Library')
const library = useLibrary()
const faults = shallowRef<LibraryFaults>([])
onMounted(async () => {
  void library.load()
  try {
    faults.value = (await call(api.library.state)).faults
  } catch (error) {
    // Without a connection what is at hand is shown all the same.
    if (!(error instanceof ApiProblem)) throw error
  }
})
const params = useUrlSearchParams<{ q?: string }>('history')
const search = ref(params.q ?? '')
const field = useTemplateRef<HTMLInputElement>('field')
useKeys([{ key: '/', does: 'Search the guides', run: () => field.value?.focus() }])

/** Everything that a guide can be found by: part names and what people also call them. */
const wordsOf = (g: Guide) =>
  [g.title, g.family, ...g.parts.flatMap((p) => [p.title, ...(p.synonyms ?? [])])]
    .join(' ')
    .toLowerCase()
const wanted = computed(() => search.value.trim().toLowerCase().split(/\s+/).filter(Boolean))
const groups = computed(() => {
  const { families = [], guides = [], subGuides = [] } = library.library ?? {}
  const found = guides.filter((g) => wanted.value.every((w) => wordsOf(g).includes(w)))
  const names = [...new Set(families.map((f) => f.group))]
  return names
    .map((name) => ({
      name,
      guides: found
        .filter((g) => families.find((f) => f.id === g.family)?.group === name)
        .map((g) => ({ guide: g, steps: expandGuide(g, subGuides).steps.length })),
    }))
    .filter((g) => g.guides.length > 0)
})
const find = computed(() => (library.library ? symptomFinder(library.library) : null))
const symptoms = computed(() => find.value?.(search.value) ?? [])
const familyTitle = (id: string) => library.library?.families.find((f) => f.id === id)?.title ?? id
function keep() {
  params.q = search.value || undefined
}
</script>

<template>
  <div>
    <TitleBlock
      title="Library"
      :cells="[
        { label: 'Job guides', value: String(library.library?.guides.length ?? '–'), mono: true },
        {
          label: 'Test procedures',
          value: String(library.library?.procedures.length ?? '–'),
          mono: true,
        },
        {
          label: 'Rule packs',
          value: String(library.library?.rulePacks.length ?? '–'),
          mono: true,
        },
      ]"
    />
    <div v-if="faults.length > 0" class="caution mt-3" role="status">
      <strong
        >The files were changed and cannot be used. The last good version stays in force.</strong
      >
      <ul>
        <li v-for="f in faults" :key="`${f.file}:${f.line}:${f.message}`">
          <span class="mono">{{ f.file }}:{{ f.line }}</span> {{ f.message }}
        </li>
      </ul>
    </div>
    <WaitingLine v-if="!library.library" what="the library" />
    <template v-else>
      <label class="form-label mt-3" for="guide-search">Search guides and symptoms</label>
      <BFormInput
        id="guide-search"
        ref="field"
        v-model="search"
        type="search"
        placeholder="Family, part, or what is seen: snap ring, clapper, weep hole wet, hunts"
        @input="keep"
      />
      <section v-if="symptoms.length > 0" class="section" aria-labelledby="symptoms-title">
        <h2 id="symptoms-title">Symptoms</h2>
        <SymptomList :found="symptoms" />
      </section>
      <EmptySheet v-else-if="groups.length === 0" title="Nothing found"
        >Try another word for the part or for what is seen, or the family of the
        equipment.</EmptySheet
      >
      <section v-for="g in groups" :key="g.name" class="section">
        <h2>{{ g.name }}</h2>
        <ul class="rows">
          <li v-for="{ guide, steps } in g.guides" :key="guide.id">
            <RouterLink :to="{ name: 'guide', params: { id: guide.id } }">{{
              guide.title
            }}</RouterLink>
            <span class="soft small"
              >{{ steps }} steps · {{ guide.parts.length }} parts<template
                v-if="guide.variants.length > 1"
              >
                · {{ guide.variants.map((v) => v.title.toLowerCase()).join(' / ') }}</template
              ></span
            >
          </li>
        </ul>
      </section>
      <section class="section">
        <h2>Machines</h2>
        <ul class="rows">
          <li v-for="m in library.library.machines" :key="m.id">
            <RouterLink :to="{ name: 'machine', params: { id: m.id } }">{{ m.title }}</RouterLink>
            <span class="soft small"
              >{{ m.parts.length }} parts · {{ m.parts.filter((p) => p.soft).length }} of them
              soft</span
            >
          </li>
        </ul>
      </section>
      <section class="section">
        <h2>Spec sheets</h2>
        <ul class="rows">
          <li v-for="s in library.library.specSheets" :key="s.id">
            <RouterLink :to="{ name: 'sheet', params: { id: s.id } }"
              >{{ s.maker }} {{ s.model }}</RouterLink
            >
            <span class="soft small"
              >{{ familyTitle(s.family) }} · {{ s.figures.length }} figures ·
              {{ s.kits.map((k) => k.number).join(', ') }}</span
            >
          </li>
        </ul>
      </section>
      <section class="section">
        <h2>Renewal of soft parts: the house’s rule</h2>
        <ul class="rows">
          <li v-for="p in library.library.policies" :key="p.family">
            <span>{{ familyTitle(p.family) }}</span>
            <span class="soft small">{{ renewalPolicies[p.policy] }}. {{ p.why }}</span>
          </li>
        </ul>
      </section>
      <section class="section">
        <h2>Rule packs</h2>
        <ul class="rows">
          <li v-for="p in library.library.rulePacks" :key="p.id">
            <span
              ><RouterLink :to="{ name: 'pack', params: { id: p.id } }">{{ p.title }}</RouterLink
              >, version {{ p.version }}</span
            >
            <span class="soft small"
              >{{ p.authority }} · from {{ p.effectiveFrom }} · {{ p.decisionRule }} acceptance ·
              {{ p.tests.map((t) => t.kind).join(', ') }}</span
            >
          </li>
        </ul>
      </section>
      <section class="section">
        <h2>Test procedures</h2>
        <ul class="rows">
          <li v-for="p in library.library.procedures" :key="p.id">
            <RouterLink :to="{ name: 'procedure', params: { id: p.id } }">{{ p.title }}</RouterLink>
            <span class="soft small"
              >{{ p.kind }} · {{ p.school }} · {{ p.steps.length }} steps · version
              {{ p.version }}</span
            >
          </li>
        </ul>
      </section>
    </template>
  </div>
</template>

<style scoped>
.rows li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 0.25rem 1rem;
  padding: 0.6rem 0;
  min-height: 48px;
  align-items: center;
}

@media (max-width: 43.75em) {
  .rows li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
