import { describe, expect, it } from 'vitest'
import { foldVisit } from '../log/fold'
import type { VisitEvent } from '../log/events'
import { emptyVisit, type VisitState } from '../log/state'
import { guardAttested, timesRefusal, timesToAttest } from './times'

const doubted = (more: Partial<VisitState> = {}): VisitState => ({ ...emptyVisit, ...more })
const RIGHT = { deviceTime: '2026-12-01T20:00:00.000Z', serverTime: '2026-12-01T20:00:00.000Z' }
const expired = { of: '1', doubt: 'expired-on-arrival' as const }
const marked = { of: '2', doubt: 'clock-off' as const }
const attestation = (what: 'clock' | 'validity', roles: string[], state: VisitState) =>
  guardAttested(state, { payload: { what, why: 'x' } } as VisitEvent<'times-attested'>, {
    library: {} as never,
    person: { roles, licences: [] },
  })?.code ?? null

describe('what keeps a visit from being signed', () => {
  it('is a clock that is far off, before what has expired', () => {
    const state = doubted({ clockFarOff: 'p', clockDoubts: [expired] })
    expect(timesToAttest(state)).toEqual(['clock', 'validity'])
    expect(timesRefusal(state, RIGHT)?.code).toBe('clock-far-off')
  })
  it('is what has expired since the last release', () => {
    const state = doubted({ clockDoubts: [expired, marked] })
    expect(timesRefusal(state, RIGHT)?.code).toBe('times-to-release')
    const covered = (covers: number) =>
      doubted({
        clockDoubts: [expired, marked],
        attested: { validity: { covers } as NonNullable<VisitState['attested']['validity']> },
      })
    expect(timesRefusal(covered(1), RIGHT)).toBeNull()
    expect(timesRefusal(covered(0), RIGHT)?.code).toBe('times-to-release')
  })
  it('is a signature whose own clock is far off', () => {
    expect(timesRefusal(doubted(), { ...RIGHT, clockAheadS: 50_000 })?.code).toBe('clock-far-off')
    const tomorrow = { ...RIGHT, deviceTime: '2026-12-02T20:00:00.000Z' }
    expect(timesRefusal(doubted(), tomorrow)?.code).toBe('clock-far-off')
  })
  it('is no mark alone', () => {
    expect(timesToAttest(doubted({ clockDoubts: [marked] }))).toEqual([])
    expect(timesRefusal(doubted(), RIGHT)).toBeNull()
  })
})

describe('who answers for times', () => {
  const both = doubted({ clockFarOff: 'p', clockDoubts: [expired] })
  it.each([
    ['clock', ['administrator'], null],
    ['clock', ['reviewer', 'technician'], 'attests-not'],
    ['validity', ['reviewer'], null],
    ['validity', ['administrator'], 'attests-not'],
  ] as const)('%s: %s', (what, roles, code) => {
    expect(attestation(what, [...roles], both)).toBe(code)
  })
  it('answers for nothing that nobody asks about', () => {
    expect(attestation('clock', ['administrator'], doubted({ clockDoubts: [expired] }))).toBe(
      'nothing-to-attest',
    )
    expect(attestation('validity', ['reviewer'], doubted({ clockFarOff: 'p' }))).toBe(
      'nothing-to-attest',
    )
  })
})

describe('a clock that was far off', () => {
  const entry = (n: number, personId: string, deviceTime: string, kind = 'note'): VisitEvent =>
    ({
      id: `${n}`,
      kind,
      payload: kind === 'note' ? { station: 'arrive', text: 'x' } : { what: 'clock', why: 'Seen' },
      deviceTime,
      deviceOffset: 0,
      personId,
      personName: personId,
      seq: n,
      serverTime: '2026-12-01T20:00:00.000Z',
    }) as VisitEvent
  const off = entry(1, 'odda', '2026-12-03T20:00:00.000Z')
  const right = (who: string) => entry(2, who, '2026-12-01T20:00:00.000Z')
  it('is right again once the same person writes with a right one, and nobody else', () => {
    expect(foldVisit([off]).clockFarOff).toBe('odda')
    expect(foldVisit([off, right('sula')]).clockFarOff).toBe('odda')
    expect(foldVisit([off, right('odda')]).clockFarOff).toBeNull()
  })
  it('is answered for by an attestation, which covers the doubts of then', () => {
    const state = foldVisit([off, entry(2, 'petra', '2026-12-01T20:00:00.000Z', 'times-attested')])
    expect(state.clockFarOff).toBeNull()
    expect(state.attested.clock).toMatchObject({ covers: 1, recordedBy: 'petra', why: 'Seen' })
  })
  it('is not made right by a release of what has expired', () => {
    const released = entry(2, 'ivo', '2026-12-01T20:00:00.000Z', 'times-attested')
    const validity = { ...released, payload: { what: 'validity', why: 'Seen' } } as VisitEvent
    const state = foldVisit([off, validity])
    expect(state.clockFarOff).toBe('odda')
    expect(Object.keys(state.attested)).toEqual(['validity'])
  })
  it('of what is not sent yet says nothing', () => {
    const { serverTime: _, ...waiting } = off
    expect(foldVisit([waiting as VisitEvent]).clockFarOff).toBeNull()
  })
})
