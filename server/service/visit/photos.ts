import type { Id } from '@uvanta/core/schema'
import type { Person } from '@uvanta/contract'
import type { App } from '../../context'
import { forbidden, notFound, ServiceError } from '../errors'
import { photoWords, sealNew } from '../integrity/seals'

/** What the first bytes say; the name and the header of an upload say nothing. */
function imageType(content: Buffer): string | null {
  if (content.subarray(0, 3).equals(Buffer.from([0xff, 0xd8, 0xff]))) return 'image/jpeg'
  if (content.subarray(0, 8).equals(Buffer.from('\x89PNG\r\n\x1a\n', 'latin1'))) return 'image/png'
  const riff = content.subarray(0, 4).toString('latin1') === 'RIFF'
  return riff && content.subarray(8, 12).toString('latin1') === 'WEBP' ? 'image/webp' : null
}

/** Keeps a photograph of a visit; the same one twice does no harm. */
export async function keepPhoto(
  app: App,
  actor: Person,
  visitId: Id<'visit'>,
  id: string,
  content: unknown,
): Promise<void> {
  const visit = await app.db.visits.findByPk(visitId)
  if (!visit) throw notFound('visit')
  if (visit.technicianId !== actor.id)
    throw forbidden(
      'Only the technician of this visit adds photographs.',
      'Hand them to that person.',
    )
  const mime = Buffer.isBuffer(content) ? imageType(content) : null
  if (!mime || !Buffer.isBuffer(content))
    throw new ServiceError('invalid', 'This is no JPEG, PNG or WebP picture.', 'Take another.')
  const known = await app.db.photos.findByPk(id)
  if (known) {
    if (known.visitId === visitId && known.content.equals(content)) return
    throw new ServiceError(
      'conflict',
      'There is another photograph with this id.',
      'Make a new id.',
    )
  }
  const at = app.now().toJSDate()
  await app.db.sequelize.transaction(async (transaction) => {
    const photo = { id, visitId, mime, content, personId: actor.id, at }
    await app.db.photos.create(photo, { transaction })
    await sealNew(app, 'photo', id, photoWords(photo), transaction)
  })
}

export async function readPhoto(app: App, visitId: Id<'visit'>, id: string) {
  const visit = await app.db.visits.findByPk(visitId)
  const photo = await app.db.photos.findByPk(id)
  if (!visit || photo?.visitId !== visitId) throw notFound('photograph')
  return { mime: photo.mime, content: photo.content }
}
