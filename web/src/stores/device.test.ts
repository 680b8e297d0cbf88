import 'fake-indexeddb/auto'
import { expect, it } from 'vitest'
import { openDevice } from './device'

it('lets a newer version of the store in while an older page has it open, and opens it again after', async () => {
  const older = await openDevice()
  expect(older.version).toBe(5)
  const raised = await new Promise<IDBDatabase>((done, failed) => {
    const asked = indexedDB.open('uvanta', 6)
    asked.onsuccess = () => done(asked.result)
    asked.onerror = () => failed(asked.error ?? new Error('not opened'))
    asked.onblocked = () => failed(new Error('blocked by the older page'))
  })
  expect(raised.version).toBe(6)
  raised.close()
  // The older page says that it cannot go on, and does not wait for ever.
  await expect(openDevice()).rejects.toThrow()
})
