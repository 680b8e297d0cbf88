<script setup lang="ts">
import { type PlacedStep, renewalPolicies } from '@uvanta/core/guide'
import { type PayloadOf, renewalAdviceAt, renewalRuleAt } from '@uvanta/core/visit'
import { computed, ref } from 'vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'
import { useGuide } from '../bench/useGuide'

/** What is seen on a part, from its closed list, and what that asks for by the house’s policy. */
const props = defineProps<{ step: PlacedStep }>()
const emit = defineEmits<{ found: [finding: Partial<PayloadOf<'guide-step'>>] }>()
const store = useVisit()
const library = useLibrary()
const { run, partOf, jobTitle } = useGuide(() => props.step.at)

const seen = ref<string[]>([])
const rule = computed(
  () => library.library && renewalRuleAt(store.state, library.library, props.step),
)
const advice = computed(
  () => library.library && renewalAdviceAt(store.state, library.library, props.step, seen.value),
)
function toggle(defect: string) {
  seen.value = seen.value.includes(defect)
    ? seen.value.filter((d) => d !== defect)
    : [...seen.value, defect]
}
</script>

<template>
  <div class="inspection" role="group" :aria-label="partOf(step.inspect)?.title">
    <p class="soft">
      By {{ step.by?.join(' and ') ?? 'eye' }}. Press what is there; nothing pressed is sound.
    </p>
    <div class="defects">
      <BButton
        v-for="d in step.defects"
        :key="d"
        :variant="seen.includes(d) ? 'primary' : 'outline-secondary'"
        :aria-pressed="seen.includes(d)"
        @click="toggle(d)"
        >{{ d }}</BButton
      >
    </div>
    <p v-if="advice" class="advice">
      <strong>{{ advice.why }}</strong>
      <span v-if="rule?.soft && (step.verdicts?.length ?? 0) > 1" class="soft">
        Utility policy: {{ renewalPolicies[rule.policy] }}. {{ rule.why }}</span
      >
    </p>
    <div class="answers">
      <BButton
        v-for="v in step.verdicts"
        :key="v.id"
        size="lg"
        :variant="
          v.id === advice?.verdict
            ? v.id === 'stop'
              ? 'danger'
              : 'primary'
            : v.id === 'stop'
              ? 'outline-danger'
              : 'outline-primary'
        "
        @click="emit('found', { finding: v.id, defects: seen })"
        >{{ v.title
        }}<small v-if="v.widens && !run?.jobs.includes(v.widens)" class="widens">
          Widens the work: {{ jobTitle(v.widens) }}</small
        ></BButton
      >
    </div>
  </div>
</template>

<style scoped>
p {
  margin: 0;
}

.inspection {
  display: grid;
  gap: 0.6rem;
  max-width: 36rem;
}

.defects {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}

.answers {
  display: grid;
  gap: 0.6rem;
}

.widens {
  display: block;
  font-weight: 400;
}

.answers .btn {
  flex-direction: column;
  align-items: flex-start;
  justify-content: center;
  text-align: left;
}
</style>
