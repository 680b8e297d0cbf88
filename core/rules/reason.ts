/**
 * Why an item has the outcome that it has. Codes are stable: tests, other programs and other languages go by
 * them; sentences may be reworded.
 */
export const reasonCodes = [
  'accepted',
  'rejected-answer',
  'within-limit',
  'beyond-limit',
  'within-uncertainty',
  'beyond-uncertainty',
  'not-recorded',
  'needs-readings',
  'needs-nominal',
  'other-quantity',
  'height-not-applicable',
  'impossible',
  'out-of-calibration',
  'license-expired',
  'gauge-unknown',
  'still-moving',
  'before-test-began',
  'before-repair',
  'before-adjustment',
  'unknown-answer',
  'contradiction',
  'equal-within-uncertainty',
  'invalidated',
  'rests-on-blocked',
  'taken-out-of-order',
  'order-unknown',
  'class-out-of-range',
  'coefficients-disagree',
  'cannot-compute',
  'held-too-short',
  'hold-out-of-order',
  'hold-unknown',
  'too-coarse',
  'trend-unknown',
  'trend-too-short',
  'swing-unknown',
  'no-limit',
  'no-tier',
] as const
export type ReasonCode = (typeof reasonCodes)[number]

export type ReasonParams = Readonly<Record<string, string | number>>

export interface Reason {
  readonly code: ReasonCode
  readonly params: ReasonParams
  /** One sentence a technician can act on. */
  readonly text: string
}

/** Why nothing can be judged: not recorded, or of another quantity than its limit. */
export interface Missing {
  readonly missing: Reason
}

/** Builds a reason from its code, its sentence and what the sentence is about. */
export const because = (code: ReasonCode, text: string, params: ReasonParams = {}): Reason => ({
  code,
  params,
  text,
})

/** Says that a nominal value is missing, which the office enters on the equipment's page. */
export const needsNominal = (name: string): Reason =>
  because('needs-nominal', `${name.replaceAll('-', ' ')} is not on the equipment’s page`, { name })

/** Says that nothing has been recorded for an item yet. */
export const notRecorded = because('not-recorded', 'not recorded yet')

/** A reason as a judgement has it. */
export const saying = ({ code, params, text }: Reason) => ({ reason: text, code, params })
