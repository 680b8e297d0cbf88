<script setup lang="ts">
import { apparatusOf, type Opening, restOpening } from '@uvanta/core/apparatus'
import { movesOf, type PlacedStep } from '@uvanta/core/guide'
import { planIsolation } from '@uvanta/core/pressure'
import type { Notice, Station } from '@uvanta/core/visit'
import { useMediaQuery } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'
import EquipmentDrawing from '@/parts/drawing/EquipmentDrawing.vue'
import ZoneDrawing from '@/parts/drawing/ZoneDrawing.vue'
import ReasonForm from '@/parts/form/ReasonForm.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useVisit } from '@/stores/visit'
import { useSite } from './useSite'

/**
 * The equipment with every space as it stands: live, trapped, vented, proved. Pressing a valve records
 * it; a move that is not safe to go by is refused first, and recorded with a reason if it happened.
 */
const props = defineProps<{ station: Station; step: PlacedStep | null; pressable: boolean }>()
const store = useVisit()
const refusal = shallowRef<Notice | null>(null)
const refused = shallowRef<{ element: string; to: Opening } | null>(null)
/** On a phone only what the step turns is drawn, large enough for a glove. */
const narrow = useMediaQuery('(max-width: 43.75em)')
const whole = ref(false)

const { site, states } = useSite()
const equipment = computed(() => store.state.plan?.equipment)
const drawn = computed(() => {
  const places = apparatusOf(equipment.value?.kind ?? '')?.places.map((p) => p.id) ?? []
  // The apparatus’s own drawing serves where the spaces are its places, and not those of a guide.
  return site.value?.spaces.every((s) => places.includes(s.id)) ?? false
})
const inside = computed(() => site.value?.spaces.filter((s) => !s.source) ?? [])
const wanted = computed(() => {
  if (!props.step) return []
  const moves = movesOf(props.step).filter((m) => store.state.valves[m.element] !== m.to)
  return moves.slice(0, 1).map((m) => m.element)
})
const words = computed(() =>
  Object.fromEntries(inside.value.map((s) => [s.id, states.value[s.id] ?? ''])),
)
const live = computed(() => ({
  openings: store.state.valves,
  hoses: {},
  running: [],
  lifted: [],
  turning: [],
  pressures: words.value,
  wanted: wanted.value,
  shown: '',
  heightMm: null,
}))
const left = computed(() => (site.value ? planIsolation(site.value).leftAlone : []))

function turn(element: string) {
  if (!props.pressable || !site.value) return
  const role = site.value.valves.find((v) => v.id === element)?.role
  if (!role) return
  const now = store.state.valves[element] ?? restOpening(role === 'shutoff' ? 'shutoff' : 'cock')
  const step = props.step ? movesOf(props.step).find((m) => m.element === element) : undefined
  const to: Opening = step && step.to !== now ? step.to : now === 'shut' ? 'open' : 'shut'
  refusal.value = store.record('valve-moved', { element, to })
  refused.value = refusal.value ? { element, to } : null
}
function depart(departure: string) {
  if (!refused.value) return
  refusal.value = store.record('valve-moved', { ...refused.value, departure })
  if (!refusal.value) refused.value = null
}
</script>

<template>
  <figure v-if="site && equipment" class="safe">
    <EquipmentDrawing
      v-if="drawn"
      :kind="equipment.kind"
      :tag="equipment.tag"
      :live="live"
      :states="states"
      :pressable="pressable"
      :folded="narrow && !whole"
      @turn="turn"
    />
    <ZoneDrawing
      v-else
      :site="site"
      :tag="equipment.tag"
      :openings="store.state.valves"
      :states="states"
      :wanted="wanted"
      :pressable="pressable"
      @turn="turn"
    />
    <BButton v-if="drawn && narrow && wanted.length > 0" variant="link" @click="whole = !whole">{{
      whole ? 'Only what the step turns' : 'The whole drawing'
    }}</BButton>
    <ul class="spaces" aria-label="Spaces">
      <li v-for="s in inside" :key="s.id" :class="states[s.id]">
        <span class="swatch" aria-hidden="true" />{{ s.title }} <strong>{{ states[s.id] }}</strong>
      </li>
    </ul>
    <figcaption class="soft small">
      <template v-if="pressable">Press a valve when it has been turned. </template>
      From the valves alone: what leaks is not in it, only a reading proves zero.
      <template v-for="v in left" :key="v.valve"> {{ v.title }} is live: leave it shut.</template>
    </figcaption>
    <ProblemNote :refusal="refusal" />
    <ReasonForm
      v-if="refused"
      class="depart"
      label="It was turned all the same, because"
      action="Record it so"
      variant="outline-primary"
      @given="depart"
    >
      <template #beside>
        <BButton variant="link" @click="((refused = null), (refusal = null))">It was not</BButton>
      </template>
    </ReasonForm>
  </figure>
</template>

<style scoped>
.safe {
  margin: 0 0 1rem;
}

.spaces {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 0.25rem 1.25rem;
  padding: 0;
  margin: 0 0 0.25rem;
}

.swatch {
  display: inline-block;
  width: 1.1em;
  height: 0.8em;
  border: 2px solid var(--ink);
  margin-right: 0.4rem;
}

.live .swatch {
  background: color-mix(in srgb, var(--flow) 60%, transparent);
}

.trapped .swatch {
  background: repeating-linear-gradient(45deg, var(--flow) 0 2px, transparent 2px 5px);
}

.live strong,
.trapped strong {
  color: var(--fail);
}

.proved strong {
  color: var(--pass);
}

.depart {
  max-width: 36rem;
}
</style>
