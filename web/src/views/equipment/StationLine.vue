<script setup lang="ts">
import type { Equipment } from '@uvanta/contract'
import { assemblyKinds } from '@uvanta/core/apparatus/backflow'
import { nominalNames, type NominalName } from '@uvanta/core/apparatus'
import { regulatorKinds } from '@uvanta/core/apparatus/regulator'
import { nominalsOf } from '@uvanta/contract'
import { formatQuantity } from '@uvanta/core/quantity'
import { computed } from 'vue'
import { conditionWords } from '@/composables/words'
import StateMark from '@/parts/StateMark.vue'

/** A station as one line, inlet to the left: each piece as its sign, what it is set to, and how it stands. */
const props = defineProps<{ members: readonly Equipment[]; of: string }>()

/** What protects and what is protected, in the order of their pressures. */
const SHOWN: readonly NominalName[] = [
  'set-point',
  'monitor-set',
  'relief-set',
  'slam-shut-high',
  'slam-shut-low',
  'maop',
]
const pieces = computed(() =>
  props.members.map((e) => ({
    e,
    sign: (regulatorKinds as readonly string[]).includes(e.kind)
      ? ('regulator' as const)
      : (assemblyKinds as readonly string[]).includes(e.kind)
        ? ('assembly' as const)
        : ('valve' as const),
    relieved: e.nominals.some((n) => n.name === 'relief-set'),
    figures: nominalsOf(e)
      .filter((n) => SHOWN.includes(n.name))
      .sort((a, b) => SHOWN.indexOf(a.name) - SHOWN.indexOf(b.name))
      .map((n) => ({ title: nominalNames[n.name], text: formatQuantity(n.value) })),
  })),
)
</script>

<template>
  <ol class="line scroll-x" aria-label="The station in the order of its line, inlet first">
    <li v-for="{ e, sign, relieved, figures } in pieces" :key="e.id" :class="{ own: e.id === of }">
      <svg viewBox="0 0 160 120" aria-hidden="true">
        <template v-if="sign === 'regulator'">
          <path class="body" d="M50 66 80 84 50 102ZM110 66 80 84 110 102Z" />
          <path class="thin" d="M80 84V52M56 52H104" />
          <path class="body" d="M56 52A24 18 0 0 1 104 52Z" />
          <template v-if="relieved">
            <path class="thin" d="M128 84V56" />
            <path class="body" d="M118 56 128 40 138 56Z" />
            <path class="thin" d="M128 40V20m-6 8 6-8 6 8" />
          </template>
        </template>
        <template v-else-if="sign === 'assembly'">
          <rect class="body" x="36" y="62" width="88" height="44" />
          <path class="thin" d="M50 70v28M50 84l18-14v28zM92 70v28M92 84l18-14v28z" />
        </template>
        <path v-else class="body" d="M50 66 80 84 50 102ZM110 66 80 84 110 102Z" />
      </svg>
      <RouterLink
        v-if="e.id !== of"
        class="mono tag"
        :to="{ name: 'equipment', params: { id: e.id } }"
        >{{ e.tag }}</RouterLink
      >
      <span v-else class="mono tag">{{ e.tag }}</span>
      <StateMark :state="e.condition" :label="conditionWords[e.condition] ?? ''" />
      <dl>
        <div v-for="f in figures" :key="f.title">
          <dt>{{ f.title }}</dt>
          <dd class="mono">{{ f.text }}</dd>
        </div>
      </dl>
    </li>
  </ol>
</template>

<style scoped>
.line {
  display: flex;
  /* The pipe runs behind all pieces, where the drawing of each has its axis. */
  background: linear-gradient(var(--flow), var(--flow)) 0 calc(7rem * 0.7 - 2.5px) / 100% 5px
    no-repeat;
  list-style: none;
  padding: 0;
  margin: 0;
}

li {
  flex: 1 0 11rem;
}

svg {
  display: block;
  width: 100%;
  height: 7rem;
}

.body {
  fill: var(--paper-raised);
  stroke: var(--ink);
  stroke-width: 2.4;
}

.own .body {
  fill: var(--paper-sunk);
  stroke-width: 4;
}

.thin {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}

.tag {
  display: block;
  font-weight: 600;
}

dl {
  margin: 0.4rem 0 0;
  padding-right: 1rem;
}

dt {
  font-weight: 400;
  font-size: 0.875rem;
  color: var(--ink-soft);
}

dd {
  margin: 0 0 0.3rem;
}
</style>
