import type { EventDraft } from '@uvanta/core/visit'
import { type DBSchema, type IDBPDatabase, openDB } from 'idb'

interface OutboxSchema extends DBSchema {
  drafts: { key: string; value: { visitId: string; drafts: EventDraft[] } }
}

let opened: Promise<IDBPDatabase<OutboxSchema>> | undefined

function open() {
  opened ??= openDB<OutboxSchema>('uvanta', 1, {
    upgrade: (db) => void db.createObjectStore('drafts', { keyPath: 'visitId' }),
  })
  return opened
}

/** What was recorded on this device and is not acknowledged yet; it survives a dead battery. */
export const outbox = {
  async read(visitId: string): Promise<EventDraft[]> {
    return (await (await open()).get('drafts', visitId))?.drafts ?? []
  },
  async write(visitId: string, drafts: readonly EventDraft[]): Promise<void> {
    const db = await open()
    if (drafts.length === 0) await db.delete('drafts', visitId)
    else
      await db.put('drafts', {
        visitId,
        drafts: JSON.parse(JSON.stringify(drafts)) as EventDraft[],
      })
  },
}
