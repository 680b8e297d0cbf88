<script setup lang="ts">
import { elastomers, lubricants, lubricantServices } from '@uvanta/core/craft'
import { lubricationOf, type PlacedStep } from '@uvanta/core/guide'
import { computed } from 'vue'
import { useVisit } from '@/stores/visit'
import { useGuide } from '../bench/useGuide'

/** What the lubricant of a step does to the rubber it goes on, in this service, and what must not go there. */
const props = defineProps<{ step: PlacedStep }>()
const store = useVisit()
const { guide, valueOf, partOf } = useGuide(() => props.step.at)

const named = computed(() => valueOf(partOf(props.step.lubricate)?.rubberOf))
const advice = computed(() =>
  guide.value && store.state.guide
    ? lubricationOf(guide.value, store.state.guide.variant, props.step, named.value?.value)
    : null,
)
const never = computed(() => advice.value?.never.map((l) => lubricants[l]).join(', '))
</script>

<template>
  <div v-if="advice" class="advice">
    <p v-for="r in advice.rubbers" :key="r.rubber">
      <strong>{{ elastomers[r.rubber] }}, {{ lubricantServices[advice.service] }}</strong>
      {{ r.reasons.join(' ') }}
    </p>
    <p v-if="named" class="soft small">The rubber is from {{ named.source }}.</p>
    <p v-else-if="advice.rubbers.length > 1" class="soft small">
      The sheet in the library does not name the rubber: find it on the maker’s sheet or on the bag.
    </p>
    <p v-if="never"><strong>Never here</strong> {{ never }}</p>
  </div>
</template>

<style scoped>
.advice {
  border-left: 3px solid var(--rule-strong);
  padding-left: 0.8rem;
  margin: 0 0 0.6rem;
  max-width: 44rem;
}

.advice p {
  margin: 0 0 0.25rem;
}

.advice strong {
  margin-right: 0.4rem;
}
</style>
