import 'fake-indexeddb/auto'
import { api } from 'virtual:api'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { call } from '@/api/client'
import { keptAnswers } from '@/api/kept'
import { PERSON } from '@/testing/visitOnScreen'
import { useLock } from './lock'
import { useSession } from './session'

beforeEach(async () => {
  setActivePinia(createPinia())
  useSession().person = PERSON as never
  keptAnswers.belongTo(PERSON.id)
  vi.stubGlobal('fetch', () => Promise.resolve(Response.json({ items: [{ number: 'K-1' }] })))
  await call(api.stock.list)
  await vi.waitFor(async () => expect(await kept()).toBeDefined())
})
afterEach(async () => {
  await keptAnswers.clear(PERSON.id)
  vi.unstubAllGlobals()
})
const kept = () => keptAnswers.place(api.stock.list.path).read()

it('a session that was ended elsewhere leaves nothing to read on a device without a key', async () => {
  useLock().lock('ended')
  await vi.waitFor(async () => expect(await kept()).toBeUndefined())
})
it('a device that locks while idle keeps the answers', async () => {
  useLock().lock('idle')
  await new Promise((done) => setTimeout(done, 20))
  expect(await kept()).toBeDefined()
})
