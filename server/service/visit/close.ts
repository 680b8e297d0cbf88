import type { Person } from '@uvanta/contract'
import { type EventDraft, signedText } from '@uvanta/core/visit'
import type { App } from '../../context'
import { issueCertificate } from '../certificate/issue'
import { ServiceError } from '../errors'
import { checkSignature } from '../people/deviceKeys'
import { planFollowUp } from './followUp'
import type { OpenLog } from './openLog'

/**
 * Closes a visit that was signed without a line: by the key of the device alone, over every entry that
 * the signature rests on.
 * @param log with the signature at its end
 * @throws ServiceError refused when the key does not count, or signed something else
 */
export async function closedByKey(
  app: App,
  actor: Person,
  log: OpenLog,
  event: EventDraft<'signed'>,
): Promise<OpenLog> {
  signsAs(actor, event)
  const { byKey } = event.payload
  const before = log.events.filter((e) => e.id !== event.id)
  const text = signedText(log.visit.id, before, actor.id, event)
  if (!byKey)
    throw new ServiceError('refused', 'The key of the device is missing.', 'Sign again.', {
      code: 'key-missing',
    })
  await checkSignature(app, actor, { ...byKey, text })
  return closed(app, actor, log)
}

/** What follows from a signature: the next visit, and the certificate or report. */
export async function closed(app: App, actor: Person, signed: OpenLog): Promise<OpenLog> {
  await refuseWithoutPhotos(app, signed)
  await planFollowUp(app, actor, signed)
  return issueCertificate(app, actor, signed)
}

/** What a certificate is to rest on is there: a photograph that is named and was never sent is not. */
async function refuseWithoutPhotos(app: App, { state, transaction }: OpenLog): Promise<void> {
  const named = state.photos.map((p) => p.photoId)
  const kept = await app.db.photos.findAll({
    where: { id: named },
    attributes: ['id'],
    transaction,
  })
  const missing = state.photos.filter((p) => !kept.some((k) => k.id === p.photoId))
  if (missing.length === 0) return
  throw new ServiceError(
    'refused',
    `${missing.length === 1 ? 'A photograph' : `${missing.length} photographs`} of this visit never arrived: ${missing.map((p) => p.caption).join(', ')}.`,
    'Send it from the device that took it, or withdraw it with the reason. Then sign.',
    { code: 'photo-missing' },
  )
}

/** @throws ServiceError invalid when the signature bears another name */
export function signsAs(actor: Person, { payload }: EventDraft<'signed'>): void {
  if (payload.name === actor.name) return
  throw new ServiceError('invalid', `You sign as ${actor.name}, not as another.`, 'Sign again.', {
    code: 'signs-as-another',
  })
}
