<script setup lang="ts">
/** One ruled cell of the title block. */
export interface BlockCell {
  readonly label: string
  readonly value: string
  readonly mono?: boolean
  /** Columns it takes, 1 by default. */
  readonly span?: number
  /** Left out on a phone, where room is short. */
  readonly wideOnly?: boolean
}

defineProps<{ title: string; subtitle?: string; cells: readonly BlockCell[] }>()
</script>

<template>
  <header class="title-block">
    <div class="name">
      <h1>{{ title }}</h1>
      <p v-if="subtitle" class="soft">{{ subtitle }}</p>
      <slot name="name" />
    </div>
    <dl>
      <div
        v-for="c in cells"
        :key="c.label"
        :style="{ '--span': c.span ?? 1 }"
        :class="{ 'wide-only': c.wideOnly }"
      >
        <dt>{{ c.label }}</dt>
        <dd v-if="c.mono" class="mono">
          <!-- A serial is one word, whatever stands in it. -->
          <template v-for="(word, n) in c.value.split(' ')" :key="n"
            ><span class="word">{{ word }}</span
            >{{ ' ' }}</template
          >
        </dd>
        <dd v-else>{{ c.value }}</dd>
      </div>
    </dl>
    <div v-if="$slots.actions" class="block-actions no-print"><slot name="actions" /></div>
  </header>
</template>

<style scoped>
.title-block {
  display: grid;
  grid-template-columns: minmax(14rem, 26%) 1fr auto;
  border: 2px solid var(--rule-strong);
  background: var(--paper-raised);
  margin-bottom: 1.25rem;
}

.name {
  padding: 0.6rem 0.9rem;
  border-right: 1px solid var(--rule-strong);
}

h1 {
  margin: 0;
  line-height: 1.15;
}

.name p {
  margin: 0.15rem 0 0;
}

/* Every row is filled to its end, so that no cell stands empty whatever the width. */
dl {
  --cell: 8.5rem;
  display: flex;
  flex-wrap: wrap;
  margin: 0;
  overflow: hidden;
}

/* Rules between cells, however many stand in a row; the outermost fall outside. */
dl > div {
  border-right: 1px solid var(--rule);
  border-bottom: 1px solid var(--rule);
  margin: 0 -1px -1px 0;
  padding: 0.35rem 0.75rem;
  flex: var(--span) 1 calc(var(--span) * var(--cell));
  min-width: 0;
}

dt {
  font-weight: 400;
  font-size: 0.875rem;
  color: var(--ink-soft);
}

dd {
  margin: 0;
  overflow-wrap: anywhere;
}

.word {
  white-space: nowrap;
}

.block-actions {
  display: flex;
  flex-direction: column;
  justify-content: center;
  gap: 0.5rem;
  padding: 0.6rem 0.9rem;
  border-left: 1px solid var(--rule-strong);
}

@media (max-width: 56.25em) {
  .title-block {
    grid-template-columns: 1fr;
  }

  .name,
  .block-actions {
    border-right: 0;
    border-left: 0;
  }

  .name {
    border-bottom: 1px solid var(--rule-strong);
  }

  .block-actions {
    border-top: 1px solid var(--rule-strong);
    flex-direction: row;
    flex-wrap: wrap;
    justify-content: flex-start;
  }

  dl {
    --cell: 40%;
  }

  .wide-only {
    display: none;
  }
}
</style>
