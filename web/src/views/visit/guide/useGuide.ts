import { nextStep, type PlacedStep, slotsOf } from '@uvanta/core/guide'
import { runOfGuide, type Station } from '@uvanta/core/visit'
import { computed } from 'vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'

/** The guide of the open visit, as far as it has been carried out, seen from one station. */
export function useGuide(station: () => Station) {
  const store = useVisit()
  const library = useLibrary()
  const guide = computed(() =>
    library.library?.guides.find((g) => g.id === store.state.guide?.guideId),
  )
  const run = computed(() => (library.library ? runOfGuide(store.state, library.library) : null))
  const steps = computed(() => run.value?.steps.filter((s) => s.at === station()) ?? [])
  const due = computed<PlacedStep | null>(() =>
    run.value && station() !== 'arrive' && station() !== 'as-found'
      ? nextStep(run.value, station() as never)
      : null,
  )
  /** Slots of the due step that have no value yet. */
  const missing = computed(() =>
    due.value
      ? slotsOf(due.value).filter((s) => !store.state.guideValues.some((v) => v.slot === s))
      : [],
  )
  const valueOf = (slot: string) => store.state.guideValues.findLast((v) => v.slot === slot)
  const slotOf = (id: string) => guide.value?.slots?.find((s) => s.id === id)
  return { guide, run, steps, due, missing, valueOf, slotOf }
}
