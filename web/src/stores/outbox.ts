import type { EventDraft } from '@uvanta/core/visit'
import { type DBSchema, type IDBPDatabase, openDB } from 'idb'

interface OutboxSchema extends DBSchema {
  drafts: { key: string; value: { visitId: string; drafts: EventDraft[] } }
  photos: { key: string; value: WaitingPhoto; indexes: { visit: string } }
}

/** A photograph that is not on the server yet. */
export interface WaitingPhoto {
  readonly id: string
  readonly visitId: string
  readonly content: Blob
}

let opened: Promise<IDBPDatabase<OutboxSchema>> | undefined

/** The device’s own store, which survives a dead battery. */
export function openDevice() {
  opened ??= openDB<OutboxSchema>('uvanta', 2, {
    upgrade: (db, from) => {
      if (from < 1) db.createObjectStore('drafts', { keyPath: 'visitId' })
      if (from < 2)
        db.createObjectStore('photos', { keyPath: 'id' }).createIndex('visit', 'visitId')
    },
  })
  return opened
}

/** What was recorded on this device and is not acknowledged yet; it survives a dead battery. */
export const outbox = {
  async read(visitId: string): Promise<EventDraft[]> {
    return (await (await openDevice()).get('drafts', visitId))?.drafts ?? []
  },
  async write(visitId: string, drafts: readonly EventDraft[]): Promise<void> {
    const db = await openDevice()
    if (drafts.length === 0) await db.delete('drafts', visitId)
    else
      await db.put('drafts', {
        visitId,
        drafts: JSON.parse(JSON.stringify(drafts)) as EventDraft[],
      })
  },
}
