import { apparatusOf } from '../../apparatus'
import { NotInLibrary } from '../../library'
import { CannotCompute } from '../../errors'
import type { Procedure, StepRecord } from '../../procedure'
import { isUnitOf } from '../../quantity'
import { decodeTrace, swingOf, type Trace } from '../../trace'
import { validOn } from '../../calendar'
import { ASIDE, channelFor, type Doubt, impossible, isPressure } from '../../rules'
import type { PayloadOf, VisitEvent } from '../log/events'
import type { RunName } from '../log/words'
import type { Station } from '../log/stations'
import { legalDate } from '../log/clock'
import { channelsOf, missingItems } from '../derived/verdicts'
import { pinnedTests, planOfVisit } from '../derived/pinned'
import { atStation, type GuardContext, type Refusal, refuse } from './refusal'
import type { RunState, VisitState } from '../log/state'

const runStation = (run: RunName): Station => run

export function guardStart(
  state: VisitState,
  event: VisitEvent<'test-started'>,
  context: GuardContext,
): Refusal | null {
  const { run, instruments } = event.payload
  const place = atStation(state, runStation(run))
  if (place) return place
  if (state.runs[run]) {
    return refuse(
      'test-exists',
      'This test has already been started, and a test on record is never replaced.',
      run === 'as-left'
        ? 'Carry on with it, or reopen the visit with the reason and test again after that.'
        : 'Carry on with it, or correct its readings.',
      run,
    )
  }
  const today = legalDate(state, event)
  const plan = planOf(state, context)
  if (!('why' in plan) && instruments.length === 0 && needsGauge(plan.procedure)) {
    return refuse(
      'gauge-missing',
      'No gauge is chosen, and pressures are read.',
      'Choose the gauge in your hand.',
    )
  }
  const expired = instruments.find((i) => !validOn(today, i.calibratedOn, i.calibrationUntil))
  if (expired) {
    return refuse(
      'gauge-out-of-calibration',
      `Gauge ${expired.tag} is not in calibration on ${today} (${expired.calibratedOn} to ${expired.calibrationUntil}).`,
      'Choose a gauge whose calibration covers today.',
      undefined,
      {
        tag: expired.tag,
        today,
        calibratedOn: expired.calibratedOn,
        calibrationUntil: expired.calibrationUntil,
      },
    )
  }
  return (
    licenceRefusal(state, event, context) ??
    planRefusal(state, event, context) ??
    lineRefusal(event.payload.linePressure)
  )
}

/** Whether a procedure reads pressures, which takes a gauge that is known. */
export const needsGauge = ({ steps }: Pick<Procedure, 'steps'>): boolean =>
  steps.some((s) => isPressure(s.record?.dimension))

/** The tester holds the licence that the pack wants, as the person’s record has it. */
function licenceRefusal(
  state: VisitState,
  event: VisitEvent<'test-started'>,
  context: GuardContext,
): Refusal | null {
  const { licence } = event.payload
  const plan = planOf(state, context)
  if ('why' in plan) return plan
  const held = context.person.licences.find(
    (l) => l.kind === plan.pack.licence && l.number === licence.number,
  )
  if (!held || licence.kind !== plan.pack.licence) {
    return refuse(
      'license-not-held',
      `This test needs the licence “${plan.pack.licence}”, and ${licence.number} is not one of yours.`,
      'Ask the administrator to enter your licence, or hand the visit to a licensed tester.',
      undefined,
      { licence: plan.pack.licence, number: licence.number },
    )
  }
  if (held.expiresOn !== licence.expiresOn) {
    return refuse(
      'license-differs',
      `Licence ${held.number} runs to ${held.expiresOn} by the register, not to ${licence.expiresOn}.`,
      'Reload the page to take up the register, then start the test again.',
      undefined,
      { license: held.number, expiresOn: licence.expiresOn },
    )
  }
  if (held.expiresOn < legalDate(state, event)) {
    return refuse(
      'license-expired',
      `Licence ${held.number} expired on ${held.expiresOn}.`,
      'Hand the visit to a licensed tester, or have the renewal entered.',
      undefined,
      { license: held.number, expiresOn: held.expiresOn },
    )
  }
  return null
}

/** The test is begun with a pack and procedure, in versions that were pinned for the visit. */
function planRefusal(
  state: VisitState,
  { payload }: VisitEvent<'test-started'>,
  { library }: GuardContext,
): Refusal | null {
  const pinned = pinnedTests(state, library)
  const packVersion = payload.packVersion ?? state.plan?.packVersion
  const fits = pinned.some(
    ({ pack, procedure }) =>
      pack.version === packVersion &&
      procedure.id === payload.procedureId &&
      procedure.version === payload.procedureVersion,
  )
  if (fits) return null
  const [now] = pinned
  return refuse(
    'versions-differ',
    `The visit is done by ${now?.procedure.title}, version ${now?.procedure.version}, under ${now?.pack.title}, version ${now?.pack.version}.`,
    'Reload the page, then start the test with them.',
    undefined,
    {
      procedureTitle: now?.procedure.title ?? '',
      version: now?.pack.version ?? '',
      packTitle: now?.pack.title ?? '',
    },
  )
}

function lineRefusal(line: PayloadOf<'test-started'>['linePressure']): Refusal | null {
  if (!line) return null
  if (line.dimension === 'gaugePressure' && Number(line.value) > 0) return null
  return refuse(
    'line-pressure-invalid',
    'The line pressure is a gauge pressure over zero.',
    'Read it at the inlet and give it as one, or leave it out.',
  )
}

function planOf(state: VisitState, context: GuardContext, run?: RunName) {
  try {
    const plan = planOfVisit(state, context.library, run)
    if (plan) return plan
  } catch (error) {
    if (!(error instanceof NotInLibrary)) throw error
    return refuse(
      'pack-unknown',
      error.message,
      'Ask the administrator for a rule pack that covers this kind.',
    )
  }
  return refuse(
    'no-field-test',
    'No rule pack has a field test for this kind of equipment.',
    'Record its function check instead.',
  )
}

export function guardRecord(
  state: VisitState,
  event: VisitEvent<'step-done'> | VisitEvent<'reading'> | VisitEvent<'answer'>,
  context: GuardContext,
): Refusal | null {
  const { run: name } = event.payload
  const place = atStation(state, runStation(name))
  if (place) return place
  const run = state.runs[name]
  if (!run)
    return refuse(
      'test-not-started',
      'The test has not been started.',
      'Choose the gauge and start the test.',
      runStation(name),
    )
  if (run.finished)
    return refuse(
      'test-finished',
      'This test is finished.',
      'Correct the reading instead.',
      runStation(name),
    )
  const plan = planOf(state, context, name)
  if ('why' in plan) return plan
  if ('step' in event.payload) {
    const { step } = event.payload
    return plan.procedure.steps.some((s) => s.id === step)
      ? null
      : refuse(
          'step-unknown',
          `${plan.procedure.title} has no step “${step}”.`,
          'Reload the page to get the procedure in force.',
          undefined,
          { procedure: plan.procedure.title, step },
        )
  }
  const { item } = event.payload
  const record = plan.procedure.steps.find((s) => s.record?.item === item)?.record
  if (!record) {
    return refuse(
      'item-unknown',
      `${plan.procedure.title} does not record “${item}”.`,
      'Record what the step asks for.',
      undefined,
      { procedure: plan.procedure.title, item },
    )
  }
  if (event.kind === 'reading') return readingRefusal(event.payload, record, run, state)
  if (event.kind === 'answer' && !record.answers?.some((a) => a.id === event.payload.answer)) {
    return refuse(
      'answer-unknown',
      `“${event.payload.answer}” is not an answer to ${record.title}.`,
      'Choose one of the answers.',
      undefined,
      { answer: event.payload.answer, record: record.title },
    )
  }
  return null
}

/** A reading is of the quantity that is asked for, and one that its gauge can have shown. */
function readingRefusal(
  reading: PayloadOf<'reading'>,
  record: StepRecord,
  run: RunState,
  state: VisitState,
): Refusal | null {
  if (record.dimension !== reading.dimension) {
    return refuse(
      'dimension-differs',
      `${record.title} is a ${record.dimension ?? 'yes or no'}, not a ${reading.dimension}.`,
      'Choose a unit that fits.',
      undefined,
      { record: record.title, dimension: reading.dimension },
    )
  }
  if (reading.gaugeAbovePort && !record.head) {
    return refuse(
      'height-not-applicable',
      `${record.title} is read with both hoses on, where the height of the gauge cancels out.`,
      'Leave the height out.',
      undefined,
      { record: record.title },
    )
  }
  const strange =
    channelRefusal(reading, record, run) ??
    heldRefusal(reading) ??
    swingRefusal(reading) ??
    besideRefusal(reading, state)
  if (strange) return strange
  const doubt = doubtOf(reading, run)
  if (!doubt || reading.insisted?.trim()) return null
  return refuse(
    'reading-impossible',
    `${doubt.why}${doubt.meant ? `: ${doubt.meant}?` : '.'}`,
    'Mend the number; or insist with the reason, and it is recorded as not assessed.',
  )
}

/** A reading names a channel of this run, or a gauge of the equipment’s own where the step reads one. */
function channelRefusal(
  { channel }: PayloadOf<'reading'>,
  record: StepRecord,
  run: RunState,
): Refusal | null {
  if (channel === undefined) return null
  if (channel === ASIDE ? record.aside : channelsOf(run).some((c) => c.id === channel)) return null
  return refuse(
    'channel-unknown',
    `“${channel}” is no instrument with which ${record.title} is read in this test.`,
    'Name one with which the test was begun.',
    undefined,
    { channel, record: record.title },
  )
}

/** A streamed reading was held no longer than its trace lasts; a typed one is the tester’s word. */
function heldRefusal({ heldS, source, trace }: PayloadOf<'reading'>): Refusal | null {
  if (heldS === undefined || source === 'typed') return null
  if (trace && heldS <= lastsS(trace.data)) return null
  return refuse(
    'hold-not-on-trace',
    'Its trace does not show that it was held so long.',
    'Hold it, and read it again.',
  )
}

/** A needle swung as its trace shows it, no less. */
function swingRefusal({ swing, trace }: PayloadOf<'reading'>): Refusal | null {
  if (swing === undefined) return null
  const { values, periodS, resolution } = shownBy(trace?.data ?? '')
  const shown = swingOf(values, periodS)
  if (shown !== undefined && Math.abs(shown - swing) <= resolution) return null
  return refuse(
    'swing-not-on-trace',
    'Its trace does not show such a swing.',
    'Take the reading again.',
  )
}

/** What stands beside a reading are pressures that a recorder showed, where this equipment is tapped. */
function besideRefusal(
  { beside = [], source }: PayloadOf<'reading'>,
  { plan }: VisitState,
): Refusal | null {
  const places: readonly string[] = apparatusOf(plan?.equipment.kind ?? '')?.recorded ?? []
  const sound = beside.every(
    ({ place, low, value, high, unit }) =>
      places.includes(place) &&
      isUnitOf('gaugePressure', unit) &&
      Number(low) <= Number(value) &&
      Number(value) <= Number(high),
  )
  if (sound && (beside.length === 0 || source === 'streamed')) return null
  return refuse(
    'beside-not-recorded',
    'A recorder cannot have shown what stands beside it.',
    'Take the reading again.',
  )
}

/** How long a trace lasts, s. */
function lastsS(data: string): number {
  const { values, periodS } = shownBy(data)
  return values.length * periodS
}

/** What a trace shows; one that cannot be read shows nothing. */
function shownBy(data: string): Pick<Trace, 'values' | 'periodS' | 'resolution'> {
  try {
    return decodeTrace(data)
  } catch (error) {
    if (error instanceof CannotCompute)
      return { values: new Float64Array(0), periodS: 1, resolution: 0 }
    throw error
  }
}

/** Why a reading cannot be what the gauge of its run showed, with what was probably meant; or null. */
export function doubtOf(
  reading: Pick<PayloadOf<'reading'>, 'dimension' | 'value' | 'unit' | 'channel'>,
  run: Pick<RunState, 'started'>,
): Doubt | null {
  const channel = channelFor({ channels: channelsOf(run) }, reading)
  return impossible(reading, { channel, linePressure: run.started.linePressure })
}

export function guardFinish(
  state: VisitState,
  name: RunName,
  context: GuardContext,
): Refusal | null {
  const place = atStation(state, runStation(name))
  if (place) return place
  if (!state.runs[name])
    return refuse(
      'test-not-started',
      'The test has not been started.',
      'Choose the gauge and start the test.',
      name,
    )
  const missing = missingItems(state, name, context.library)
  if (missing.length > 0) {
    return refuse(
      'items-missing',
      `Not recorded yet: ${missing.join(', ')}.`,
      'Record them, or stop the visit with a reason.',
      name,
    )
  }
  return null
}
