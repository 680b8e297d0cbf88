import 'fake-indexeddb/auto'
import type { VisitRow } from '@uvanta/contract'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { keptAnswers } from '@/api/kept'
import { openDevice } from './device'
import { useTakeAlong } from './takeAlong'

const visit = (tag: string) =>
  ({ id: `visit-of-${tag}`, equipment: { id: `id-of-${tag}`, tag } }) as VisitRow
const storage = (persisted: boolean, quota: number, usage: number) =>
  vi.stubGlobal('navigator', {
    storage: {
      persist: () => Promise.resolve(persisted),
      estimate: () => Promise.resolve({ quota, usage }),
    },
  })

/** Newest first: planned, broken off, and two that were closed. */
const HISTORY = JSON.stringify({
  items: ['planned', 'stopped', 'signed', 'signed'].map((state, n) => ({
    state,
    visitId: `v${n}`,
  })),
})
/** Addresses that were asked for; those that end so are refused. */
let asked: string[]
let refused: string | null
beforeEach(() => {
  setActivePinia(createPinia())
  keptAnswers.belongTo('odda')
  vi.useFakeTimers({ now: new Date('2026-06-01T08:00:00.000Z'), toFake: ['Date'] })
  asked = []
  refused = null
  vi.stubGlobal('fetch', (url: string) => {
    asked.push(url)
    const says = { type: 'urn:uvanta:problem:busy', title: 'Busy', status: 503, detail: 'Wait.' }
    return Promise.resolve(
      refused && url.includes(refused)
        ? new Response(JSON.stringify(says), { status: 503 })
        : new Response(url.endsWith('/history') ? HISTORY : '{}'),
    )
  })
})
afterEach(async () => {
  vi.restoreAllMocks()
  vi.unstubAllGlobals()
  vi.useRealTimers()
  await keptAnswers.clear('odda')
})

describe('what is taken into the pit', () => {
  it('is each visit with its equipment, history and station, and what all of them need', async () => {
    const along = useTakeAlong()
    await along.take([visit('RP-101'), visit('SR-102')])
    for (const tag of ['RP-101', 'SR-102']) {
      expect(asked.filter((url) => url.endsWith(`/visits/visit-of-${tag}`))).toHaveLength(1)
      expect(asked.filter((url) => url.includes(`/equipment/id-of-${tag}`))).toHaveLength(3)
    }
    // The last visit that was closed can be read in the pit, with all that was written on it.
    expect([...new Set(asked.filter((url) => /\/visits\/v\d$/.test(url)))]).toEqual([
      expect.stringMatching(/\/visits\/v2$/),
    ])
    expect([along.ready, along.taken, along.missing]).toEqual([true, 2, []])
  })
  it('names what could not be had, once each, and is ready when the next try has it all', async () => {
    refused = 'id-of-SR-102'
    const along = useTakeAlong()
    await along.take([visit('RP-101'), visit('SR-102')])
    expect([along.ready, along.full, along.missing]).toEqual([false, false, ['SR-102']])
    refused = null
    await along.take([visit('RP-101'), visit('SR-102')])
    expect([along.ready, along.missing]).toEqual([true, []])
  })
  it('is fetched again as the day is opened again, but of equipment only what is half an hour old', async () => {
    const along = useTakeAlong()
    const visits = [visit('RP-101'), visit('SR-102')]
    const askedAgainAt = async (time: string) => {
      vi.setSystemTime(new Date(time))
      asked = []
      await along.take(visits)
      return asked.map((url) => url.replace('/api/v1', ''))
    }
    const first = await askedAgainAt('2026-06-01T08:00:00.000Z')
    const soon = await askedAgainAt('2026-06-01T08:29:59.000Z')
    expect(soon).toContain('/visits/visit-of-RP-101')
    expect(soon).toContain('/stock')
    expect(soon.filter((path) => path.startsWith('/equipment/'))).toEqual([])
    expect(soon).not.toContain('/visits/v2')
    // It says from when the oldest of it is.
    expect([along.ready, along.at]).toEqual([true, '2026-06-01T08:00:00.000Z'])
    expect((await askedAgainAt('2026-06-01T08:30:01.000Z')).sort()).toEqual(first.sort())
    expect(along.at).toBe('2026-06-01T08:30:01.000Z')
    // A clock that was put back proves nothing.
    expect((await askedAgainAt('2026-06-01T07:00:00.000Z')).sort()).toEqual(first.sort())
  })
  it('is not ready on a device that has no room to keep it', async () => {
    const device = await openDevice()
    vi.spyOn(device, 'put').mockRejectedValue(new DOMException('full', 'QuotaExceededError'))
    const along = useTakeAlong()
    await along.take([visit('RP-101')])
    expect([along.ready, along.full]).toEqual([false, true])
    expect(along.missing).toContain('RP-101')
  })
})

describe('the room of the device', () => {
  it('is what is left of it, and whether it stays when that runs short', async () => {
    storage(false, 2_000_000_000, 100_000_000)
    const along = useTakeAlong()
    await along.settle()
    expect(along.room).toEqual({ free: 1_900_000_000, kept: false })
  })
  it('is none where more is used than there is', async () => {
    storage(true, 1_000, 2_000)
    const along = useTakeAlong()
    await along.settle()
    expect(along.room).toEqual({ free: 0, kept: true })
  })
  it('is not spoken of where the browser does not know it', async () => {
    vi.stubGlobal('navigator', {})
    const along = useTakeAlong()
    await along.settle()
    expect(along.room).toBeNull()
  })
})
