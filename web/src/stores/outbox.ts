import type { Id } from '@uvanta/core/schema'
import { DURABLE, openDevice, type WaitingEntry } from './device'

/**
 * What was recorded on this device and is not acknowledged yet: a row an entry, so that two tabs
 * never write over each other, and each under the name of the person who made it.
 */
export const outbox = {
  /** What waits for a visit, oldest first, of whomever. */
  async read(visitId: Id<'visit'>): Promise<WaitingEntry[]> {
    const rows = await (await openDevice()).getAllFromIndex('entries', 'visit', visitId)
    return rows.sort((a, b) => a.id.localeCompare(b.id))
  },
  /** What waits of one person, of every visit, oldest first. */
  async of(personId: string): Promise<WaitingEntry[]> {
    const rows = await (await openDevice()).getAll('entries')
    return rows.filter((e) => e.personId === personId).sort((a, b) => a.id.localeCompare(b.id))
  },
  /** Keeps all of the entries or none. */
  async keep(entries: readonly WaitingEntry[]): Promise<void> {
    const transaction = (await openDevice()).transaction('entries', 'readwrite', DURABLE)
    const plain = JSON.parse(JSON.stringify(entries)) as WaitingEntry[]
    const puts = plain.map((e) => transaction.store.put(e))
    // Said at once that this is all, so that nothing waits for a page that may be gone.
    transaction.commit()
    await Promise.all([...puts, transaction.done])
  },
  async forget(ids: Iterable<string>): Promise<void> {
    const transaction = (await openDevice()).transaction('entries', 'readwrite')
    await Promise.all([...[...ids].map((id) => transaction.store.delete(id)), transaction.done])
  },
}
