<script setup lang="ts">
import { formatQuantity, unitLabel } from '@uvanta/core/quantity'
import type { StepRecord } from '@uvanta/core/procedure'
import { computed, onMounted } from 'vue'
import { useTitle } from '@/composables/useTitle'
import { dateWords } from '@/composables/words'
import EmptySheet from '@/parts/EmptySheet.vue'
import TitleBlock from '@/parts/TitleBlock.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { useLibrary } from '@/stores/library'

/** A test procedure as a document: its steps, why each is done, and what it records. */
const props = defineProps<{ id: string }>()
const library = useLibrary()
onMounted(() => void library.load())
const procedure = computed(() => library.library?.procedures.find((p) => p.id === props.id))
useTitle(() => procedure.value?.title)
const packs = computed(() =>
  (library.library?.rulePacks ?? []).filter((p) => p.tests.some((t) => t.procedure === props.id)),
)

function recordWords({ title, ask, dimension, unit, answers, hold }: StepRecord): string {
  const held = hold ? `, after ${formatQuantity({ dimension: 'time', ...hold })}` : ''
  if (ask === 'answer') return `${title}: ${answers?.map((a) => a.label).join(' / ')}${held}`
  return `${title}, ${dimension && unit ? unitLabel(dimension, unit) : ''}${held}`
}
</script>

<template>
  <div>
    <WaitingLine v-if="!library.library" what="the procedure" />
    <EmptySheet v-else-if="!procedure" title="There is no such procedure"
      ><RouterLink :to="{ name: 'library' }">Back to the library</RouterLink></EmptySheet
    >
    <template v-else>
      <TitleBlock
        :title="procedure.title"
        subtitle="Test procedure"
        :cells="[
          { label: 'Kind', value: procedure.kind },
          { label: 'School', value: procedure.school },
          { label: 'Version', value: `${procedure.version} of ${dateWords(procedure.date)}` },
        ]"
      />
      <p class="mt-3">{{ procedure.source }}</p>
      <p v-if="packs.length > 0">
        Judged by
        <template v-for="(p, n) in packs" :key="p.id"
          ><template v-if="n > 0">, </template
          ><RouterLink :to="{ name: 'pack', params: { id: p.id } }">{{
            p.title
          }}</RouterLink></template
        >
      </p>
      <ol class="rows">
        <li v-for="(s, n) in procedure.steps" :key="s.id">
          <span class="mono soft">{{ n + 1 }}</span>
          <div>
            <strong>{{ s.title }}</strong>
            <p v-if="s.hazard" class="caution">{{ s.hazard }}</p>
            <p v-if="s.how">{{ s.how }}</p>
            <p class="soft">{{ s.why }}</p>
            <p v-if="s.watch" class="soft">{{ s.watch }}</p>
            <p v-if="s.record" class="record">{{ recordWords(s.record) }}</p>
            <p v-if="s.untilPassed" class="soft">
              As left: {{ s.untilPassed.title }}. {{ s.untilPassed.why }}
            </p>
          </div>
        </li>
      </ol>
    </template>
  </div>
</template>

<style scoped>
.rows li {
  display: grid;
  grid-template-columns: 2.5rem minmax(0, 44rem);
  gap: 0.5rem;
  padding: 0.6rem 0;
}

p {
  margin: 0.15rem 0;
}

.record {
  padding-left: 0.6rem;
  border-left: 3px solid var(--blue);
}
</style>
