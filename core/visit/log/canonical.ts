import type { Id } from '../../schema'
import canonicalize from 'canonicalize'
import type { VisitEvent } from './events'

/**
 * JSON in one spelling only (RFC 8785), so that the same content has the same bytes and hash.
 * @throws TypeError for what JSON cannot say
 */
export function canonicalJson(value: unknown): string {
  const text = canonicalize(value)
  if (text === undefined) throw new TypeError('This value has no JSON form.')
  return text
}

/** The bytes whose SHA-256 is the hash of an event: the previous hash, then the event itself. */
export function chainInput(previousHash: string, visitId: Id<'visit'>, event: VisitEvent): string {
  const { hash: _, ...said } = event
  return canonicalJson({ previousHash, visitId, event: said })
}

/** What stands before the first event. */
export const CHAIN_START = '0'.repeat(64)
