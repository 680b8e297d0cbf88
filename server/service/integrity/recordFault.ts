/** Something in the database that is not as it was written. */
export interface RecordFault {
  /** What it is of: a visit, a certificate, a photograph, the audit, the keys, the head of a day. */
  readonly of: string
  readonly id: string
  readonly what: string
}
