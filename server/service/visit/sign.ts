import type { Id } from '@uvanta/core/schema'
import type { Person, Visit } from '@uvanta/contract'
import type { EventDraft } from '@uvanta/core/visit'
import type { App } from '../../context'
import { appendGuarded, checkDrafts } from './append'
import { closed, signsAs } from './close'
import { inLog } from './openLog'
import { forbidden, ServiceError } from '../errors'
import { checkPassword } from '../people/people'
import { readVisit } from './visits'

/** Signs a visit, issues its certificate or service report and plans its follow-up, in one transaction. Signing twice does no harm. */
export async function signVisit(
  app: App,
  actor: Person,
  visitId: Id<'visit'>,
  input: { expected: number; password: string; event: EventDraft; address: string },
): Promise<Visit> {
  if (input.event.kind !== 'signed') {
    throw new ServiceError(
      'invalid',
      'Only the event “signed” is sent here.',
      'Send others to the log.',
      { code: 'signed-alone' },
    )
  }
  await checkPassword(app, actor.id, input.password, input.address)
  signsAs(actor, input.event)
  if (input.event.payload.byKey) {
    throw new ServiceError(
      'invalid',
      'One or the other: this signature claims a key beside the password.',
      'Leave the key out.',
      { code: 'key-and-password' },
    )
  }
  const drafts = checkDrafts(app, [input.event])
  await inLog(app, visitId, async (log) => {
    if (log.visit.technicianId !== actor.id)
      throw forbidden(
        'Only the technician of this visit signs it.',
        'Hand the device to that person.',
      )
    if (log.events.some((e) => e.id === input.event.id)) return log
    const signed = await appendGuarded(app, actor, log, input.expected, drafts)
    return closed(app, actor, signed)
  })
  return readVisit(app, actor, visitId)
}

/**
 * Corrects an entry of a signed visit: by its tester, with the password, since the certificate rests
 * on it. The certificate is replaced afterwards, by whoever releases it.
 */
export async function correctSigned(
  app: App,
  actor: Person,
  visitId: Id<'visit'>,
  input: { expected: number; password: string; event: EventDraft; address: string },
): Promise<Visit> {
  await checkPassword(app, actor.id, input.password, input.address)
  await correctAttested(app, actor, visitId, input.expected, input.event)
  return readVisit(app, actor, visitId)
}

/** The same without the password, for data that nobody types. */
export async function correctAttested(
  app: App,
  actor: Person,
  visitId: Id<'visit'>,
  expected: number,
  event: EventDraft,
): Promise<void> {
  if (event.kind !== 'correction') {
    throw new ServiceError(
      'invalid',
      'Only a correction is sent here.',
      'Send others to the log.',
      { code: 'correction-alone' },
    )
  }
  const drafts = checkDrafts(app, [event])
  await inLog(app, visitId, async (log) => {
    if (log.visit.technicianId !== actor.id)
      throw forbidden('Only the tester of this visit corrects it.', 'Ask for the correction.')
    return appendGuarded(app, actor, log, expected, drafts, true)
  })
}
