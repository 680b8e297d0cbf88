<script setup lang="ts">
import { storedEnergy } from '@uvanta/core/guide'
import { computed } from 'vue'
import { useGuide } from '../bench/useGuide'

/**
 * Energy that stays when the pressure is gone, until the step that lets it out. That step itself says
 * so with its own hazard.
 */
const props = defineProps<{ now?: string | undefined }>()
const { guide, run } = useGuide(() => 'make-safe')
const left = computed(() =>
  guide.value && run.value
    ? storedEnergy(guide.value, run.value.steps).filter(
        (e) => !run.value?.done.has(e.step) && e.step !== props.now,
      )
    : [],
)
const first = computed(() => left.value[0])
const later = computed(() => left.value.slice(1))
</script>

<template>
  <aside v-if="first" class="stop" aria-label="Stored energy">
    <svg viewBox="0 0 40 40" aria-hidden="true">
      <path d="M13 3h14l10 10v14L27 37H13L3 27V13Z" />
      <path d="M20 10v13M20 28v2" class="bang" />
    </svg>
    <p>
      <strong>Stop: {{ first.title }} is loaded.</strong>
      {{ first.controlled ? 'It is let out under control, at this step' : 'This comes out first' }}:
      <em>{{ first.says }}</em> <span class="soft mono small">step {{ first.step }}</span>
      <template v-for="e in later" :key="e.id">
        <br />Loaded as well: {{ e.title }}, until
        <span class="mono small">step {{ e.step }}</span>
      </template>
    </p>
  </aside>
</template>

<style scoped>
.stop {
  display: flex;
  gap: 0.9rem;
  align-items: center;
  border: 3px solid var(--fail);
  padding: 0.6rem 0.9rem;
  margin-bottom: 0.75rem;
}

svg {
  width: 40px;
  flex: none;
  fill: none;
  stroke: var(--fail);
  stroke-width: 3;
}

.bang {
  stroke-width: 4.5;
}

p {
  margin: 0;
}

em {
  font-style: normal;
  font-weight: 600;
}
</style>
