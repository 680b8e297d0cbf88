import {
  type GuideRun,
  type GuideStation,
  guideRun,
  guideStations,
  nextStep,
  slotsOf,
  stepWords,
} from '../guide'
import { guideOf, type Library } from '../library'
import { type Station, stationTitles, type VisitEvent } from './events'
import { currentStation, type GuardContext, type Refusal, refuse } from './refusal'
import type { VisitState } from './state'

/** How far the visit’s guide has been carried out; null without a guide, or when the library lacks it. */
export function runOfGuide(state: VisitState, library: Library): GuideRun | null {
  const { guide: chosen } = state
  const guide = library.guides.find((g) => g.id === chosen?.guideId)
  if (!chosen || !guide) return null
  return guideRun(guide, library.subGuides, chosen.variant, state.guideSteps)
}

export function guardGuide(
  state: VisitState,
  event: VisitEvent<'guide-chosen'>,
  { library }: GuardContext,
): Refusal | null {
  const { guideId, version, variant } = event.payload
  if (!library.guides.some((g) => g.id === guideId)) {
    return refuse(`There is no guide “${guideId}”.`, 'Choose one from the list.')
  }
  const guide = guideOf(library, guideId)
  if (guide.family !== state.plan?.equipment.family) {
    return refuse(
      `${guide.title} is not for this family of equipment.`,
      'Choose one from the list.',
    )
  }
  if (guide.version !== version) {
    return refuse(`Version ${version} of this guide is not in force.`, 'Reload to get the newest.')
  }
  if (!guide.variants.some((v) => v.id === variant)) {
    return refuse(`The guide has no variant “${variant}”.`, 'Choose one of its variants.')
  }
  const started = state.guideSteps.some((s) => s.step)
  if (started) {
    return refuse(
      'Steps of a guide are on record already.',
      'Finish it, or stop the visit with a reason.',
    )
  }
  return null
}

export function guardGuideStep(
  state: VisitState,
  event: VisitEvent<'guide-step'>,
  { library }: GuardContext,
): Refusal | null {
  const run = runOfGuide(state, library)
  if (!run)
    return refuse('No guide was chosen for this visit.', 'Choose one in Prepare.', 'prepare')
  const { step: id, at, finding, departure } = event.payload
  const step = run.steps.find((s) => s.id === id)
  if (!step)
    return refuse(`The guide has no step ${id} on this way.`, 'Reload to see where it stands.')
  const station = currentStation(state)
  if (step.at !== station || at !== station) {
    return refuse(
      `Step ${id} belongs to ${stationTitles[step.at]}.`,
      `Finish ${stationTitles[station]} first.`,
      station,
    )
  }
  const due = nextStep(run, step.at)
  if (due && due.id !== id && !departure) {
    return refuse(
      `Before it comes: ${stepWords(due)}.`,
      'Do it first, or record the departure with its reason.',
      station,
    )
  }
  if (step.verdicts && !step.verdicts.some((v) => v.id === finding)) {
    return refuse(
      'An inspection needs its finding.',
      `Choose one of ${step.verdicts.map((v) => v.title).join(', ')}.`,
    )
  }
  const missing = slotsOf(step).filter((s) => !state.guideValues.some((v) => v.slot === s))
  if (missing.length > 0) {
    return refuse(
      'The spec sheet has no value for this step.',
      'Enter it with where it comes from: the maker’s sheet, its page and date.',
      station,
    )
  }
  return null
}

const isGuideStation = (station: Station): station is Extract<Station, GuideStation> =>
  (guideStations as readonly string[]).includes(station)

/** Why a station may not be finished yet by the guide: steps that are left, parts on the tray. */
export function guideRefusal(
  state: VisitState,
  station: Station,
  { library }: GuardContext,
): Refusal | null {
  const run = runOfGuide(state, library)
  // Nothing was opened when the as-found test passed: the guide’s later stations fall away.
  if (!run || !isGuideStation(station) || (state.skipped.length > 0 && station !== 'prepare'))
    return null
  const due = nextStep(run, station)
  if (due) {
    const left = run.steps.filter((s) => s.at === station && !run.done.has(s.id)).length
    return refuse(
      `${left} ${left === 1 ? 'step is' : 'steps are'} left here, the next: ${stepWords(due)}.`,
      'Carry it out, or record the departure with its reason.',
      station,
    )
  }
  if (station === 'rebuild' && run.tray.length > 0) {
    return refuse(
      `On the tray: ${run.tray.map((p) => p.title).join(', ')}.`,
      'Look where it came off; small things hide in bores, under bushes and in the rag.',
      station,
    )
  }
  return null
}
