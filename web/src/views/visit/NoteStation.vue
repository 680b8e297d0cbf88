<script setup lang="ts">
import { apparatusOf } from '@uvanta/core/apparatus'
import { type Notice, type Station, stationTitles } from '@uvanta/core/visit'
import { computed, ref, shallowRef } from 'vue'
import { keepTyped } from '@/parts/form/keepTyped'
import LinkButton from '@/parts/LinkButton.vue'
import ProblemNote from '@/parts/ProblemNote.vue'
import { useVisit } from '@/stores/visit'
import AdjustPanel from './bench/AdjustPanel.vue'
import RepairForm from './RepairForm.vue'
import GuideChooser from './guide/GuideChooser.vue'
import GuideStation from './guide/GuideStation.vue'
import KitCount from './prepare/KitCount.vue'
import MachineBefore from './prepare/MachineBefore.vue'
import ReadyList from './prepare/ReadyList.vue'
import PhotoStrip from './PhotoStrip.vue'
import SafePanel from './safe/SafePanel.vue'
import StationFrame from './StationFrame.vue'

const props = defineProps<{ station: Station }>()
const store = useVisit()
const text = ref('')
const refusal = shallowRef<Notice | null>(null)
keepTyped(
  `${store.visit?.id}/note-${props.station}`,
  () => text.value,
  (kept) => (text.value = kept),
)

const words: Partial<Record<Station, { lead: string; done: string; caution?: string }>> = {
  prepare: {
    lead: 'Why are we going? Check tools, kit counted against its list, lubricant, protective gear, gauge and licence. Is the shutdown agreed?',
    done: 'Prepared – set off',
  },
  'make-safe': {
    lead: 'Close the downstream shutoff, then the upstream one. Open cocks 4, 3, then 2; cock 1 stays shut, it is live. Prove zero, lock and tag.',
    caution:
      'Local code, the maker’s sheet and licensed practice come first. This list does not make anything safe.',
    done: 'Zero is proved – open up',
  },
  'open-up': {
    lead: 'Witness marks first. Parts come off in order and are laid out in order. Nothing sharp on sealing faces. Inspect each part.',
    caution: 'Covers with spring load come off evenly, the long bolts last.',
    done: 'Opened and inspected',
  },
  rebuild: {
    lead: 'Clean, lubricate the right things with the right thing, renew, set orientation, tighten in a cross. The tray must be empty.',
    done: 'Rebuilt – tray empty',
  },
  return: {
    lead: 'Refill slowly, bleed the air in order, look for leaks. Downstream stays shut until the local rule allows.',
    done: 'Back under pressure, no leaks',
  },
}
/** Nothing was shut or opened: the test as found has passed. */
const untouched = {
  lead: 'Nothing was opened. Caps and canopy on, nothing drips, the place is left clean.',
  done: 'Left as it was found',
}
const w = computed(() =>
  props.station === 'return' && store.state.skipped.length > 0
    ? { ...words.return, ...untouched }
    : words[props.station],
)
const testable = computed(() => apparatusOf(store.state.plan?.equipment.kind ?? '') !== undefined)
const current = computed(
  () => !store.state.done.includes(props.station) && !store.state.skipped.includes(props.station),
)
const bring = computed(() => store.state.plan?.bring ?? [])
const notes = computed(() => store.state.notes.filter((n) => n.station === props.station))
const skipped = computed(() => store.state.skipped.length > 0 && props.station !== 'prepare')
const writable = computed(() => store.mine && !store.state.signed && !store.state.stopped)

/** What nobody has answered for in Prepare; a press more goes without. */
const unticked = ref(0)
const asks = computed(() =>
  props.station === 'prepare' && unticked.value > 0
    ? `${unticked.value} ${unticked.value === 1 ? 'thing is' : 'things are'} not ticked: go all the same?`
    : '',
)

function saveNote(): boolean {
  refusal.value = null
  if (!text.value.trim()) return true
  refusal.value = store.record('note', { station: props.station, text: text.value.trim() })
  if (refusal.value) return false
  text.value = ''
  return true
}

function finish() {
  if (saveNote()) refusal.value = store.record('station-done', { station: props.station })
}
</script>

<template>
  <GuideStation
    v-if="store.state.guide && !skipped"
    :station="station"
    :done-words="w?.done ?? 'Done'"
    :asks="asks"
  >
    <template v-if="station === 'prepare'" #beside>
      <KitCount v-if="store.state.kit" :writable="writable && current" />
      <KitCount
        v-for="(_, job) in store.state.jobKits"
        :key="job"
        :job="job"
        :writable="writable && current"
      />
      <ReadyList v-model:unticked="unticked" :writable="writable && current" />
    </template>
    <template v-if="station === 'prepare'" #below><MachineBefore class="mt-4" /></template>
  </GuideStation>
  <StationFrame v-else :title="stationTitles[station]" :lead="w?.lead">
    <p v-if="station === 'prepare' && bring.length > 0" class="caution bring">
      Ordered for this visit, bring it: <strong>{{ bring.join(', ') }}</strong>
    </p>
    <p v-if="w?.caution" class="caution">{{ w.caution }}</p>
    <ul v-if="notes.length > 0" class="rows notes">
      <li v-for="n in notes" :key="n.eventId">
        {{ n.text }} <span class="soft small">{{ n.recordedBy }}</span>
      </li>
    </ul>
    <SafePanel
      v-if="station === 'make-safe' || station === 'return'"
      :station="station"
      :step="null"
      :pressable="writable && current"
      class="mt-3"
    />
    <AdjustPanel v-if="station === 'return' && writable && current" />
    <GuideChooser v-if="station === 'prepare' && writable && current" />
    <RepairForm v-if="station === 'rebuild' && writable && current" />
    <template v-if="writable && current">
      <label class="form-label mt-3" :for="`note-${station}`">Note</label>
      <BFormTextarea
        :id="`note-${station}`"
        v-model="text"
        rows="3"
        placeholder="What is worth knowing later (optional)"
      />
      <ProblemNote :refusal="refusal" />
      <div class="actions mt-3">
        <BButton variant="primary" size="lg" @click="finish">{{ w?.done }}</BButton>
        <LinkButton
          v-if="station === 'prepare' && testable"
          :to="{ name: 'paper-form', params: { id: store.visit?.id, run: 'as-found' } }"
          >Blank form for paper</LinkButton
        >
        <BButton v-if="text.trim()" variant="outline-primary" @click="saveNote"
          >Keep the note</BButton
        >
      </div>
    </template>
    <p v-else-if="notes.length === 0" class="soft">Nothing was noted here.</p>
    <PhotoStrip :station="station" :caption="stationTitles[station]" />
  </StationFrame>
</template>

<style scoped>
.notes {
  margin-top: 1rem;
}

.notes li {
  padding: 0.5rem 0;
  white-space: pre-wrap;
}
</style>
