import 'fake-indexeddb/auto'
import { api } from 'virtual:api'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { call } from './client'
import { openDevice } from '@/stores/device'
import { asOf, keptAnswers } from './kept'

let online = true
let stock: object[] = []
beforeEach(() => {
  online = true
  stock = [{ number: 'K-1' }]
  keptAnswers.belongTo('odda')
  vi.stubGlobal('fetch', () =>
    online
      ? Promise.resolve(Response.json({ items: stock }))
      : Promise.reject(new TypeError('no line')),
  )
})
afterEach(async () => {
  await keptAnswers.clear('odda')
  vi.unstubAllGlobals()
})
const list = (live = false) => call(api.stock.list, live ? { live } : {})
/** Once with a line, so that the device has it. */
async function taken() {
  await list()
  await vi.waitFor(async () =>
    expect(await keptAnswers.place(api.stock.list.path).read()).toBeDefined(),
  )
  online = false
}

describe('an answer that the device keeps', () => {
  it('is given again without a line, with the time from which it is', async () => {
    await taken()
    stock = []
    expect((await list()).items).toEqual([{ number: 'K-1' }])
    expect(Date.parse(asOf.value ?? '')).toBeGreaterThan(Date.now() - 60_000)
    online = true
    expect((await list()).items).toEqual([])
    expect(asOf.value).toBeNull()
  })
  it('does not do where the server itself has to say it', async () => {
    await taken()
    await expect(list(true)).rejects.toMatchObject({ offline: true })
  })
  it('is read as it was kept by a version from before', async () => {
    const key = `odda ${api.stock.list.path}`
    const at = '2026-01-01T00:00:00.000Z'
    await (await openDevice()).put('answers', { key, answer: { items: stock }, at })
    online = false
    expect((await list()).items).toEqual([{ number: 'K-1' }])
    expect(asOf.value).toBe(at)
  })
  it('is nobody else’s', async () => {
    await taken()
    keptAnswers.belongTo('teo')
    await expect(list()).rejects.toMatchObject({ offline: true })
    keptAnswers.belongTo('odda')
    expect((await list()).items).toHaveLength(1)
  })
  it('is nobody’s when it comes after the device was handed on', async () => {
    let answer = (_: Response) => {}
    vi.stubGlobal('fetch', () =>
      online
        ? new Promise<Response>((resolve) => (answer = resolve))
        : Promise.reject(new TypeError('no line')),
    )
    const late = list()
    keptAnswers.belongTo('teo')
    answer(Response.json({ items: stock }))
    await late
    // What is written is there before what is asked for behind it.
    await keptAnswers.place('/other').write('{}')
    online = false
    await expect(list()).rejects.toMatchObject({ offline: true })
    keptAnswers.belongTo('odda')
    await expect(list()).rejects.toMatchObject({ offline: true })
  })
  it('goes when the device is handed on', async () => {
    await taken()
    await keptAnswers.clear('odda')
    await expect(list()).rejects.toMatchObject({ offline: true })
  })
  it('of somebody else stays when one person leaves', async () => {
    await taken()
    await keptAnswers.clear('teo')
    expect((await list()).items).toHaveLength(1)
  })
  it('is none of a place that is not kept', async () => {
    online = true
    await call(api.people.list)
    online = false
    await expect(call(api.people.list)).rejects.toMatchObject({ offline: true })
  })
})
