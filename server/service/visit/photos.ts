import type { Id } from '@uvanta/core/schema'
import type { Person } from '@uvanta/contract'
import { photoRefusal } from '@uvanta/core/visit'
import type { App } from '../../context'
import { forbidden, notFound, ServiceError } from '../errors'
import { photoWords, sealNew } from '../integrity/seals'
import { cleanPicture } from './cleanPicture'

/** Keeps a photograph of a visit, cleaned of all but what it shows; the same one twice does no harm. */
export async function keepPhoto(
  app: App,
  actor: Person,
  visitId: Id<'visit'>,
  id: string,
  upload: unknown,
): Promise<void> {
  const visit = await app.db.visits.findByPk(visitId)
  if (!visit) throw notFound('visit')
  if (visit.technicianId !== actor.id)
    throw forbidden(
      'Only the technician of this visit adds photographs.',
      'Hand them to that person.',
    )
  const picture = Buffer.isBuffer(upload) ? cleanPicture(upload) : null
  if (!picture)
    throw new ServiceError('invalid', 'This is no JPEG, PNG or WebP picture.', 'Take another.', {
      code: 'not-a-picture',
    })
  const { mime, content } = picture
  const known = await app.db.photos.findByPk(id)
  if (known) {
    if (known.visitId === visitId && known.content.equals(content)) return
    throw new ServiceError(
      'conflict',
      'There is another photograph with this id.',
      'Make a new id.',
      { code: 'photo-differs' },
    )
  }
  if (visit.state === 'signed' || visit.state === 'stopped')
    throw new ServiceError('refused', 'This visit is closed.', 'Plan another visit for it.', {
      code: 'visit-closed',
    })
  const refusal = photoRefusal(await app.db.photos.count({ where: { visitId } }))
  if (refusal)
    throw new ServiceError('refused', refusal.why, refusal.remedy, { code: refusal.code })
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
