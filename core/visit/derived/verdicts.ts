import type { Library } from '../../library'
import { validOn } from '../../calendar'
import { type AnyQuantity, type Dimension, valueToSi } from '../../quantity'
import {
  ASIDE,
  because,
  type Channel,
  channelFor,
  isPressure,
  type Judgement,
  judgeTest,
  passes,
  type Reading,
  type Reason,
  showsQuantity,
  type TestRun,
} from '../../rules'
import { earlierRun } from '../log/evolve/earlierRun'
import { channelName } from '../log/snapshots'
import { planOfRun, planOfVisit } from './pinned'
import { remembered } from './remembered'
import { shownByTrace } from './streamed'
import type { CheckOutcome, RunName } from '../log/words'
import type { PayloadOf } from '../log/events'
import type { EarlierRun, RunReading, RunState, VisitState } from '../log/state'

/** The verdict of a run as far as it has come; null when it has not been started. */
export const verdictOf = (state: VisitState, name: RunName, library: Library): Judgement | null =>
  verdicts[name](state, library)

const verdicts: Readonly<Record<RunName, (s: VisitState, l: Library) => Judgement | null>> = {
  'as-found': remembered((state, library) => judged(state, 'as-found', library)),
  'as-left': remembered((state, library) => judged(state, 'as-left', library)),
}

function judged(state: VisitState, name: RunName, library: Library): Judgement | null {
  const [run] = earlierRun(state, name)
  return run ? verdictOfRun(state, run, library) : null
}

/** The verdict of a test that others came after, by what stood before it; null when its pack is not known. */
export const earlierVerdictOf = (
  state: VisitState,
  run: EarlierRun,
  library: Library,
): Judgement | null => verdictOfRun(state, run, library)

function verdictOfRun(state: VisitState, run: EarlierRun, library: Library): Judgement | null {
  const plan = planOfRun(state, library, run)
  if (!plan) return null
  const { repairedAt, adjustedAt } = run
  return judgeTest(plan, {
    ...testRunOf(run, repairedAt),
    ...(adjustedAt ? { adjustedAt } : {}),
    nominals: nominalsOf(state),
  })
}

/** Nominal values of the equipment as they were when the visit was planned. */
export const nominalsOf = ({ plan }: VisitState): Record<string, AnyQuantity> =>
  Object.fromEntries((plan?.equipment.nominals ?? []).map((n) => [n.name, n.value]))

function testRunOf(run: RunState, notBefore: string | undefined): TestRun {
  return {
    readings: run.readings.map((r) => readingOf(r, run)),
    answers: run.answers.map(({ item, answer, label, recordedAt }) => ({
      item,
      answer,
      label,
      takenAt: recordedAt,
    })),
    order: run.order,
    channels: channelsOf(run),
    ...(run.started.linePressure ? { linePressure: run.started.linePressure } : {}),
    ...(notBefore ? { notBefore } : {}),
  }
}

/** A reading as the judge takes it: what it says of its trace counts as far as the trace bears it out. */
function readingOf(reading: RunReading, run: RunState): Reading {
  const { item, dimension, value, unit, channel, gaugeAbovePort, deviation, driftPerMinute } =
    reading
  const shown = shownByTrace(reading)
  const refusal = readingRefusal(reading, run)
  return {
    item,
    dimension,
    value,
    unit,
    ...(channel ? { channel } : {}),
    takenAt: reading.recordedAt,
    ...(gaugeAbovePort
      ? { gaugeAbovePortM: valueToSi('length', Number(gaugeAbovePort.value), gaugeAbovePort.unit) }
      : {}),
    deviation,
    driftPerMinute,
    ...(reading.heldS === undefined ? {} : { heldS: reading.heldS }),
    // What it was held is what its trace shows, and no more than it says of itself.
    ...(shown && reading.heldS !== undefined
      ? { tracedS: Math.min(reading.heldS, shown.heldS) }
      : {}),
    ...(shown?.swing === undefined ? {} : { swing: shown.swing }),
    ...(shown?.trend ? { trend: shown.trend } : {}),
    ...(refusal ? { refusal } : {}),
  }
}

/** Why a reading proves nothing: it was taken before its test, or its instrument or the license was not valid on the day on which it was taken. */
function readingRefusal(reading: RunReading, { started, date }: RunState): Reason | undefined {
  if (reading.recordedAt < started.recordedAt)
    return because(
      'before-test-began',
      'it is stamped earlier than the beginning of its test: take it again, or correct the time',
    )
  const expired = started.instruments
    .filter((i) => hasShown(i, reading, started))
    .find((i) =>
      [date, reading.date].some((day) => !validOn(day, i.calibratedOn, i.calibrationUntil)),
    )
  if (expired) {
    const text = `gauge ${expired.tag} was out of calibration on ${reading.date}`
    return because('out-of-calibration', text, { tag: expired.tag, on: reading.date })
  }
  const { number, expiresOn } = started.licence
  if (expiresOn >= reading.date) return undefined
  const text = `license ${number} had expired on ${reading.date}`
  return because('license-expired', text, { number, on: reading.date })
}

/** Whether an instrument can have shown a reading: it has the channel, or no instrument of the run has it. */
function hasShown(
  instrument: RunState['started']['instruments'][number],
  reading: RunReading,
  started: RunState['started'],
): boolean {
  const channel = channelFor({ channels: channelsOf({ started }) }, reading)
  if (!channel) return isPressure(reading.dimension) && reading.channel !== ASIDE
  return channelsOf({ started: { instruments: [instrument] } }).some((c) => c.id === channel.id)
}

/** The channels of a run’s instruments, as the judge knows them. */
export const channelsOf = ({
  started,
}: {
  readonly started: Pick<RunState['started'], 'instruments'>
}): Channel[] =>
  started.instruments.flatMap((instrument) =>
    instrument.channels.map(({ id, dimension, from, span, unit, accuracyPercent, accuracyOf }) => ({
      id: channelName(instrument, { id }),
      dimension,
      ...(from === undefined ? {} : { from }),
      span,
      unit,
      percent: accuracyPercent,
      of: accuracyOf,
    })),
  )

/** Names of the channels that can have shown a value, the one with the smallest range first. */
export function channelsShowing(
  started: Pick<RunState['started'], 'instruments'>,
  dimension: Dimension,
  value: number,
  unit: string,
): string[] {
  return channelsOf({ started })
    .filter((c) => showsQuantity(c, dimension))
    .map((c) => ({ id: c.id, top: valueToSi(dimension, (c.from ?? 0) + c.span, c.unit) }))
    .filter((c) => c.top >= valueToSi(dimension, value, unit))
    .sort((a, b) => a.top - b.top)
    .map((c) => c.id)
}

/** Titles of what the procedure records and the run does not have yet. */
export function missingItems(state: VisitState, name: RunName, library: Library): string[] {
  const run = state.runs[name]
  const plan = run && planOfVisit(state, library, name)
  if (!run || !plan) return []
  return plan.procedure.steps.flatMap((s) =>
    s.record && !run.order.includes(s.record.item) ? [s.record.title] : [],
  )
}

/**
 * The run on which the certificate rests: as-left once anything was opened or set anew, else as-found.
 * Null while that run is not finished.
 */
export function finalRun(state: VisitState): RunName | null {
  const finished = (name: RunName) =>
    state.plan?.packId ? state.runs[name]?.finished : state.checks[name] !== undefined
  if (finished('as-left')) return 'as-left'
  const opened = state.repairs.length > 0 || state.adjusted.length > 0 || state.skipped.length === 0
  return !opened && finished('as-found') ? 'as-found' : null
}

type Outcome = PayloadOf<'signed'>['outcome']

const CHECK_OUTCOMES: Readonly<Record<CheckOutcome, Outcome>> = {
  works: 'pass',
  'works-not': 'fail',
  'not-tried': 'not-assessed',
}

/** How a run ended: by the rule pack, or where there is none by the function check. */
export function outcomeOfRun(state: VisitState, name: RunName, library: Library): Outcome | null {
  if (state.plan?.packId) {
    return state.runs[name]?.finished ? (verdictOf(state, name, library)?.outcome ?? null) : null
  }
  const check = state.checks[name]
  return check ? CHECK_OUTCOMES[check.outcome] : null
}

/** How the visit ended, null while the decisive run is not finished. */
export function outcomeOf(state: VisitState, library: Library): Outcome | null {
  const run = finalRun(state)
  return run ? outcomeOfRun(state, run, library) : null
}

/** Whether the as-left test, or the function check in its place, has passed. */
export const passedAsLeft = (state: VisitState, library: Library): boolean =>
  passes(outcomeOfRun(state, 'as-left', library))
