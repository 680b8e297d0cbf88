import 'fake-indexeddb/auto'
import { Job } from '@uvanta/core/testing'
import { expect, it, vi } from 'vitest'
import { OneVisitServer, openOnScreen } from '@/testing/visitOnScreen'
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

it('holds nothing back while it is shut: what a page records is sent, and said not to be kept', async () => {
  const server = new OneVisitServer(
    new Job({ family: 'reduced-pressure-assembly', kind: 'RP', packId: 'larkhaven-relief-first' }),
  )
  const { store } = await openOnScreen(server)
  store.record('note', { station: 'prepare', text: 'nothing to keep it in' })
  await vi.waitFor(() => expect(store.deviceProblem).not.toBe(''))
  await store.flush()
  expect(server.log.at(-1)?.payload).toMatchObject({ text: 'nothing to keep it in' })
  expect(store.pending).toEqual([])
})
