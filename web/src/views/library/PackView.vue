<script setup lang="ts">
import { nominalNames } from '@uvanta/core/apparatus'
import { licenceKinds } from '@uvanta/core/catalogue'
import type { Procedure } from '@uvanta/core/procedure'
import { type PackTest, wantedWords } from '@uvanta/core/rules'
import { computed, onMounted } from 'vue'
import { useTitle } from '@/composables/useTitle'
import { dateWords } from '@/composables/words'
import EmptySheet from '@/parts/EmptySheet.vue'
import TitleBlock from '@/parts/TitleBlock.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { useLibrary } from '@/stores/library'

/** A rule pack as a document: what every kind of equipment is judged by. */
const props = defineProps<{ id: string }>()
const library = useLibrary()
onMounted(() => void library.load())
const pack = computed(() => library.library?.rulePacks.find((p) => p.id === props.id))
useTitle(() => pack.value?.title)

const REQUIREMENTS = { required: 'decides', advisory: 'advises', recorded: 'is recorded' } as const
const SETTINGS = {
  'leave-within-tolerance': 'Left where it is within its tolerance',
  'return-to-nominal': 'Brought back to its nominal value',
} as const
const named = (names: Readonly<Record<string, string | undefined>>, id: string) => names[id] ?? id
const licence = (id: string) => named(licenceKinds, id)

/** Things that an item refers to are named as the procedure and the equipment’s sheet name them. */
function namesFor(test: PackTest, procedure: Procedure | undefined) {
  const record = (id: string) => procedure?.steps.find((s) => s.record?.item === id)?.record
  const title = (id: string) =>
    test.items.find((i) => i.id === id)?.title ?? record(id)?.title ?? named(nominalNames, id)
  return {
    value: (id: string) => title(id).toLowerCase(),
    answer: (item: string, option: string) =>
      record(item)?.answers?.find((a) => a.id === option)?.label ?? option,
  }
}
const tests = computed(() =>
  (pack.value?.tests ?? []).map((test) => {
    const procedure = library.library?.procedures.find((p) => p.id === test.procedure)
    const names = namesFor(test, procedure)
    return {
      ...test,
      procedure,
      items: test.items.map((i) => ({ ...i, wanted: wantedWords(i, names) })),
    }
  }),
)
</script>

<template>
  <div>
    <WaitingLine v-if="!library.library" what="the rule pack" />
    <EmptySheet v-else-if="!pack" title="There is no such rule pack"
      ><RouterLink :to="{ name: 'library' }">Back to the library</RouterLink></EmptySheet
    >
    <template v-else>
      <TitleBlock
        :title="pack.title"
        subtitle="Rule pack"
        :cells="[
          { label: 'Authority', value: pack.authority },
          {
            label: 'In force from',
            value: `${dateWords(pack.effectiveFrom)}, version ${pack.version}`,
          },
          { label: 'Licence', value: licence(pack.licence) },
          { label: 'Acceptance', value: pack.decisionRule },
        ]"
      />
      <p class="mt-3">{{ pack.source }}</p>
      <p class="soft">
        A reading is questioned where its limit is less than {{ pack.questionTurUnder }} times the
        uncertainty of the gauge.
        <template v-if="pack.setting">{{ SETTINGS[pack.setting] }}.</template>
      </p>
      <section v-for="t in tests" :key="t.kind" class="section">
        <h2>{{ t.kind }}</h2>
        <p class="soft">
          As recorded by
          <RouterLink
            v-if="t.procedure"
            :to="{ name: 'procedure', params: { id: t.procedure.id } }"
            >{{ t.procedure.title }}</RouterLink
          >
        </p>
        <table class="table">
          <thead>
            <tr>
              <th>Item</th>
              <th>Wanted</th>
              <th>It</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="i in t.items" :key="i.id">
              <td>{{ i.title }}</td>
              <td>{{ i.wanted }}</td>
              <td class="soft">{{ REQUIREMENTS[i.requirement] }}</td>
            </tr>
          </tbody>
        </table>
        <p v-for="c in t.contradictions" :key="c.says" class="soft">Contradiction: {{ c.says }}.</p>
      </section>
    </template>
  </div>
</template>

<style scoped>
td:nth-child(1) {
  width: 32%;
}

td:nth-child(3) {
  width: 8rem;
}
</style>
