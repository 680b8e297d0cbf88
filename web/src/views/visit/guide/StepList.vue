<script setup lang="ts">
import { type PlacedStep, stepWords } from '@uvanta/core/guide'
import { computed } from 'vue'
import StateMark from '@/parts/StateMark.vue'

/** The steps of a station: what comes, and folded away what is done, to be taken up again if a check fails. */
const props = defineProps<{
  steps: readonly PlacedStep[]
  done: ReadonlySet<string>
  /** The step that is shown. */
  current?: string | undefined
  pressable: boolean
}>()
const emit = defineEmits<{ choose: [step: string] }>()

const lists = computed(() => ({
  done: props.steps.filter((s) => props.done.has(s.id)),
  left: props.steps.filter((s) => !props.done.has(s.id)),
}))
</script>

<template>
  <div class="list">
    <ol v-if="lists.left.length > 0" class="rows" aria-label="Steps of this station">
      <li v-for="s in lists.left" :key="s.id">
        <button
          type="button"
          class="line"
          :class="{ now: s.id === current }"
          :disabled="!pressable"
          @click="emit('choose', s.id)"
        >
          <StateMark state="open" />
          <span>{{ stepWords(s) }}</span>
        </button>
      </li>
    </ol>
    <details v-if="lists.done.length > 0" :open="lists.left.length === 0 && !pressable">
      <summary>
        {{ lists.done.length }} done<span v-if="pressable" class="soft">
          · press one to take it up again</span
        >
      </summary>
      <ol class="rows" aria-label="Steps that are done">
        <li v-for="s in lists.done" :key="s.id">
          <button type="button" class="line" :disabled="!pressable" @click="emit('choose', s.id)">
            <StateMark state="pass" />
            <span>{{ stepWords(s) }}</span>
          </button>
        </li>
      </ol>
    </details>
  </div>
</template>

<style scoped>
.list {
  margin-top: 1.5rem;
}

summary {
  padding: 0.75rem 0;
  font-weight: 600;
}

.line {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.6rem;
  align-items: center;
  width: 100%;
  min-height: 48px;
  padding: 0.3rem 0;
  background: none;
  border: 0;
  color: var(--ink-soft);
  text-align: left;
}

.line:disabled {
  opacity: 1;
}

.now {
  color: var(--ink);
  font-weight: 600;
}
</style>
