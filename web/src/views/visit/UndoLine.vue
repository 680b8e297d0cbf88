<script setup lang="ts">
import type { EventDraft, Notice, VisitEvent } from '@uvanta/core/visit'
import { useTimeoutFn } from '@vueuse/core'
import { computed, shallowRef, watch } from 'vue'
import { useVisit } from '@/stores/visit'
import { useLogNames } from './bench/useLogNames'
import { eventWords } from '@/composables/eventWords'

/** What was just recorded, said and heard, and for a while taken back with one press. */
const store = useVisit()
const names = useLogNames()
const WHILE_MS = 10_000
const shown = shallowRef<readonly EventDraft[] | null>(null)
const refusal = shallowRef<Notice | null>(null)
const taken = shallowRef(false)
const { start } = useTimeoutFn(() => (shown.value = null), WHILE_MS, { immediate: false })
watch(
  () => store.lastPress,
  (press) => {
    shown.value = press
    if (!press) return
    refusal.value = null
    taken.value = false
    start()
  },
)
const words = computed(() => {
  const said = (shown.value ?? []).map((d) =>
    eventWords({ ...d, personId: '', personName: '' } as VisitEvent, names.value),
  )
  return said.findLast((s) => s !== null) ?? 'Step done'
})
function undo() {
  refusal.value = store.undo()
  taken.value = refusal.value === null
}
</script>

<template>
  <div class="undo no-print" role="status">
    <p v-if="shown" class="line">
      <span class="words">{{ words }}</span>
      <BButton variant="link" @click="undo">Undo</BButton>
    </p>
    <p v-else-if="refusal" class="line">{{ refusal.why }} {{ refusal.remedy }}</p>
    <p v-else-if="taken" class="visually-hidden">Taken back.</p>
  </div>
</template>

<style scoped>
.undo {
  position: fixed;
  z-index: 7;
  top: calc(var(--head-height) + 0.5rem);
  right: 1.25rem;
  max-width: min(28rem, calc(100vw - 1rem));
  pointer-events: none;
}

.line {
  display: flex;
  gap: 0.75rem;
  align-items: center;
  margin: 0;
  padding: 0 0 0 0.9rem;
  background: var(--paper-raised);
  border: 1px solid var(--rule-strong);
  border-left: 6px solid var(--blue);
  pointer-events: auto;
}

.words {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.btn {
  min-height: 48px;
  min-width: 72px;
  font-weight: 650;
}

@media (max-width: 43.75em) {
  .undo {
    left: 0.5rem;
    right: 0.5rem;
  }
}
</style>
