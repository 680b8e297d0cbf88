<script setup lang="ts">
import { CannotCompute } from '@uvanta/core/errors'
import { parseDisplayed, valueToSi } from '@uvanta/core/quantity'
import { computed, reactive } from 'vue'
import EquipmentDrawing from '@/parts/drawing/EquipmentDrawing.vue'
import AttachResult from '../AttachResult.vue'
import { unitOptions } from '@/composables/words'
import FigureEntry from '@/parts/form/FigureEntry.vue'
import { attempt } from '../attempt'
import type { Figure, FigureBench, Given } from './figureBench'

/** A computation as a form of figures with their units; the answer follows as they are typed. */
const props = defineProps<{ bench: FigureBench }>()
const values = reactive(Object.fromEntries(props.bench.figures.map((f) => [f.name, f.value])))
const units = reactive(Object.fromEntries(props.bench.figures.map((f) => [f.name, f.unit ?? ''])))
const titleId = `bench-${props.bench.computation}`

function read(figure: Figure): number | undefined {
  const text = (values[figure.name] ?? '').trim()
  if (text === '' && figure.optional) return undefined
  if (text === '') {
    throw new CannotCompute('figure-missing', `${figure.label} is missing.`, 'Enter it.')
  }
  const value = parseDisplayed(text)
  const unit = units[figure.name] ?? ''
  return figure.dimension ? valueToSi(figure.dimension, value, unit) : value
}
const outcome = computed(() =>
  attempt(() => {
    const given: Given = Object.fromEntries(props.bench.figures.map((f) => [f.name, read(f)]))
    return props.bench.work(given)
  }),
)
</script>

<template>
  <section class="section" :aria-labelledby="titleId">
    <h2 :id="titleId">{{ bench.title }}</h2>
    <div class="sheet" :class="{ wide: bench.wide }">
      <EquipmentDrawing class="drawn" :kind="bench.draws" :tag="bench.title" />
      <div class="entry">
        <FigureEntry
          v-for="f in bench.figures"
          :key="f.name"
          v-model:text="values[f.name]!"
          v-model:unit="units[f.name]!"
          :label="f.label"
          :units="f.dimension ? unitOptions(f.dimension) : []"
        />
      </div>
    </div>
    <p v-if="'says' in outcome" class="caution" role="alert">{{ outcome.says }}</p>
    <template v-else>
      <p class="answer mono">{{ outcome.answer.answer }}</p>
      <p v-for="s in outcome.answer.says" :key="s" class="soft">{{ s }}</p>
      <p v-for="q in outcome.answer.questions" :key="q" class="caution">{{ q }}</p>
      <AttachResult
        :result="{
          computation: bench.computation,
          title: bench.title,
          says: outcome.answer.answer,
        }"
      />
    </template>
  </section>
</template>

<style scoped>
.sheet {
  display: grid;
  grid-template-columns: minmax(0, 9rem) 1fr;
  gap: 1rem;
  align-items: start;
}

.entry {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
  gap: 0.6rem;
  margin-bottom: 0.75rem;
}

.answer {
  font-size: 1.75rem;
  font-weight: 600;
  margin: 0.25rem 0;
}

.soft {
  margin: 0;
}

/* A long drawing needs the width of the bench. */
.sheet.wide {
  grid-template-columns: 1fr;
}

.sheet.wide .drawn {
  max-width: 30rem;
}

@media (max-width: 43.75em) {
  .sheet {
    grid-template-columns: minmax(0, 1fr);
  }

  .drawn {
    display: none;
  }
}
</style>
