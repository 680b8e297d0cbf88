import type { Visit } from '@uvanta/contract'
import { api } from 'virtual:api'
import type { Id } from '@uvanta/core/schema'
import { call } from '@/api/client'
import type { WaitingEntry } from './device'
import { outbox } from './outbox'
import { photoOutbox } from './photoOutbox'
import { firstPiece } from './pieces'

/**
 * Sends what a person recorded at a visit that nobody has open, in the order in which it was made; what the server has
 * is forgotten here.
 * @param rows of that visit and person
 * @returns the visit as the server has it
 * @throws ApiProblem when the server cannot be reached or does not take an entry
 */
export async function sendEntries(
  id: Id<'visit'>,
  personId: Id<'person'>,
  rows: readonly WaitingEntry[],
): Promise<Visit> {
  const visit = await call(api.visits.read, { params: { id }, live: true })
  await photoOutbox.flush(id, personId)
  const known = new Set<string>(visit.events.map((e) => e.id))
  await outbox.forget(rows.filter((e) => known.has(e.id)).map((e) => e.id))
  let left = rows
    .filter((e) => !known.has(e.id))
    .map((e) => ({ draft: e.draft, press: e.press ?? e.id }))
  let expected = visit.events.length
  while (left.length > 0) {
    const piece = firstPiece(left)
    const { items } = await call(api.visits.append, {
      params: { id },
      body: {
        expected,
        as: personId,
        sentAt: new Date().toISOString(),
        events: piece.map((s) => ({ ...s.draft })),
      },
    })
    expected += items.length
    left = left.slice(piece.length)
    await outbox.forget(items.map((e) => e.id))
  }
  return visit
}

// Where the browser has no locks, the server sorts out what is sent twice.
const locks = navigator.locks as LockManager | null | undefined
/** One tab sends at a time, or what works behind them all; the server takes nothing twice in any case. */
export const sendingAlone = (work: () => Promise<void>): Promise<void> =>
  locks ? locks.request('uvanta-sending', work) : work()
