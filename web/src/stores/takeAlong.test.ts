import type { VisitRow } from '@uvanta/contract'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type * as Client from '@/api/client'
import { ApiProblem, keepAnswer } from '@/api/client'
import { useTakeAlong } from './takeAlong'

vi.mock('@/api/client', async (original) => ({
  ...(await original<typeof Client>()),
  keepAnswer: vi.fn(),
}))
const kept = vi.mocked(keepAnswer)
const visit = (tag: string) =>
  ({ id: `visit-of-${tag}`, equipment: { id: `id-of-${tag}`, tag } }) as VisitRow
const storage = (persisted: boolean, quota: number, usage: number) =>
  vi.stubGlobal('navigator', {
    storage: {
      persist: () => Promise.resolve(persisted),
      estimate: () => Promise.resolve({ quota, usage }),
    },
  })

beforeEach(() => {
  setActivePinia(createPinia())
  kept.mockReset().mockResolvedValue(undefined as never)
  return () => vi.unstubAllGlobals()
})

describe('what is taken into the pit', () => {
  it('is each visit with its equipment, history and station, and what all of them need', async () => {
    const along = useTakeAlong()
    await along.take([visit('RP-101'), visit('SR-102')])
    const asked = kept.mock.calls.map(
      ([, input]) => (input as { params?: { id: string } } | undefined)?.params?.id,
    )
    for (const tag of ['RP-101', 'SR-102']) {
      expect(asked.filter((id) => id === `visit-of-${tag}`)).toHaveLength(1)
      expect(asked.filter((id) => id === `id-of-${tag}`)).toHaveLength(3)
    }
    expect([along.ready, along.taken, along.missing]).toEqual([true, 2, []])
  })
  it('names what could not be had, once each, and is ready when the next try has it all', async () => {
    kept.mockImplementation(((_: unknown, input?: { params?: { id: string } }) =>
      input?.params?.id.endsWith('SR-102')
        ? Promise.reject(
            new ApiProblem({
              type: 'urn:uvanta:problem:busy',
              title: 'Busy',
              status: 503,
              detail: 'Wait.',
            }),
          )
        : Promise.resolve(undefined)) as never)
    const along = useTakeAlong()
    await along.take([visit('RP-101'), visit('SR-102')])
    expect([along.ready, along.missing]).toEqual([false, ['SR-102']])
    kept.mockReset().mockResolvedValue(undefined as never)
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
