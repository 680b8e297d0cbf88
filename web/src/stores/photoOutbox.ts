import type { Id } from '@uvanta/core/schema'
import { api } from 'virtual:api'
import { ApiProblem, send, urlOf } from '@/api/client'
import { DURABLE, openDevice, type WaitingPhoto } from './device'

/** Photographs that were taken on this device and are not on the server yet. */
export const photoOutbox = {
  async keep(photo: WaitingPhoto): Promise<void> {
    const transaction = (await openDevice()).transaction('photos', 'readwrite', DURABLE)
    await Promise.all([transaction.store.put(photo), transaction.done])
  },
  async read(id: string): Promise<Blob | undefined> {
    return (await (await openDevice()).get('photos', id))?.content
  },
  /**
   * Sends a person's photographs of a visit. When the storage cannot be opened, the entries are sent without them; the
   * server allows no signature until the photographs have arrived.
   * @throws ApiProblem when the server does not take one
   */
  async flush(visitId: Id<'visit'>, personId: Id<'person'>): Promise<void> {
    const photos = await openDevice()
      .then((db) => db.getAllFromIndex('photos', 'visit', visitId))
      .catch(() => [])
    for (const photo of photos) {
      if ((photo.personId ?? personId) !== personId) continue
      const url = urlOf(api.visits.keepPhoto, { id: visitId, photo: photo.id }, undefined)
      const headers = { 'Content-Type': photo.content.type }
      const response = await send(url, { method: 'PUT', headers, body: photo.content })
      if (!response.ok) throw new ApiProblem((await response.json()) as never)
      await (await openDevice()).delete('photos', photo.id)
    }
  },
}
