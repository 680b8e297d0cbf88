import {
  endsWork,
  type GuideRun,
  type GuideStation,
  guideStations,
  needsHands,
  nextStep,
  type PlacedStep,
  relaxingOf,
  serves,
  slipsAt,
  standingOf,
  stepWords,
} from '../../guide'
import { guideOf } from '../../library'
import type { VisitEvent } from '../log/events'
import { kitRefusal } from './kit'
import { piecesRefusal } from './pieces'
import { safeStepRefusal } from './safe'
import { inspectionRefusal, proofRefusal, qualifiedRefusal } from './step'
import { tightenedRefusal } from './tightened'
import { guideOfVisit, missingSlots, runOfGuide } from '../derived/guide'
import { passedAsLeft } from '../derived/verdicts'
import { currentStation } from '../log/current'
import { type GuardContext, type Refusal, refuse } from './refusal'
import type { VisitState } from '../log/state'
import { type Station, stationTitles } from '../log/stations'

/** Stations at which nothing is opened yet: what was found there may lead to another guide. */
const UNTOUCHED: readonly Station[] = ['prepare', 'arrive', 'as-found']

export function guardGuide(
  state: VisitState,
  event: VisitEvent<'guide-chosen'>,
  { library }: GuardContext,
): Refusal | null {
  const { guideId, version, variant, jobs = [], sheet } = event.payload
  if (!library.guides.some((g) => g.id === guideId)) {
    return refuse(
      'guide-unknown',
      `There is no guide “${guideId}”.`,
      'Choose one from the list.',
      undefined,
      { guideId },
    )
  }
  const guide = guideOf(library, guideId)
  const family = state.plan?.equipment.family ?? ''
  if (!serves(guide, family)) {
    return refuse(
      'guide-other-family',
      `${guide.title} is not for this family of equipment.`,
      'Choose one from the list.',
      undefined,
      { guide: guide.title },
    )
  }
  if (guide.version !== version) {
    return refuse(
      'guide-version-not-in-force',
      `Version ${version} of this guide is not in force.`,
      'Reload to get the newest.',
      undefined,
      { version },
    )
  }
  if (!guide.variants.some((v) => v.id === variant)) {
    return refuse(
      'variant-unknown',
      `The guide has no variant “${variant}”.`,
      'Choose one of its variants.',
      undefined,
      { variant },
    )
  }
  const strange = jobs.filter((id) => !guide.jobs?.some((j) => j.id === id))
  if (strange.length > 0) {
    return refuse(
      'sub-job-unknown',
      `The guide has no sub-job “${strange.join(', ')}”.`,
      'Choose from its list.',
    )
  }
  const known = library.specSheets.find((s) => s.id === sheet?.id && s.version === sheet.version)
  if (sheet && known?.family !== family) {
    return refuse(
      'sheet-not-in-force',
      `“${sheet.id}”, version ${sheet.version}, is no spec sheet in force for this family.`,
      'Choose one from the list, or go on without: figures are then asked for.',
      undefined,
      { sheet: sheet.id, version: sheet.version },
    )
  }
  if (state.guideSteps.some((s) => !UNTOUCHED.includes(s.at))) {
    return refuse(
      'guide-begun',
      'Work by a guide is on record already.',
      'Finish it, or stop the visit with a reason.',
    )
  }
  return null
}

export function guardGuideStep(
  state: VisitState,
  event: VisitEvent<'guide-step'>,
  context: GuardContext,
): Refusal | null {
  const found = findStep(state, event.payload.step, context)
  if ('why' in found) return found
  const { step } = found
  const { at, departure } = event.payload
  const station = currentStation(state)
  if (at !== station) {
    return refuse(
      'step-other-station',
      `Step ${step.id} belongs to ${stationTitles[step.at]}.`,
      `Finish ${stationTitles[station]} first.`,
      station,
      { step: step.id },
    )
  }
  const run = runOfGuide(state, context.library)
  const due = run && nextStep(run, step.at)
  if (due && due.id !== step.id && !departure) {
    return refuse(
      'step-out-of-order',
      `Before it comes: ${stepWords(due)}.`,
      'Do it first, or record the departure with its reason.',
      station,
    )
  }
  // Out of its order with a reason, but never with a hand under air.
  if (run && needsHands(step) && !step.withAir && standingOf(run).air === 'on') {
    return refuse(
      'air-on',
      'The air is on: hands stay out.',
      'Take the air off in its step first.',
      station,
    )
  }
  if (run && needsHands(step) && powerIsOn(run)) {
    return refuse(
      'power-on',
      'The power is on: hands stay out.',
      'Take it off, prove it dead and lock it in its step first.',
      station,
    )
  }
  const missing = missingSlots(state, context.library, step)
  if (missing.length > 0) {
    return refuse(
      'figure-missing',
      'The spec sheet has no value for this step.',
      'Enter it with where it comes from: the maker’s sheet, its page and date.',
      station,
    )
  }
  return (
    qualifiedRefusal(state, step, event, context) ??
    inspectionRefusal(state, step, event, context) ??
    proofRefusal(state, step, event, context) ??
    piecesRefusal(state, step, event, context) ??
    tightenedRefusal(state, step, event, context) ??
    (departure ? null : slipRefusal(state, step, context)) ??
    (departure ? null : safeStepRefusal(state, step, context)) ??
    (departure ? null : asLeftRefusal(state, step, context))
  )
}

/** Refuses a step that rests on an earlier one that was not done as written. */
function slipRefusal(
  state: VisitState,
  step: PlacedStep,
  { library }: GuardContext,
): Refusal | null {
  const run = runOfGuide(state, library)
  const guide = guideOfVisit(state, library)?.guide
  if (!run || !guide || !state.guide) return null
  const turned = Object.entries(state.valves)
  const known = {
    shut: turned.flatMap(([valve, to]) => (to === 'shut' ? valve : [])),
    open: turned.flatMap(([valve, to]) => (to === 'shut' ? [] : valve)),
    proved: state.proofs.map((p) => p.zone),
    locked: Object.keys(state.locks),
  }
  const [slip] = slipsAt(
    guide,
    state.guide.variant,
    run.jobs,
    run.steps,
    state.guideSteps,
    known,
    step,
  )
  return slip
    ? refuse(
        'rests-on-departure',
        `An earlier step was not done as written: ${slip.message}.`,
        'Do the missing step first, or give a reason for going on without it.',
        undefined,
        { rule: slip.rule },
      )
    : null
}

/** Where a guide takes the power off it is on until then, as the equipment was found. */
function powerIsOn(run: GuideRun): boolean {
  return run.steps.some((s) => s.power === 'off') && standingOf(run).power !== 'off'
}

/** The step of that place on the way taken, if the work may go on at all. */
function findStep(
  state: VisitState,
  id: string,
  { library }: GuardContext,
): { readonly step: PlacedStep } | Refusal {
  const run = runOfGuide(state, library)
  if (!run)
    return refuse(
      'guide-not-chosen',
      'No guide was chosen for this visit.',
      'Choose one in Prepare.',
      'prepare',
    )
  const halted = run.steps.find((s) =>
    state.guideSteps.some((d) => d.step === s.id && endsWork(d.finding)),
  )
  if (halted) {
    return refuse(
      'work-halted',
      `The work ended here: ${stepWords(halted)}.`,
      'Stop the visit with its reason, or take the step up again.',
    )
  }
  const step = run.steps.find((s) => s.id === id)
  if (!step)
    return refuse(
      'step-unknown',
      `The guide has no step ${id} on this way.`,
      'Reload to see where it stands.',
      undefined,
      { step: id },
    )
  if (step.at !== currentStation(state)) {
    const station = currentStation(state)
    return refuse(
      'step-other-station',
      `Step ${id} belongs to ${stationTitles[step.at]}.`,
      `Finish ${stationTitles[station]} first.`,
      station,
      { step: id },
    )
  }
  return { step }
}

/** The customer’s side is opened when the as-left test has passed, not before. */
function asLeftRefusal(
  state: VisitState,
  step: PlacedStep,
  { library }: GuardContext,
): Refusal | null {
  if (step.at !== 'as-left' || (!step.reopen && !step.test)) return null
  if (passedAsLeft(state, library)) return null
  return refuse(
    'as-left-not-passed',
    'The as-left test has not passed.',
    'Test first, or record the departure with its reason.',
    'as-left',
  )
}

/** A round, a clock or a second start belongs to a step that is due. */
export function guardGuideWork(
  state: VisitState,
  event: VisitEvent<'guide-round'> | VisitEvent<'guide-timer'> | VisitEvent<'guide-redo'>,
  context: GuardContext,
): Refusal | null {
  if ('from' in event.payload) return redoRefusal(state, event.payload.from)
  const found = findStep(state, event.payload.step, context)
  if ('why' in found) return found
  const { step } = found
  const fits = 'moved' in event.payload ? relaxingOf(step) : step.hold
  return fits
    ? null
    : refuse(
        'step-without-rounds',
        `Step ${step.id} has neither rounds nor a clock.`,
        'Carry it out as it says.',
        undefined,
        { step: step.id },
      )
}

function redoRefusal(state: VisitState, from: string): Refusal | null {
  const done = state.guideSteps.find((s) => s.step === from)
  const station = currentStation(state)
  // While it is put together nothing is under pressure yet: the way back to the open parts is free.
  if (done && (done.at === station || (done.at === 'open-up' && station === 'rebuild'))) return null
  return refuse(
    'step-not-done',
    `Step ${from} is not done in ${stationTitles[station]}.`,
    'Choose one of the steps that are done in this station.',
    station,
    { from },
  )
}

const isGuideStation = (station: Station): station is Extract<Station, GuideStation> =>
  (guideStations as readonly string[]).includes(station)

/** Why a station may not be finished yet by the guide: steps, parts or kit that are left. */
export function guideRefusal(
  state: VisitState,
  station: Station,
  context: GuardContext,
): Refusal | null {
  const run = runOfGuide(state, context.library)
  // Nothing was opened when the as-found test passed: the guide’s later stations fall away.
  if (!run || !isGuideStation(station) || (state.skipped.length > 0 && station !== 'prepare'))
    return null
  const due = nextStep(run, station)
  if (due) {
    const left = run.steps.filter((s) => s.at === station && !run.done.has(s.id)).length
    return refuse(
      'steps-left',
      `${left} ${left === 1 ? 'step is' : 'steps are'} left here, the next: ${stepWords(due)}.`,
      'Carry it out, or record the departure with its reason.',
      station,
      { left },
    )
  }
  const lying = run.tray.filter((p) => !p.offAtTest)
  if (station === 'rebuild' && lying.length > 0) {
    return refuse(
      'parts-on-tray',
      `On the tray: ${lying.map((p) => p.title).join(', ')}.`,
      'Look where it came off; small things hide in bores, under bushes and in the rag.',
      station,
    )
  }
  return kitRefusal(state, run, station)
}
