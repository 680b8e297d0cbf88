<script setup lang="ts">
import { computed, nextTick, onMounted, useTemplateRef, watch } from 'vue'
import { useStroke } from '@/composables/useStroke'

/** One line of what hands do: the sentence, what is so once it is done, and whether it is. */
export interface HandsLine {
  readonly id: string
  readonly words: string
  readonly states: string
  readonly done: boolean
  /** Its number on the drawing. */
  readonly drawn?: string | number | undefined
}

/** What hands do one after the other: a line each, pressed one by one or with one stroke down their boxes. */
const props = defineProps<{ lines: readonly HandsLine[]; busy?: boolean }>()
const emit = defineEmits<{ done: [lines: number] }>()
defineSlots<{ default?: (of: { line: HandsLine }) => unknown }>()
const list = useTemplateRef<HTMLElement>('list')
const open = computed(() => props.lines.filter((l) => !l.done))
const due = computed(() => open.value[0]?.id)

const boxes = () => [...(list.value?.querySelectorAll('.box:not(.ticked)') ?? [])]
const { marked, begin, endsStroke } = useStroke(boxes, (lines) => emit('done', lines))
const isMarked = (line: HandsLine) => {
  const place = open.value.indexOf(line)
  return place >= 0 && place < marked.value
}
function press() {
  if (!endsStroke()) emit('done', 1)
}

/** Who listens or types goes on at the next line. */
const focusDue = () =>
  nextTick(() => {
    const button = list.value?.querySelector<HTMLElement>('button:not([disabled])')
    if (document.activeElement === document.body) button?.focus({ preventScroll: true })
    button?.closest('li')?.scrollIntoView({ block: 'nearest' })
  })
onMounted(focusDue)
watch(due, focusDue)
</script>

<template>
  <p class="soft small no-print how">
    Press each as it is done, or draw one stroke down the boxes of those that are.
  </p>
  <ol ref="list" class="lines">
    <li v-for="line in lines" :key="line.id" :class="{ now: line.id === due }">
      <div class="words">
        <p class="sentence">
          {{ line.words
          }}<span v-if="line.drawn" class="soft small drawn"> · no. {{ line.drawn }}</span>
        </p>
        <slot v-if="!line.done" :line="line" />
      </div>
      <button
        type="button"
        class="line-box"
        :disabled="busy || line.id !== due"
        :aria-label="`${line.words}: ${line.states}`"
        @pointerdown="begin"
        @click="press"
      >
        <span class="box" :class="{ ticked: line.done, marked: isMarked(line) }">
          <svg v-if="line.done || isMarked(line)" viewBox="0 0 24 24" aria-hidden="true">
            <path d="M4 12.5 10 18.5 20.5 5.5" />
          </svg>
        </span>
        <span class="states">{{ line.states }}</span>
      </button>
    </li>
  </ol>
</template>

<style scoped>
.how {
  margin-bottom: 0.5rem;
}

.lines {
  list-style: none;
  margin: 0 0 0.6rem;
  padding: 0;
  border-block: 2px solid var(--rule-strong);
  max-width: 46rem;
}

.lines li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 7.5rem;
  /* Clear of the head and of what was just recorded. */
  scroll-margin-block: 9rem 5rem;
}

.lines li + li {
  border-top: 1px solid var(--rule);
}

.words {
  padding: 0.6rem 0.75rem 0.6rem 0;
}

.sentence {
  font-size: 1.125rem;
  line-height: 1.3;
  margin-bottom: 0.2rem;
}

.now .sentence {
  font-weight: 700;
  font-size: 1.375rem;
}

.drawn {
  font-weight: 400;
}

.line-box {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 0.25rem;
  padding: 0.6rem 0.25rem;
  border: 0;
  /* The rail on which the stroke goes down. */
  background: linear-gradient(var(--rule), var(--rule)) center / 2px 100% no-repeat;
  color: var(--ink-soft);
  font-size: 0.875rem;
  line-height: 1.2;
  /* A stroke down the boxes draws; beside them the page goes as ever. */
  touch-action: none;
  user-select: none;
}

li:first-child .line-box {
  background-position: center bottom;
  background-size: 2px calc(100% - 1rem);
}

li:last-child .line-box {
  background-position: center top;
  background-size: 2px 1rem;
}

.now .line-box {
  color: var(--ink);
}

.box {
  display: grid;
  place-items: center;
  width: 52px;
  height: 52px;
  border: 2px solid var(--ink-soft);
  background: var(--paper);
}

.states {
  padding: 0.1rem 0.25rem;
  background: var(--paper);
}

.now .box {
  border: 3px solid var(--blue);
  background: var(--blue-wash);
}

/* What is done is seen to be done, and takes little room. */
.ticked + .states {
  display: none;
}

.box.marked {
  border-color: var(--blue);
  background: var(--blue);
  color: var(--blue-on);
}

.box.ticked {
  border-color: var(--ink);
  color: var(--ink);
  background: var(--paper-sunk);
}

svg {
  width: 32px;
  fill: none;
  stroke: currentColor;
  stroke-width: 3.5;
}

@media (min-width: 62.5625em) {
  .lines li {
    grid-template-columns: minmax(0, 1fr) 11rem;
  }
}
</style>
