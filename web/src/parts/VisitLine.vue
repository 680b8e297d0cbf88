<script setup lang="ts">
import { type Station, stations, stationTitles } from '@uvanta/core/visit/words'
import { computed } from 'vue'

/**
 * The line: a pipe with eight valves. A finished station is an open valve with water behind it, the
 * current one is lit, one that may not be entered yet is shut. With `small` it stands for a visit in a list.
 */
const props = defineProps<{
  done: readonly Station[]
  skipped: readonly Station[]
  /** The station shown, which may be an earlier one. */
  shown?: Station
  small?: boolean
  closed?: boolean
}>()
const emit = defineEmits<{ choose: [station: Station] }>()

const current = computed(() =>
  props.closed
    ? undefined
    : stations.find((s) => !props.done.includes(s) && !props.skipped.includes(s)),
)
const items = computed(() =>
  stations.map((station) => {
    const state = props.done.includes(station)
      ? 'done'
      : props.skipped.includes(station)
        ? 'skipped'
        : station === current.value
          ? 'current'
          : 'shut'
    return { station, state, title: stationTitles[station] }
  }),
)
const words: Record<string, string> = {
  done: 'finished',
  skipped: 'not needed',
  current: 'now',
  shut: 'not yet',
}
const summary = computed(() => {
  const at = current.value ? `at ${stationTitles[current.value]}` : 'closed'
  return `${props.done.length} of ${stations.length - props.skipped.length} stations finished, ${at}`
})
</script>

<template>
  <svg v-if="small" class="small-line" viewBox="0 0 168 20" role="img" :aria-label="summary">
    <template v-for="(i, n) in items" :key="i.station">
      <path class="pipe" :class="i.state" :d="`M${n * 21} 10h21`" />
      <circle :class="i.state" :cx="n * 21 + 10.5" cy="10" r="6.2" />
      <path
        class="lever"
        :class="i.state"
        :d="i.state === 'done' ? `M${n * 21 + 6} 10h9` : `M${n * 21 + 10.5} 5.5v9`"
      />
    </template>
  </svg>
  <ol v-else class="line" :aria-label="summary">
    <li v-for="i in items" :key="i.station" :class="[i.state, { shown: i.station === shown }]">
      <button
        type="button"
        :aria-current="i.station === shown ? 'step' : undefined"
        :aria-label="`${i.title}: ${words[i.state]}`"
        @click="emit('choose', i.station)"
      >
        <svg viewBox="0 0 44 44" aria-hidden="true">
          <circle class="ring" cx="22" cy="22" r="15" />
          <path v-if="i.state === 'done'" class="lever" d="M10 22h24" />
          <path v-else-if="i.state === 'current'" class="lever" d="M13.5 30.5 30.5 13.5" />
          <path v-else class="lever" d="M22 10v24" />
        </svg>
        <span>{{ i.title }}</span>
      </button>
    </li>
  </ol>
</template>

<style scoped>
.line {
  list-style: none;
  display: grid;
  grid-template-columns: repeat(8, minmax(0, 1fr));
  margin: 0 0 1.25rem;
  padding: 0;
}

li {
  position: relative;
  text-align: center;
}

/* The pipe: two walls, and water between them behind every finished station. */
li::before {
  content: '';
  position: absolute;
  left: 0;
  right: 0;
  top: 17px;
  height: 14px;
  border-block: 2px solid var(--ink);
  background: var(--paper);
}

li.done::before {
  background: var(--flow);
}

li.current::before {
  background: linear-gradient(90deg, var(--flow) 50%, var(--paper) 50%);
}

li.skipped::before {
  border-block-style: dashed;
}

button {
  position: relative;
  background: none;
  border: 0;
  width: 100%;
  min-height: 72px;
  padding: 0;
  color: var(--ink);
  font-size: 0.9375rem;
}

button svg {
  width: 48px;
  height: 48px;
  display: block;
  margin: 0 auto;
}

.ring {
  fill: var(--paper-raised);
  stroke: var(--ink);
  stroke-width: 2.4;
}

.lever {
  stroke: var(--ink);
  stroke-width: 5;
  fill: none;
}

.current .ring {
  fill: var(--blue);
  stroke: var(--blue);
}

.current .lever {
  stroke: var(--blue-on);
}

.shut .ring,
.skipped .ring {
  stroke: var(--ink-soft);
}

.shut .lever,
.skipped .lever {
  stroke: var(--ink-soft);
}

.skipped .ring {
  stroke-dasharray: 4 3;
}

.shut span,
.skipped span {
  color: var(--ink-soft);
}

.shown span {
  font-weight: 700;
  border-bottom: 3px solid var(--blue);
}

.small-line {
  width: 168px;
  height: 20px;
  flex: none;
}

.small-line circle {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.4;
}

.small-line .pipe {
  stroke: var(--rule);
  stroke-width: 3;
}

.small-line .pipe.done {
  stroke: var(--flow);
}

.small-line .lever {
  stroke-width: 2.4;
}

.small-line circle.current {
  fill: var(--blue);
  stroke: var(--blue);
}

.small-line .lever.current {
  stroke: var(--blue-on);
}

.small-line circle.skipped,
.small-line circle.shut {
  stroke: var(--ink-soft);
}

.small-line circle.skipped {
  stroke-dasharray: 2 1.6;
}

@media (max-width: 43.75em) {
  .line {
    margin-bottom: 1.9rem;
  }

  button {
    min-height: 48px;
  }

  button svg {
    width: 100%;
    max-width: 44px;
    height: 48px;
  }

  /* Only the name of the station shown has room. */
  li span {
    position: absolute;
    left: 50%;
    top: 46px;
    transform: translateX(-50%);
    white-space: nowrap;
    display: none;
  }

  li.shown span {
    display: block;
  }

  li:first-child span {
    left: 0;
    transform: none;
  }

  li:last-child span {
    left: auto;
    right: 0;
    transform: none;
  }
}
</style>
