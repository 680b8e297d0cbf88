import { advisoryWords, fails, passes } from '../rules'
import { type CertificatePayload, checkOf, runOf } from './payload'

/** What a genuine certificate says of its equipment on a day: it is what a stranger wants to know. */
export interface CertificateMeaning {
  readonly state: 'passed' | 'failed' | 'temporary' | 'overdue' | 'overtaken' | 'not-assessed'
  /** The day that the sentence is about, where there is one: due, repair by, renewed by, tested again. */
  readonly on?: string
}

/** The test or check that a certificate rests on: its day, and when it began as far as that is known. */
export function lastTest({ asFound, asLeft, issuedAt }: CertificatePayload): {
  readonly on: string
  readonly at: string
} {
  const last = asLeft ?? asFound
  if ('impossible' in last) return { on: issuedAt.slice(0, 10), at: issuedAt }
  return { on: last.date, at: 'startedAt' in last ? last.startedAt : last.date }
}

/** A later certificate of the same equipment that is in force. */
export interface LaterTest {
  readonly on: string
}

/** The end of a temporary repair, the last one where there were several. */
const temporaryUntil = ({ work }: CertificatePayload): string | undefined =>
  work.flatMap((w) => w.temporary?.until ?? []).at(-1)

/**
 * What a certificate means on a day. A later test goes before everything, since this one is history; a
 * failure before a date; a date that has passed before what was true until then.
 * @param today local date, as 2026-11-27
 */
export function meaningOf(
  payload: CertificatePayload,
  today: string,
  later: LaterTest | null,
): CertificateMeaning {
  if (later) return { state: 'overtaken', on: later.on }
  const checked = checkOf(payload)?.checked
  if (fails(payload.outcome) || checked === 'works-not')
    return { state: 'failed', ...(payload.repairBy ? { on: payload.repairBy } : {}) }
  if (!passes(payload.outcome) || checked === 'not-tried') return { state: 'not-assessed' }
  const until = temporaryUntil(payload)
  const due = payload.nextDueOn
  const ended = [until, due].filter((d): d is string => d !== undefined && d < today).sort()[0]
  if (ended) return { state: 'overdue', on: ended }
  if (until) return { state: 'temporary', on: until }
  return { state: 'passed', ...(due ? { on: due } : {}) }
}

/**
 * Returns the words that follow a pass when advisory items are out of limits, as “, with 1 advisory out of limits”;
 * empty when there are none or nothing was judged.
 */
export function advisoriesOf({
  asFound,
  asLeft,
}: Pick<CertificatePayload, 'asFound' | 'asLeft'>): string {
  const run = runOf(asLeft) ?? runOf(asFound)
  return run ? advisoryWords(run.verdict) : ''
}
