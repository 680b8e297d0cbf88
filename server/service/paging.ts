import { ServiceError } from './errors'

/** The place in a list after which the next page begins, opaque to the caller. */
export function makeCursor(keys: readonly unknown[]): string {
  return Buffer.from(JSON.stringify(keys)).toString('base64url')
}

/**
 * The keys of a cursor made here, or none.
 * @param firstKey what the first key looks like, where it is compared as a number
 * @throws ServiceError when it was not made here
 */
export function keptCursor(cursor: string | undefined, length: number, firstKey = /^/): string[] {
  if (cursor === undefined) return []
  try {
    const keys: unknown = JSON.parse(Buffer.from(cursor, 'base64url').toString())
    const fits = Array.isArray(keys) && keys.length === length
    if (
      fits &&
      keys.every((k) => typeof k === 'string' || typeof k === 'number') &&
      firstKey.test(String(keys[0]))
    )
      return keys.map(String)
  } catch {
    // falls through to the refusal
  }
  throw new ServiceError(
    'invalid',
    'The cursor is not one of this list.',
    'Start again from the first page.',
    { code: 'cursor-unknown' },
  )
}

export const pageSize = (limit: string | undefined): number => Number(limit ?? 50)
