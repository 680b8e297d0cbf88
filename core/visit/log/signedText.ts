import type { Id } from '../../schema'
import { canonicalJson } from './canonical'
import { type EventDraft, traitsOf, type VisitEvent } from './events'

/**
 * What the key of a device signs when a visit is closed without a line: the signature as drawn, the
 * verdict as read, and every entry that they rest on. What the office or the server wrote meanwhile,
 * and could not be read on the device, is no part of it.
 *
 * @param events log before the signature, in its order
 * @param signer who signs
 */
export function signedText(
  visitId: Id<'visit'>,
  events: readonly VisitEvent[],
  signer: Id<'person'>,
  { id, deviceTime, deviceOffset, payload }: EventDraft<'signed'>,
): string {
  const { byKey: _, ...said } = payload
  const rests = events.filter((e) => traitsOf(e.kind).by !== 'office' || e.personId === signer)
  return canonicalJson({
    visitId,
    signer,
    entries: rests.map((e) => ({
      id: e.id,
      kind: e.kind,
      payload: e.payload,
      at: e.deviceTime,
      offset: e.deviceOffset,
    })),
    signed: { id, deviceTime, deviceOffset, ...said },
  })
}
