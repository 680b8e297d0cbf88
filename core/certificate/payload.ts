import type { Id } from '../schema'
import type { Library } from '../library'
import { formatQuantity } from '../quantity'
import type { Judgement } from '../rules'
import {
  type CheckOutcome,
  type EarlierRun,
  earlierVerdictOf,
  finalRun,
  outcomeOfRun,
  planOfRun,
  planOfVisit,
  purposeTitles,
  type RunName,
  runNames,
  verdictOf,
  type VisitState,
  gaugeAsInstrument,
  type InstrumentSnapshot,
  type OneGauge,
  type ClockDoubt,
  clockDoubts as clockDoubtNames,
} from '../visit'
import { serviceRecord } from './serviceRecord'

/** One run of the test, as the certificate states it. */
export interface CertifiedRun {
  readonly date: string
  readonly startedAt: string
  readonly procedure: { readonly id: string; readonly version: number; readonly title: string }
  readonly linePressure?: string
  /** Absent on certificates from before a test could be made with several instruments. */
  readonly instruments?: readonly InstrumentSnapshot[]
  readonly gauge?: OneGauge
  readonly verdict: Judgement
}

/** The run of a certificate, where one was made: a function check has no readings that are judged. */
export const runOf = (part: CertificatePayload['asFound' | 'asLeft']): CertifiedRun | null =>
  part && 'verdict' in part ? part : null

/** What the document calls itself. */
export const documentTitle = ({ document }: CertificatePayload): string =>
  document === 'service-report' ? 'Service report' : 'Test certificate'

/** How it ended, in the words of the document: a function check passes nothing. */
export const CHECK_WORDS: Readonly<Record<CheckOutcome, string>> = {
  works: 'Works as it should',
  'works-not': 'Does not work',
  'not-tried': 'Could not be tried',
}

/** The function check on which a service report rests; null on a test certificate. */
export function checkOf({ asFound, asLeft }: CertificatePayload): CertifiedCheck | null {
  const last = asLeft ?? asFound
  return 'checked' in last ? last : null
}

/** The instruments that a run was made with, whatever the age of its certificate. */
export const instrumentsOf = ({
  instruments,
  gauge,
}: CertifiedRun): readonly InstrumentSnapshot[] =>
  instruments ?? (gauge ? [gaugeAsInstrument(gauge)] : [])

/** The function check of equipment without a field test: seen and tried, judged by nobody but the tester. */
export interface CertifiedCheck {
  readonly date: string
  readonly checked: CheckOutcome
  readonly text: string
  readonly readings: readonly { readonly title: string; readonly value: string }[]
}

/** A test or check that does not decide: others came after it, or it was never finished. */
export interface CertifiedEarlier {
  readonly run: RunName
  readonly ended: 'tested-again' | 'not-finished'
  /** Why it was tested again. */
  readonly why?: string
  readonly test: CertifiedRun | CertifiedCheck
}

/** The content of a certificate: complete by itself, so that it can be read without asking anyone. */
export interface CertificatePayload {
  readonly format: 'uvanta-certificate/1'
  /** Absent on a test certificate. A service report rests on a function check and names no rule pack. */
  readonly document?: 'service-report'
  readonly number: string
  readonly code: string
  readonly issuedAt: string
  readonly utility: string
  /** Where the utility is written to; absent on certificates from before it was kept. */
  readonly utilityAddress?: string
  readonly authority: string
  readonly supersedes?: { readonly number: string; readonly reason: string }
  readonly purpose: string
  readonly equipment: NonNullable<VisitState['plan']>['equipment']
  readonly identity?: {
    readonly outcome: string
    readonly seenSerial?: string
    readonly reason?: string
  }
  readonly asFound: CertifiedRun | CertifiedCheck | { readonly impossible: string }
  readonly asLeft: CertifiedRun | CertifiedCheck | null
  /** Every other test and check of the visit, in order, with its result; absent where there is none. */
  readonly earlier?: readonly CertifiedEarlier[]
  readonly work: readonly {
    readonly text: string
    readonly parts: readonly {
      readonly name: string
      readonly number?: string
      readonly quantity: number
    }[]
    readonly temporary?: { readonly until: string; readonly permittedBy: string }
  }[]
  readonly tester: {
    readonly name: string
    /** The licence that the test was made under; a function check asks for none. */
    readonly licence?: string
    readonly licenceExpiresOn?: string
  }
  readonly outcome: Judgement['outcome']
  readonly reason: string
  /** What was corrected in the record since it was first made, by whom and why. */
  readonly corrections?: readonly CertifiedCorrection[]
  /** Entries whose time by the device proves nothing, in words. */
  readonly clock?: string
  readonly nextDueOn?: string
  /** The last day on which the next test is still within the programme’s rule. */
  readonly lawfulUntil?: string
  readonly repairBy?: string
  readonly signedAt: string
  /** SVG path in a box of 400 × 120; absent on a certificate that nobody signed by hand. */
  readonly signature?: string
  readonly log: {
    readonly visitId: Id<'visit'>
    readonly events: number
    readonly headHash: string
  }
  readonly statement: string
}

export interface CertifiedCorrection {
  readonly what: string
  readonly was: string
  /** Absent when the entry was withdrawn. */
  readonly is?: string
  readonly why: string
  readonly by: string
  readonly at: string
}

export interface Issue {
  readonly number: string
  readonly code: string
  readonly issuedAt: string
  readonly utility: string
  readonly utilityAddress?: string
  readonly visitId: Id<'visit'>
  readonly headHash: string
  readonly supersedes?: { readonly number: string; readonly reason: string }
  readonly corrections?: readonly CertifiedCorrection[]
  readonly nextDueOn?: string
  readonly lawfulUntil?: string
  readonly repairBy?: string
}

const STATEMENT =
  'This certificate records what was measured and judged on the day stated, under the rule pack named. ' +
  'It is no statement about any other day. Local codes and the maker’s sheet govern.'

const SERVICE_STATEMENT =
  'This report records what was seen, tried and done on the day stated. No rule pack judged it, and it is no ' +
  'test certificate. It is no statement about any other day. Local codes and the maker’s sheet govern.'

/** @throws Error when the visit is not signed, or has neither a finished test nor a function check */
export function certificatePayload(
  state: VisitState,
  library: Library,
  issue: Issue,
): CertificatePayload {
  const { plan, signed } = state
  const name = finalRun(state)
  const rests = name && restsOn(state, name, library)
  if (!plan || !signed || !rests)
    throw new Error('Only a signed visit with a finished test or check is certified.')
  const { visitId, headHash, corrections = [], ...facts } = issue
  const clock = clockWords(state)
  const earlier = earlierTests(state, library)
  const licence = state.runs[name]?.started.licence
  return {
    format: 'uvanta-certificate/1',
    ...(plan.packId ? {} : { document: 'service-report' }),
    ...facts,
    authority: rests.authority,
    purpose: purposeTitles[plan.purpose],
    equipment: plan.equipment,
    ...(state.identity ? { identity: identityOf(state.identity) } : {}),
    asFound: certified(state, 'as-found', library) ?? {
      impossible: state.asFoundImpossible?.reason ?? 'not recorded',
    },
    asLeft: certified(state, 'as-left', library),
    ...(earlier.length > 0 ? { earlier } : {}),
    work: [
      ...state.repairs.map(({ text, parts, temporary }) => ({
        text,
        parts: parts.map((p) => ({
          name: p.name,
          quantity: p.quantity,
          ...(p.number ? { number: p.number } : {}),
        })),
        ...(temporary ? { temporary } : {}),
      })),
      ...state.guideSteps.flatMap(({ step, temporary }) =>
        temporary
          ? [{ text: `Temporary repair, step ${step} of the job guide`, parts: [], temporary }]
          : [],
      ),
      ...serviceRecord(state, library).map((text) => ({ text, parts: [] })),
    ],
    tester: {
      name: signed.recordedBy,
      ...(licence ? { licence: licence.number, licenceExpiresOn: licence.expiresOn } : {}),
    },
    outcome: rests.outcome,
    reason: rests.reason,
    ...(corrections.length > 0 ? { corrections } : {}),
    ...(clock ? { clock } : {}),
    signedAt: signed.recordedAt,
    // The hand signed what stood before the correction, not what stands now.
    ...(issue.supersedes ? {} : { signature: signed.signature }),
    log: { visitId, events: state.count, headHash },
    statement: plan.packId ? STATEMENT : SERVICE_STATEMENT,
  }
}

/** What the document says in one line, and under whose authority: the verdict, or the check in its place. */
function restsOn(state: VisitState, name: RunName, library: Library) {
  const verdict = verdictOf(state, name, library)
  const authority = planOfVisit(state, library, name)?.pack.authority
  if (verdict && authority !== undefined)
    return { outcome: verdict.outcome, reason: verdict.reason, authority }
  const outcome = outcomeOfRun(state, name, library)
  const check = state.checks[name]
  return outcome && check ? { outcome, reason: check.text, authority: '' } : null
}

const CLOCK_WORDS: Readonly<Record<ClockDoubt, string>> = {
  'clock-far-off': 'came from a clock more than 12 hours off',
  'expired-on-arrival': 'arrived after license or calibration had ended',
  'before-planned': 'bear a time before the visit was planned',
  'far-from-arrival': 'bear a time far from when they arrived',
  'another-zone': 'came from a clock in another time zone',
  'clock-off': 'came from a clock more than 5 minutes off',
}

/** Says of how many entries the time is doubtful, and why; undefined when of none. */
function clockWords({ clockDoubts, count, attested }: VisitState): string | undefined {
  if (clockDoubts.length === 0) return undefined
  const parts = clockDoubtNames.flatMap((doubt) => {
    const entries = clockDoubts.filter((d) => d.doubt === doubt).length
    return entries > 0 ? [`${entries} ${CLOCK_WORDS[doubt]}`] : []
  })
  const released = [attested.clock, attested.validity].flatMap((a) =>
    a
      ? [
          ` ${a.recordedBy} attested ${a.what === 'clock' ? 'the times' : 'that license and calibration held'}: ${a.why}`,
        ]
      : [],
  )
  return `Of ${count} entries ${parts.join(', ')}: the times are those of the device and prove nothing.${released.join('')}`
}

function identityOf({ outcome, seenSerial, reason }: NonNullable<VisitState['identity']>) {
  return { outcome, ...(seenSerial ? { seenSerial } : {}), ...(reason ? { reason } : {}) }
}

const certified = (state: VisitState, name: RunName, library: Library) =>
  certifiedRun(state, name, library) ?? certifiedCheck(state, name)

function certifiedCheck(state: VisitState, name: RunName): CertifiedCheck | null {
  const check = state.checks[name]
  return check ? statedCheck(check, state.checkedOn[name] ?? '') : null
}

function statedCheck(
  check: NonNullable<VisitState['checks'][RunName]>,
  date: string,
): CertifiedCheck {
  return {
    date,
    checked: check.outcome,
    text: check.text,
    readings: (check.readings ?? []).map(({ title, reading }) => ({
      title,
      value: formatQuantity(reading),
    })),
  }
}

function certifiedRun(state: VisitState, name: RunName, library: Library): CertifiedRun | null {
  const run = state.runs[name]
  const verdict = verdictOf(state, name, library)
  return run?.finished && verdict ? statedRun(state, { ...run, name }, verdict, library) : null
}

/** Tests and checks that do not decide, in the order in which they were begun. */
function earlierTests(state: VisitState, library: Library): CertifiedEarlier[] {
  const again = state.earlierRuns.flatMap((run): CertifiedEarlier[] => {
    const verdict = earlierVerdictOf(state, run, library)
    if (!verdict) return []
    return [
      {
        run: run.name,
        ended: run.finished ? 'tested-again' : 'not-finished',
        ...(run.reason ? { why: run.reason } : {}),
        test: statedRun(state, run, verdict, library),
      },
    ]
  })
  const checks = state.earlierChecks.map((check): CertifiedEarlier => {
    const { run, reason } = check
    const test = statedCheck(check, check.date)
    return { run, ended: 'tested-again', ...(reason ? { why: reason } : {}), test }
  })
  const open = runNames.flatMap((name): CertifiedEarlier[] => {
    const run = state.runs[name]
    const verdict = verdictOf(state, name, library)
    if (!run || run.finished || !verdict) return []
    const test = statedRun(state, { ...run, name }, verdict, library)
    return [{ run: name, ended: 'not-finished', test }]
  })
  return [...again, ...checks, ...open]
}

function statedRun(
  state: VisitState,
  run: EarlierRun,
  verdict: Judgement,
  library: Library,
): CertifiedRun {
  const { started } = run
  return {
    date: run.date,
    startedAt: started.recordedAt,
    procedure: {
      id: started.procedureId,
      version: started.procedureVersion,
      title: planOfRun(state, library, run)?.procedure.title ?? '',
    },
    ...(started.linePressure ? { linePressure: formatQuantity(started.linePressure) } : {}),
    instruments: started.instruments,
    verdict,
  }
}
