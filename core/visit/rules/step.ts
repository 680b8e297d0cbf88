import { secondsBetween } from '../../calendar'
import { countGrooves, throwSymmetry } from '../../craft'
import { type PlacedStep, relaxingOf, variantOf } from '../../guide'
import { valueToSi } from '../../quantity'
import type { VisitEvent } from '../log/events'
import { legalDate } from '../log/clock'
import {
  guideOfVisit,
  kitsNeeded,
  kitTaken,
  minutesOf,
  runOfGuide,
  slotFigure,
} from '../derived/guide'
import { jobKitRefusal } from './kit'
import { renewalAdviceAt } from '../derived/renewal'
import { type GuardContext, type Refusal, refuse } from './refusal'
import type { VisitState } from '../log/state'

/** Whoever confirms to be qualified holds the licence that the guide names. */
export function qualifiedRefusal(
  state: VisitState,
  step: PlacedStep,
  event: VisitEvent<'guide-step'>,
  { library, person }: GuardContext,
): Refusal | null {
  const guide = guideOfVisit(state, library)?.guide
  const kind = guide && variantOf(guide, state.guide?.variant ?? '').licence
  if (step.gate !== 'qualified' || !kind || event.payload.departure) return null
  const today = legalDate(state, event)
  if (person.licences.some((l) => l.kind === kind && l.expiresOn >= today)) return null
  return refuse(
    'license-needed',
    `This work wants the licence “${kind}”, and you hold none that is valid today.`,
    'Hand the visit over, or give the reason: who qualified stands beside you.',
    undefined,
    { kind },
  )
}

/** Settings as found, rounds, waiting times, throws, counts and temporary repairs carry their own proof. */
export function proofRefusal(
  state: VisitState,
  step: PlacedStep,
  event: VisitEvent<'guide-step'>,
  { library }: GuardContext,
): Refusal | null {
  const { departure, setting, throws, temporary } = event.payload
  if (step.temporary) {
    if (!temporary)
      return refuse(
        'temporary-incomplete',
        'A temporary repair needs the date by which it is renewed, and who permitted it.',
        'Enter both.',
      )
    if (temporary.until <= legalDate(state, event))
      return refuse('date-past', 'The renew-by date lies in the past.', 'Give a date after today.')
  }
  if (step.measure === 'throws') {
    if (!throws)
      return refuse('throws-missing', 'Both throws are measured.', 'Enter both projections.')
    const metres = ({ value, unit }: { value: string; unit: string }) =>
      valueToSi('length', Number(value), unit)
    const { one, other } = { one: metres(throws.one), other: metres(throws.other) }
    if (one === 0 && other === 0)
      return refuse(
        'throws-zero',
        'Nothing stands out at either end.',
        'Throw it both ways, then measure.',
      )
    const verdict = throwSymmetry({ one, other })
    if (!verdict.equal && !departure)
      return refuse('throws-unequal', verdict.says, 'Take the step up again.')
  }
  if (step.measure === 'grooves') {
    const { counted } = event.payload
    if (!counted)
      return refuse('counts-missing', 'Grooves and rings are counted.', 'Enter both counts.')
    const { emptyOnPurpose = 0, doubled = 0 } = step
    if (counted.grooves < emptyOnPurpose + doubled)
      return refuse(
        'counts-too-few',
        `Fewer grooves are counted than the ${emptyOnPurpose + doubled} that are known.`,
        'Count them again.',
      )
    const verdict = countGrooves({ ...counted, emptyOnPurpose, doubled })
    if (!verdict.fits && !departure)
      return refuse('counts-differ', verdict.says, 'Count again before the first ring goes on.')
  }
  if (departure) return null
  const pictured = state.photos.some((p) => p.step === step.id)
  if (step.photograph && !pictured && !event.payload.unphotographed)
    return refuse(
      'photo-missing',
      'No photograph is on record at this step.',
      'Take one, or say that the work goes on without.',
    )
  if (step.snapshot && !setting?.trim())
    return refuse(
      'setting-missing',
      'The setting as found is missing.',
      'Write it down: turns, height, scale.',
    )
  if (step.writes && !setting?.trim())
    return refuse('writing-missing', `${step.writes}: missing.`, 'Write it down.', undefined, {
      writes: step.writes,
    })
  const run = runOfGuide(state, library)
  if (step.count === 'kit' && run && kitsNeeded(run).some((job) => !kitTaken(state, job))) {
    return refuse(
      'kit-not-counted',
      'The kit is not counted.',
      'Count it item by item, then go on.',
      'prepare',
    )
  }
  const foreign = run && step.from ? jobKitRefusal(state, run, step.from) : null
  if (foreign) return foreign
  const relaxing = relaxingOf(step)
  if (relaxing) {
    const rounds = state.guideRounds.filter((r) => r.step === step.id)
    const least = Number(slotFigure(state, library, relaxing.rounds ?? '')?.value ?? 1)
    if (rounds.length < least)
      return refuse(
        'rounds-too-few',
        `${rounds.length} of at least ${least} rounds are made.`,
        'Go round again.',
        undefined,
        { made: rounds.length, least },
      )
    if (rounds.at(-1)?.moved !== false)
      return refuse(
        'rounds-still-moving',
        'In the last round a fastener still moved.',
        'Go round until none moves.',
      )
  }
  if (step.hold) {
    const started = state.guideTimers.findLast((t) => t.step === step.id)
    if (!started) return refuse('timer-not-started', 'Its time has not begun.', 'Start the clock.')
    const minutes = minutesOf(slotFigure(state, library, step.hold))
    const passed = secondsBetween(started.recordedAt, event.deviceTime) / 60
    if (passed < minutes)
      return refuse(
        'timer-running',
        `${Math.ceil(minutes - passed)} of ${minutes} minutes are left.`,
        'Wait, or record the departure with its reason.',
        undefined,
        { minutes },
      )
  }
  return null
}

/** An inspection has a finding of its list, and one that fits what was seen and the house’s policy. */
export function inspectionRefusal(
  state: VisitState,
  step: PlacedStep,
  { payload }: VisitEvent<'guide-step'>,
  { library }: GuardContext,
): Refusal | null {
  const { finding, defects = [], departure } = payload
  if (step.answers && !step.answers.some((a) => a.id === finding)) {
    return refuse(
      'answer-missing',
      'A question needs its answer.',
      `Choose one of ${step.answers.map((a) => a.title).join(', ')}.`,
    )
  }
  if (!step.verdicts) return null
  if (!step.verdicts.some((v) => v.id === finding)) {
    return refuse(
      'finding-missing',
      'An inspection needs its finding.',
      `Choose one of ${step.verdicts.map((v) => v.title).join(', ')}.`,
    )
  }
  const strange = defects.filter((d) => !step.defects.includes(d))
  if (strange.length > 0) {
    return refuse(
      'defect-unknown',
      `“${strange.join(', ')}” is not on the list of this inspection.`,
      `Choose from ${step.defects.join(', ')}.`,
    )
  }
  const advice = renewalAdviceAt(state, library, step, defects)
  // What is ordered is renewed, only not today.
  if (finding === advice.verdict || finding === 'order' || departure) return null
  const wanted = step.verdicts.find((v) => v.id === advice.verdict)?.title ?? advice.verdict
  return refuse(
    'against-policy',
    `${advice.why} By the house’s policy that is: ${wanted}.`,
    'Choose it, name what else was seen, or give the reason for the departure.',
    undefined,
    { finding: wanted },
  )
}
