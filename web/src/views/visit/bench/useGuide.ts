import { nextStep, type PlacedStep } from '@uvanta/core/guide'
import {
  guideOfVisit,
  kitOfVisit,
  kitsNeeded,
  kitTaken,
  missingSlots,
  piecesWanted,
  runOfGuide,
  slotFigure,
  type Station,
} from '@uvanta/core/visit'
import { computed } from 'vue'
import { useLibrary } from '@/stores/library'
import { useVisit } from '@/stores/visit'

/** The guide of the open visit, as far as it has been carried out, seen from one station. */
export function useGuide(station: () => Station) {
  const store = useVisit()
  const library = useLibrary()
  const known = computed(() => library.library)
  const guide = computed(() =>
    known.value ? guideOfVisit(store.state, known.value)?.guide : undefined,
  )
  const run = computed(() => (known.value ? runOfGuide(store.state, known.value) : null))
  /** The kit of the sheet, or that of a sub-job. */
  const kitOf = (job?: string) =>
    known.value ? kitOfVisit(store.state, known.value, job) : undefined
  /** Kits that the work in hand needs and nobody has counted; that of no sub-job is `undefined`. */
  const uncounted = computed(() =>
    run.value ? kitsNeeded(run.value).filter((job) => !kitTaken(store.state, job)) : [],
  )
  const jobTitle = (id: string | undefined) => guide.value?.jobs?.find((j) => j.id === id)?.title
  const steps = computed(() => run.value?.steps.filter((s) => s.at === station()) ?? [])
  const due = computed<PlacedStep | null>(() =>
    run.value ? nextStep(run.value, station() as never) : null,
  )
  /** Slots of a step that have no value yet. */
  const missing = (step: PlacedStep) =>
    known.value ? missingSlots(store.state, known.value, step) : []
  /** So many pieces a step moves or counts, where it is more than one. */
  const piecesOf = (step: PlacedStep) =>
    known.value ? piecesWanted(store.state, known.value, step) : undefined
  const valueOf = (slot: string | undefined) =>
    slot && known.value ? slotFigure(store.state, known.value, slot) : undefined
  const slotOf = (id: string) => guide.value?.slots?.find((s) => s.id === id)
  const partOf = (id: string | undefined) => guide.value?.parts.find((p) => p.id === id)
  return {
    guide,
    run,
    kitOf,
    uncounted,
    jobTitle,
    steps,
    due,
    missing,
    piecesOf,
    valueOf,
    slotOf,
    partOf,
  }
}
