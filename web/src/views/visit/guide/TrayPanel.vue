<script setup lang="ts">
import type { GuideRun, KitLine, PlacedStep, TrayPart } from '@uvanta/core/guide'
import { computed } from 'vue'
import PartShape from '@/parts/drawing/PartShape.vue'
import { useGuide } from '../bench/useGuide'
import { useMachine } from '../bench/useMachine'

/** The tray, parts in the order they came off, and the kit, item by item. */
const props = defineProps<{
  run: GuideRun
  /** The step that is shown: its part goes back next. */
  step?: PlacedStep | null
}>()
const { kitOf, partOf } = useGuide(() => 'rebuild')
const { numberOf: drawn } = useMachine(() => 'rebuild')
const waiting = computed(() => props.run.tray.filter((p) => p.fate === 'refit'))
const apart = computed(() => props.run.tray.filter((p) => p.fate !== 'refit'))
const FATES: Readonly<Record<TrayPart['fate'], string>> = {
  refit: '',
  discard: 'thrown away – a new one goes in',
  warranty: 'kept for the warranty – a new one goes in',
}
const kitLeft = computed(() => props.run.kit.filter((k) => k.used < k.count))
const numberOf = ({ id, job }: KitLine) => kitOf(job)?.items.find((i) => i.item === id)?.number
</script>

<template>
  <section class="tray" aria-label="Tray and kit">
    <h2>Tray</h2>
    <ol v-if="waiting.length > 0" class="slots">
      <li v-for="(p, n) in waiting" :key="p.id" :class="{ next: p.id === step?.fit }">
        <PartShape :shape="partOf(p.id)?.shape ?? 'body'" :title="p.title" />
        <span
          ><span class="mono">{{ n + 1 }}</span> {{ p.title
          }}<small v-if="drawn(p.id)" class="soft">no. {{ drawn(p.id) }}</small
          ><small v-if="p.id === step?.fit">goes back now</small></span
        >
      </li>
    </ol>
    <p v-else class="soft empty">Empty. Parts are laid down here in the order they come off.</p>
    <template v-if="apart.length > 0">
      <h2>To be renewed</h2>
      <ul class="slots apart">
        <li v-for="p in apart" :key="p.id" class="gone">
          <PartShape :shape="partOf(p.id)?.shape ?? 'body'" :title="p.title" gone />
          <span
            >{{ p.title }}<small>{{ FATES[p.fate] }}</small></span
          >
        </li>
      </ul>
    </template>
    <template v-if="run.kit.length > 0">
      <h2>Kit</h2>
      <ul class="rows kit">
        <li v-for="k in run.kit" :key="k.id">
          <span
            >{{ k.title }} <small class="soft mono">{{ numberOf(k) }}</small></span
          >
          <span class="mono">{{ k.used }} / {{ k.count }}</span>
        </li>
      </ul>
      <p class="soft small">
        {{ kitLeft.length === 0 ? 'Everything in the kit is fitted.' : 'Fitted / for this job.' }}
      </p>
    </template>
  </section>
</template>

<style scoped>
.slots .next {
  border: 2px solid var(--blue);
}

.next small {
  color: var(--blue);
  font-weight: 600;
}

h2 {
  font-size: 1.0625rem;
  margin-bottom: 0.4rem;
}

.slots {
  list-style: none;
  margin: 0 0 1.25rem;
  padding: 0.5rem;
  border: 2px solid var(--rule-strong);
  background: var(--paper-raised);
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(10rem, 1fr));
  gap: 0.35rem;
}

.slots li {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  border: 1px solid var(--rule);
  padding: 0.25rem 0.5rem;
  line-height: 1.2;
}

.apart {
  border-style: dashed;
}

.slots .mono {
  color: var(--ink-soft);
  margin-right: 0.2rem;
}

.gone {
  border-style: dashed !important;
  color: var(--ink-soft);
}

.slots small {
  display: block;
}

.empty {
  border: 2px dashed var(--rule);
  padding: 0.75rem;
}

.kit li {
  display: flex;
  justify-content: space-between;
  gap: 1rem;
  padding: 0.4rem 0;
}
</style>
