import 'fake-indexeddb/auto'
import type { VisitRow } from '@uvanta/contract'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
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
afterEach(() => void vi.unstubAllGlobals())

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
    expect([along.ready, along.missing]).toEqual([false, ['SR-102']])
    refused = null
    await along.take([visit('RP-101'), visit('SR-102')])
    expect([along.ready, along.missing]).toEqual([true, []])
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
