/** How equipment stands, as lists choose by it. */
export const conditions = [
  'never-tested',
  'in-order',
  'failed',
  'temporary-repair',
  'not-assessed',
  'out-of-service',
] as const
export type Condition = (typeof conditions)[number]

/** What has become of a certificate. */
export const certificateStates = ['current', 'superseded', 'void'] as const
export type CertificateState = (typeof certificateStates)[number]
