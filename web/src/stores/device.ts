import type { HouseUnits, Person } from '@uvanta/contract'
import type { Id } from '@uvanta/core/schema'
import type { EventDraft } from '@uvanta/core/visit'
import { type DBSchema, type IDBPDatabase, openDB } from 'idb'

/** An entry that is not on the server yet, with the person who made it. */
export interface WaitingEntry {
  /** That of the event; ids are made in the order of time. */
  readonly id: string
  readonly visitId: Id<'visit'>
  readonly personId: Id<'person'>
  readonly personName: string
  readonly draft: EventDraft
  /** Id of the first entry that the same press wrote; absent in rows from before. */
  readonly press?: string
}

/** A photograph that is not on the server yet. */
export interface WaitingPhoto {
  readonly id: string
  readonly visitId: Id<'visit'>
  /** Absent in rows from before it was written down. */
  readonly personId?: string
  readonly content: Blob
}

/** An answer of the server as it was last given. */
export interface KeptAnswer {
  readonly key: string
  /** As it came, JSON: kept without being understood. */
  readonly text?: string
  /** In its place, in rows from before. */
  readonly answer?: unknown
  readonly at: string
}

/** The key of one person on this device, sealed under a PIN, with who he is when nobody can be asked. */
export interface KeptKey {
  readonly personId: string
  readonly person: Person
  readonly units: HouseUnits
  readonly utility: string
  /** Id of the device at the server. */
  readonly device: string
  readonly sealed: SealedKey
  /** How often a wrong PIN was given since the last right one. */
  readonly wrong: number
}

/** A private key, encrypted first under a PIN and then under a key that this browser does not give away. */
export interface SealedKey {
  readonly salt: Uint8Array<ArrayBuffer>
  readonly nonce: Uint8Array<ArrayBuffer>
  readonly outerNonce: Uint8Array<ArrayBuffer>
  readonly content: ArrayBuffer
  readonly guard: CryptoKey
}

interface DeviceSchema extends DBSchema {
  answers: { key: string; value: KeptAnswer }
  entries: { key: string; value: WaitingEntry; indexes: { visit: string } }
  photos: { key: string; value: WaitingPhoto; indexes: { visit: string } }
  keys: { key: string; value: KeptKey }
}

/** Kept when it is on the disk, and not only on its way there: a battery may die in the next moment. */
export const DURABLE: IDBTransactionOptions = { durability: 'strict' }

let opened: Promise<IDBPDatabase<DeviceSchema>> | undefined

/** The device’s own store, which survives a dead battery. */
export function openDevice() {
  opened ??= openDB<DeviceSchema>('uvanta', 5, {
    upgrade: async (db, from, _to, transaction) => {
      if (from < 5) db.createObjectStore('keys', { keyPath: 'personId' })
      if (from < 4) db.createObjectStore('answers', { keyPath: 'key' })
      if (from < 2)
        db.createObjectStore('photos', { keyPath: 'id' }).createIndex('visit', 'visitId')
      if (from >= 3) return
      const entries = db.createObjectStore('entries', { keyPath: 'id' })
      entries.createIndex('visit', 'visitId')
      if (from < 1) return
      // Before, one row held all entries of a visit, and only its technician could make any.
      const old = transaction as unknown as {
        objectStore: (name: string) => { getAll: () => Promise<OldRow[]> }
      }
      for (const { visitId, drafts } of await old.objectStore('drafts').getAll()) {
        for (const draft of drafts) {
          await entries.put({ id: draft.id, visitId, personId: '', personName: '', draft })
        }
      }
      ;(db as unknown as { deleteObjectStore: (name: string) => void }).deleteObjectStore('drafts')
    },
    // Another tab or the service worker has a newer version: this one lets go, and opens the store again when it is
    // asked, so that nobody waits for somebody to close a tab.
    blocking: (_version, _newer, event) => {
      ;(event.target as unknown as IDBDatabase).close()
      opened = undefined
    },
    // The browser closed it, as when it runs out of room.
    terminated: () => {
      opened = undefined
    },
  }).catch((error: unknown) => {
    // Tried again at the next entry: the browser may let go of what it held.
    opened = undefined
    throw error
  })
  return opened
}

interface OldRow {
  readonly visitId: Id<'visit'>
  readonly drafts: readonly EventDraft[]
}
