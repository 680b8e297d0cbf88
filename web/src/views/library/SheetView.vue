<script setup lang="ts">
import { nominalNames } from '@uvanta/core/apparatus'
import { elastomers } from '@uvanta/core/craft'
import { type AnyQuantity, formatQuantity, unitLabel } from '@uvanta/core/quantity'
import { computed, onMounted } from 'vue'
import { useTitle } from '@/composables/useTitle'
import { dateWords } from '@/composables/words'
import EmptySheet from '@/parts/EmptySheet.vue'
import TitleBlock from '@/parts/TitleBlock.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { useLibrary } from '@/stores/library'

/** What a maker says of one model: every figure with its source and date, and the kits. */
const props = defineProps<{ id: string }>()
const library = useLibrary()
onMounted(() => void library.load())

const sheet = computed(() => library.library?.specSheets.find((s) => s.id === props.id))
useTitle(() => (sheet.value ? `${sheet.value.maker} ${sheet.value.model}` : undefined))
const family = computed(
  () => library.library?.families.find((f) => f.id === sheet.value?.family)?.title ?? '',
)
const slots = computed(() => (library.library?.guides ?? []).flatMap((g) => g.slots ?? []))
const figures = computed(() =>
  (sheet.value?.figures ?? []).map((f) => {
    const slot = slots.value.find((s) => s.id === f.slot)
    const unit = f.unit && slot?.dimension ? unitLabel(slot.dimension, f.unit) : (f.unit ?? '')
    const rubber = slot?.rubbers?.find((r) => r === f.value)
    const value = rubber ? elastomers[rubber] : f.value
    return { ...f, title: slot?.title ?? f.slot, text: `${value} ${unit}` }
  }),
)
const ratings = computed(() =>
  (sheet.value?.ratings ?? []).map((r) => ({
    slot: r.name,
    title: nominalNames[r.name],
    text: formatQuantity(r.value as AnyQuantity),
    source: r.source,
    date: r.date,
  })),
)
const guideTitle = (id: string) => library.library?.guides.find((g) => g.id === id)?.title ?? id
const itemTitle = (guide: string, item: string) =>
  library.library?.guides.find((g) => g.id === guide)?.kit?.find((k) => k.id === item)?.title ??
  item
</script>

<template>
  <div>
    <WaitingLine v-if="!library.library" what="the spec sheet" />
    <EmptySheet v-else-if="!sheet" title="There is no such spec sheet"
      ><RouterLink :to="{ name: 'library' }">Back to the library</RouterLink></EmptySheet
    >
    <template v-else>
      <TitleBlock
        :title="`${sheet.maker} ${sheet.model}`"
        subtitle="Spec sheet"
        :cells="[
          { label: 'Family', value: family, span: 2 },
          { label: 'Version', value: `${sheet.version} of ${dateWords(sheet.date)}` },
        ]"
      />
      <section class="section">
        <h2>Figures</h2>
        <p v-if="figures.length + ratings.length === 0" class="soft">
          None: what a guide needs is asked for, with its source.
        </p>
        <div v-else class="scroll-x">
          <table class="table">
            <thead>
              <tr>
                <th>Figure</th>
                <th>Value</th>
                <th>Source</th>
                <th>Of</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="f in [...ratings, ...figures]" :key="f.slot">
                <td>{{ f.title }}</td>
                <td class="mono value">{{ f.text }}</td>
                <td>{{ f.source }}</td>
                <td>{{ dateWords(f.date) }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
      <section v-for="k in sheet.kits" :key="k.number" class="section">
        <h2>
          Kit <span class="mono">{{ k.number }}</span>
        </h2>
        <p class="soft">
          For
          <RouterLink :to="{ name: 'guide', params: { id: k.guide } }">{{
            guideTitle(k.guide)
          }}</RouterLink>
          · {{ k.source }}, {{ dateWords(k.date) }}
        </p>
        <ul class="rows">
          <li v-for="i in k.items" :key="i.item">
            <span class="mono">{{ i.count }} ×</span>
            <span
              >{{ itemTitle(k.guide, i.item)
              }}<span v-if="i.spare" class="soft"> – {{ i.spare }} of them a spare</span></span
            >
            <span class="mono soft">{{ i.number }}</span>
          </li>
        </ul>
      </section>
    </template>
  </div>
</template>

<style scoped>
.value {
  font-weight: 600;
  white-space: nowrap;
}

.rows li {
  display: grid;
  grid-template-columns: 3rem minmax(0, 1fr) auto;
  gap: 0.5rem;
  padding: 0.4rem 0;
}
</style>
