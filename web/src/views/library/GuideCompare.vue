<script setup lang="ts">
import { expandGuide, type GuideText, stepWords } from '@uvanta/core/guide'
import { diffArrays } from 'diff'
import { computed } from 'vue'
import { dateWords } from '@/composables/words'

/** Two versions of a guide side by side: what was taken out, what came in. */
const props = defineProps<{ before: GuideText; after: GuideText }>()

const linesOf = ({ guide, subGuides }: GuideText) => [
  ...(guide.kit ?? []).map((k) => `Kit: ${k.count} × ${k.title}`),
  ...expandGuide(guide, subGuides).steps.map((s) =>
    [stepWords(s), s.differs, s.hazard, s.orient, s.position, s.together, s.where, s.amount]
      .concat(
        s.inTurn ?? [],
        (s.turns ?? []).map((t) => `${t.way}: ${t.effect}`),
      )
      .concat(s.never ?? [], s.why ?? [], s.tip ?? [])
      .filter(Boolean)
      .join(' · '),
  ),
]
const changes = computed(() =>
  diffArrays(linesOf(props.before), linesOf(props.after)).flatMap((part) =>
    part.value.map((text) => ({
      text,
      mark: part.added ? '+' : part.removed ? '−' : '',
    })),
  ),
)
const counts = computed(() => ({
  added: changes.value.filter((c) => c.mark === '+').length,
  removed: changes.value.filter((c) => c.mark === '−').length,
}))
</script>

<template>
  <section class="section" aria-labelledby="compare-title">
    <h2 id="compare-title">
      Version {{ before.guide.version }} of {{ dateWords(before.guide.date) }} against version
      {{ after.guide.version }} of {{ dateWords(after.guide.date) }}
    </h2>
    <p class="soft">{{ counts.removed }} lines taken out, {{ counts.added }} put in.</p>
    <ol class="rows">
      <li v-for="(c, n) in changes" :key="n" :class="{ in: c.mark === '+', out: c.mark === '−' }">
        <span class="mono mark-column">{{ c.mark }}</span>
        <del v-if="c.mark === '−'">{{ c.text }}</del>
        <ins v-else-if="c.mark === '+'">{{ c.text }}</ins>
        <span v-else class="soft">{{ c.text }}</span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 1.5rem 1fr;
  padding: 0.3rem 0;
}

ins {
  text-decoration: none;
  font-weight: 600;
}

.in {
  background: var(--pass-wash);
}

.out {
  background: var(--fail-wash);
}
</style>
