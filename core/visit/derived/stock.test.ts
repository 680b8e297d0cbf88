import { describe, expect, it } from 'vitest'
import type { Guide } from '../../guide'
import { Job } from '../../testing/job'
import { shippedLibrary } from '../../testing/library'
import { foldVisit, stockChanges, type VisitEvent } from '..'

const tower = shippedLibrary.guides.find((g) => g.id === 'tower-double-check') as Guide
const NUMBER = 'K-BTDC-021'
const begun = () =>
  new Job({
    family: 'tower-double-check',
    kind: 'DC',
    packId: 'larkhaven-relief-first',
    defects: { 'disc-1': ['debris'], 'disc-2': ['debris'], 'cover-oring': ['flat'] },
  }).choose(tower, 'usual')

/** What the whole log does to the stock, number by number. */
function ledger(events: readonly VisitEvent[]): Record<string, number> {
  const stock: Record<string, number> = {}
  events.forEach((event, n) => {
    for (const { number, change } of stockChanges(foldVisit(events.slice(0, n)), event)) {
      stock[number] = (stock[number] ?? 0) + change
    }
  })
  return stock
}

describe('the stock of a technician', () => {
  it('goes down by the kit that is taken, and not by what is done with it', () => {
    const job = begun().toMakeSafe().toAsLeft()
    expect(job.run.kit.some((k) => k.used > 0)).toBe(true)
    expect(ledger(job.events)).toEqual({ [NUMBER]: -1 })
  })
  it('is the same when the kit is counted again', () => {
    const job = begun().takeKit()
    const again = job.state.kit
    if (!again) throw new Error('no kit')
    job.must('kit-taken', {
      number: again.number,
      how: 'scanned',
      items: again.items.map((i) => ({ ...i })),
    })
    expect(ledger(job.events)).toEqual({ [NUMBER]: -1 })
  })
  it('gets back the one that another took the place of', () => {
    const job = begun().takeKit()
    const items = (job.state.kit?.items ?? []).map((i) => ({ ...i }))
    job.must('kit-taken', { number: 'K-OTHER', how: 'typed', items, departure: 'Same parts' })
    expect(ledger(job.events)).toEqual({ [NUMBER]: 0, 'K-OTHER': -1 })
  })
  it('gets back what came home unopened, and nothing when a part is missing', () => {
    const { state } = begun().takeKit()
    const close = (left: number, missing: number) =>
      stockChanges(state, {
        id: 'x',
        kind: 'kit-closed',
        payload: {
          lines: [{ item: 'kit-disc', used: 0, spare: 0, left, missing, empty: 0 }],
        },
        deviceTime: '2026-06-01T08:00:00.000Z',
        deviceOffset: 0,
        personId: 'p',
        personName: 'P',
      } as VisitEvent)
    expect(close(2, 0)).toEqual([{ number: NUMBER, change: 1, reason: 'Came back unopened' }])
    expect(close(1, 1)).toEqual([])
  })
})

describe('what is noted beside the work', () => {
  it('stands in the state: photographs, results, what is ready', () => {
    const job = begun()
      .must('photo', {
        photoId: '018f0000-0000-7000-8000-00000000aaaa',
        station: 'prepare',
        caption: 'Van',
      })
      .must('result', { computation: 'torque-setting', title: 'Torque', says: '42 N·m' })
      .must('prepared', { item: 'Flat blade', state: 'missing' })
      .must('prepared', { item: 'Flat blade', state: 'ready' })
    expect(job.state.photos).toHaveLength(1)
    expect(job.state.results[0]?.says).toBe('42 N·m')
    // The last word on a line of getting ready counts.
    expect(job.state.prepared['Flat blade']?.state).toBe('ready')
  })
  it('can be withdrawn: a photograph of the wrong pit', () => {
    const job = begun().must('photo', {
      photoId: '018f0000-0000-7000-8000-00000000aaaa',
      station: 'prepare',
      caption: 'Pit',
    })
    const of = job.events.at(-1)?.id ?? ''
    job.must('correction', { of, why: 'The pit next door', withdraw: true })
    expect(job.state.photos).toEqual([])
  })
  it('is refused once the visit is stopped', () => {
    const job = begun().must('stopped', { reason: 'Flooded' })
    const late = { item: 'Flat blade', state: 'ready' } as const
    expect(job.write('prepared', late).refused?.why).toMatch(/stopped/)
  })
})
