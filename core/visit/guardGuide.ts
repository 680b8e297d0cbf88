import { DateTime } from 'luxon'
import { throwSymmetry } from '../craft'
import {
  type GuideStation,
  guideStations,
  nextStep,
  type PlacedStep,
  relaxingOf,
  renewalAdvice,
  serves,
  stepWords,
} from '../guide'
import { guideOf } from '../library'
import { valueToSi } from '../quantity'
import type { VisitEvent } from './events'
import { localDateOf } from './fold'
import { kitRefusal } from './guardKit'
import { safeStepRefusal } from './guardSafe'
import { missingSlots, runOfGuide, slotFigure } from './jobGuide'
import { passedAsLeft } from './judgement'
import { currentStation, type GuardContext, type Refusal, refuse } from './refusal'
import type { VisitState } from './state'
import { type Station, stationTitles } from './stations'

export function guardGuide(
  state: VisitState,
  event: VisitEvent<'guide-chosen'>,
  { library }: GuardContext,
): Refusal | null {
  const { guideId, version, variant, sheet } = event.payload
  if (!library.guides.some((g) => g.id === guideId)) {
    return refuse(`There is no guide “${guideId}”.`, 'Choose one from the list.')
  }
  const guide = guideOf(library, guideId)
  const family = state.plan?.equipment.family ?? ''
  if (!serves(guide, family)) {
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
  const known = library.specSheets.find((s) => s.id === sheet?.id && s.version === sheet.version)
  if (sheet && known?.family !== family) {
    return refuse(
      `“${sheet.id}”, version ${sheet.version}, is no spec sheet in force for this family.`,
      'Choose one from the list, or go on without: figures are then asked for.',
    )
  }
  if (state.guideSteps.length > 0) {
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
  context: GuardContext,
): Refusal | null {
  const found = findStep(state, event.payload.step, context)
  if ('why' in found) return found
  const { step } = found
  const { at, departure } = event.payload
  const station = currentStation(state)
  if (at !== station) {
    return refuse(
      `Step ${step.id} belongs to ${stationTitles[step.at]}.`,
      `Finish ${stationTitles[station]} first.`,
      station,
    )
  }
  const run = runOfGuide(state, context.library)
  const due = run && nextStep(run, step.at)
  if (due && due.id !== step.id && !departure) {
    return refuse(
      `Before it comes: ${stepWords(due)}.`,
      'Do it first, or record the departure with its reason.',
      station,
    )
  }
  const missing = missingSlots(state, context.library, step)
  if (missing.length > 0) {
    return refuse(
      'The spec sheet has no value for this step.',
      'Enter it with where it comes from: the maker’s sheet, its page and date.',
      station,
    )
  }
  return (
    inspectionRefusal(state, step, event, context) ??
    proofRefusal(state, step, event, context) ??
    (departure ? null : safeStepRefusal(state, step, context)) ??
    (departure ? null : asLeftRefusal(state, step, context))
  )
}

/** The step of that place on the way taken, if the work may go on at all. */
function findStep(
  state: VisitState,
  id: string,
  { library }: GuardContext,
): { readonly step: PlacedStep } | Refusal {
  const run = runOfGuide(state, library)
  if (!run)
    return refuse('No guide was chosen for this visit.', 'Choose one in Prepare.', 'prepare')
  const halted = run.steps.find((s) =>
    state.guideSteps.some((d) => d.step === s.id && d.finding === 'stop'),
  )
  if (halted) {
    return refuse(
      `The work ended here: ${stepWords(halted)}.`,
      'Stop the visit with its reason, or take the step up again.',
    )
  }
  const step = run.steps.find((s) => s.id === id)
  if (!step)
    return refuse(`The guide has no step ${id} on this way.`, 'Reload to see where it stands.')
  if (step.at !== currentStation(state)) {
    const station = currentStation(state)
    return refuse(
      `Step ${id} belongs to ${stationTitles[step.at]}.`,
      `Finish ${stationTitles[station]} first.`,
      station,
    )
  }
  return { step }
}

/** An inspection has a finding of its list, and one that fits what was seen and the house’s policy. */
function inspectionRefusal(
  state: VisitState,
  step: PlacedStep,
  { payload }: VisitEvent<'guide-step'>,
  { library }: GuardContext,
): Refusal | null {
  if (!step.verdicts) return null
  const { finding, defects = [], departure } = payload
  if (!step.verdicts.some((v) => v.id === finding)) {
    return refuse(
      'An inspection needs its finding.',
      `Choose one of ${step.verdicts.map((v) => v.title).join(', ')}.`,
    )
  }
  const strange = defects.filter((d) => !step.defects?.includes(d))
  if (strange.length > 0) {
    return refuse(
      `“${strange.join(', ')}” is not on the list of this inspection.`,
      `Choose from ${step.defects?.join(', ')}.`,
    )
  }
  const family = state.plan?.equipment.family
  const policy = library.policies.find((p) => p.family === family)?.policy ?? 'inspect'
  const advice = renewalAdvice(
    policy,
    step.verdicts.map((v) => v.id),
    defects,
  )
  if (finding === advice.verdict || departure) return null
  const wanted = step.verdicts.find((v) => v.id === advice.verdict)?.title ?? advice.verdict
  return refuse(
    `${advice.why} By the house’s policy that is: ${wanted}.`,
    'Choose it, name what else was seen, or give the reason for the departure.',
  )
}

/** Rounds, waiting times, throws and temporary repairs carry their own proof. */
function proofRefusal(
  state: VisitState,
  step: PlacedStep,
  event: VisitEvent<'guide-step'>,
  { library }: GuardContext,
): Refusal | null {
  const { departure, throws, temporary } = event.payload
  if (step.temporary) {
    if (!temporary)
      return refuse(
        'A temporary repair needs the date by which it is renewed, and who permitted it.',
        'Enter both.',
      )
    if (temporary.until <= localDateOf(event))
      return refuse('The renew-by date lies in the past.', 'Give a date after today.')
  }
  if (step.measure === 'throws') {
    if (!throws) return refuse('Both throws are measured.', 'Enter both projections.')
    const metres = ({ value, unit }: { value: string; unit: string }) =>
      valueToSi('length', Number(value), unit)
    const { one, other } = { one: metres(throws.one), other: metres(throws.other) }
    if (one === 0 && other === 0)
      return refuse('Nothing stands out at either end.', 'Throw it both ways, then measure.')
    const verdict = throwSymmetry({ one, other })
    if (!verdict.equal && !departure) return refuse(verdict.says, 'Take the step up again.')
  }
  if (departure) return null
  if (step.count === 'kit' && !state.kit && runOfGuide(state, library)?.kit.length) {
    return refuse('The kit is not counted.', 'Count it item by item, then go on.', 'prepare')
  }
  const relaxing = relaxingOf(step)
  if (relaxing) {
    const rounds = state.guideRounds.filter((r) => r.step === step.id)
    const least = Number(slotFigure(state, library, relaxing.rounds ?? '')?.value ?? 1)
    if (rounds.length < least)
      return refuse(`${rounds.length} of at least ${least} rounds are made.`, 'Go round again.')
    if (rounds.at(-1)?.moved !== false)
      return refuse('In the last round a fastener still moved.', 'Go round until none moves.')
  }
  if (step.hold) {
    const started = state.guideTimers.findLast((t) => t.step === step.id)
    if (!started) return refuse('Its time has not begun.', 'Start the clock.')
    const minutes = Number(slotFigure(state, library, step.hold)?.value ?? 0)
    const passed = DateTime.fromISO(event.deviceTime)
      .diff(DateTime.fromISO(started.at))
      .as('minutes')
    if (passed < minutes)
      return refuse(
        `${Math.ceil(minutes - passed)} of ${minutes} minutes are left.`,
        'Wait, or record the departure with its reason.',
      )
  }
  return null
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
    : refuse(`Step ${step.id} has neither rounds nor a clock.`, 'Carry it out as it says.')
}

function redoRefusal(state: VisitState, from: string): Refusal | null {
  const done = state.guideSteps.find((s) => s.step === from)
  const station = currentStation(state)
  if (done?.at === station) return null
  return refuse(
    `Step ${from} is not done in ${stationTitles[station]}.`,
    'Choose one of the steps that are done in this station.',
    station,
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
  return kitRefusal(state, run, station)
}
