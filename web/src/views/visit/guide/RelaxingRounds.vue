<script setup lang="ts">
import { fastenerPlan, type PlacedStep } from '@uvanta/core/guide'
import type { Notice } from '@uvanta/core/visit'
import { computed, ref, shallowRef } from 'vue'
import BoltCircle from '@/parts/drawing/BoltCircle.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useVisit } from '@/stores/visit'
import { useGuide } from '../bench/useGuide'

/** A soft joint: round and round, each round on record, until no fastener moves. */
const props = defineProps<{ step: PlacedStep; relaxing: PlacedStep }>()
const emit = defineEmits<{ done: [] }>()
const store = useVisit()
const { guide, valueOf } = useGuide(() => props.step.at)
const refusal = shallowRef<Notice | null>(null)

const rounds = computed(() => store.state.guideRounds.filter((r) => r.step === props.step.id))
const least = computed(() => Number(valueOf(props.relaxing.rounds ?? undefined)?.value ?? 1))
const fastener = computed(() =>
  guide.value?.fasteners?.find((f) => f.id === props.relaxing.tighten),
)
const count = computed(() => Number(valueOf(fastener.value?.count ?? undefined)?.value ?? 0))
const order = computed(() => fastenerPlan(props.relaxing, count.value)?.passes[0]?.order ?? [])
const turned = ref(0)
const next = computed(() => order.value[turned.value] ?? null)
const rested = computed(
  () => rounds.value.length >= least.value && rounds.value.at(-1)?.moved === false,
)

function round(moved: boolean) {
  refusal.value = store.record('guide-round', { step: props.step.id, moved })
  turned.value = 0
}
</script>

<template>
  <div class="relaxing">
    <BoltCircle
      v-if="order.length > 0"
      :count="order.length"
      :next="next"
      :done="order.slice(0, turned)"
      :caption="`round ${rounds.length + 1}`"
    />
    <div class="counter">
      <p>
        <span class="mono big">{{ rounds.length }}</span>
        <span class="soft">of at least {{ least }} rounds</span>
      </p>
      <ol v-if="rounds.length > 0" class="made" aria-label="Rounds made">
        <li v-for="(r, n) in rounds" :key="r.eventId" :class="{ still: !r.moved }">
          {{ n + 1 }} {{ r.moved ? 'moved' : 'none moved' }}
        </li>
      </ol>
      <div v-if="!rested" class="actions">
        <BButton v-if="next" variant="outline-primary" @click="turned++"
          >Bolt {{ next }} done</BButton
        >
        <BButton variant="primary" size="lg" @click="round(true)">Round done – one moved</BButton>
        <BButton variant="outline-primary" size="lg" @click="round(false)"
          >Round done – none moved</BButton
        >
      </div>
      <div v-else class="actions">
        <BButton variant="primary" size="lg" @click="emit('done')"
          >Nothing moves any more – done</BButton
        >
      </div>
      <ProblemNote :refusal="refusal" />
    </div>
  </div>
</template>

<style scoped>
.relaxing {
  display: flex;
  flex-wrap: wrap;
  gap: 1.25rem;
  align-items: center;
}

.counter {
  flex: 1 1 18rem;
}

.big {
  font-size: 2.5rem;
  font-weight: 600;
  margin-right: 0.5rem;
}

p {
  margin: 0;
}

.made {
  list-style: none;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}

.made li {
  border: 1px solid var(--rule);
  padding: 0.15rem 0.5rem;
}

.made .still {
  border-color: var(--pass);
  color: var(--pass);
  font-weight: 600;
}
</style>
