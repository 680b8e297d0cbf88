export type ErrorKind =
  | 'invalid'
  | 'not-signed-in'
  | 'forbidden'
  | 'not-found'
  | 'conflict'
  | 'refused'
  | 'stale'
  | 'too-many'

/** A use case that cannot be carried out; the message says what to do. */
export class ServiceError extends Error {
  constructor(
    readonly kind: ErrorKind,
    message: string,
    /** Further facts for the caller, as the events of a conflict. */
    readonly extra: Readonly<Record<string, unknown>> = {},
  ) {
    super(message)
    this.name = 'ServiceError'
  }
}

export const notFound = (what: string) =>
  new ServiceError(
    'not-found',
    `There is no such ${what}. It may have been entered under another number.`,
  )
export const forbidden = (message: string) => new ServiceError('forbidden', message)
