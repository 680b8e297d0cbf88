import { ExplainedError } from '@uvanta/core/errors'

export type ErrorKind =
  | 'invalid'
  | 'not-signed-in'
  | 'forbidden'
  | 'not-found'
  | 'conflict'
  | 'refused'
  | 'stale'
  | 'too-many'

interface Further {
  /** A code of its own, where callers tell this case from others of its kind. */
  readonly code?: string
  /** Facts for the caller, as the events of a conflict. */
  readonly [fact: string]: unknown
}

/** A use case that cannot be carried out. */
export class ServiceError extends ExplainedError {
  readonly extra: Readonly<Record<string, unknown>>
  constructor(
    readonly kind: ErrorKind,
    why: string,
    remedy: string,
    { code = kind, ...extra }: Further = {},
  ) {
    super(code, why, remedy)
    this.extra = extra
  }
}

export const notFound = (what: string) =>
  new ServiceError(
    'not-found',
    `There is no such ${what}.`,
    'It may have been entered under another number.',
  )
export const forbidden = (why: string, remedy: string) => new ServiceError('forbidden', why, remedy)
