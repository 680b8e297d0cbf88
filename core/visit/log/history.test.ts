import { describe, expect, it } from 'vitest'
import { Job } from '../../testing/job'
import { randomNumbers } from '../../testing/random'
import {
  draftOf,
  type EventKind,
  eventKinds,
  foldVisit,
  gaugeAsInstrument,
  type PayloadOf,
  traitsOf,
  type VisitEvent,
  type VisitState,
} from '..'

const uuid = (n: number) => `018f0000-0000-7000-8000-${String(n).padStart(12, '0')}`
const minute = (n: number) => new Date(Date.UTC(2026, 5, 1, 8, n)).toISOString()

const rp = new Job({
  family: 'reduced-pressure-assembly',
  kind: 'RP',
  packId: 'larkhaven-relief-first',
})
const plan = rp.log.events[0] as VisitEvent<'planned'>
const instrument = gaugeAsInstrument({
  id: uuid(900_777) as never,
  tag: 'G-1',
  serial: 'S-1',
  accuracyPercent: 0.25,
  accuracyOf: 'span',
  span: 15,
  spanUnit: 'psi',
  calibratedOn: '2026-01-01',
  calibrationUntil: '2026-12-31',
  calibrationCertificate: 'CAL-1',
})
const licence = { kind: 'backflow-tester', number: 'BT-1', expiresOn: '2030-01-01' }
const psi = (value: string) => ({ dimension: 'differential', value, unit: 'psi' }) as const
const uuidOf = (n: number) => uuid(n) as never

/** Entries of every kind that take each other's place: the same zone, lock, item, run, number. */
const samples: {
  readonly [K in Exclude<EventKind, 'planned' | 'correction' | 'undone'>]: readonly PayloadOf<K>[]
} = {
  pinned: [{ pins: {} }],
  replanned: [{ plannedOn: '2026-06-03', technicianId: uuidOf(8), technician: 'Teo' }],
  'replan-asked': [{ why: 'Key missing' }],
  note: [{ station: 'arrive', text: 'Gate' }],
  identity: [{ outcome: 'confirmed' }],
  repair: [{ text: 'Cleaned', parts: [] }],
  'station-done': [
    { station: 'prepare' },
    { station: 'as-found' },
    { station: 'as-found', skipTo: 'return' },
  ],
  reopened: [{ reason: 'Seat nicked' }],
  'valve-moved': [
    { element: 'shutoff-1', to: 'shut' },
    { element: 'shutoff-1', to: 'open' },
  ],
  'hose-moved': [{ hose: 'high', port: 'cock-2' }, { hose: 'high' }],
  applied: [{ source: 'signal', to: { dimension: 'current', value: '4.00', unit: 'mA' } }],
  adjusted: [{ adjuster: 'spring', way: 'in', turns: '1' }],
  checked: [
    { run: 'as-found', outcome: 'works-not', text: 'Drips' },
    { run: 'as-left', outcome: 'works', text: 'Dry' },
  ],
  photo: [{ photoId: uuidOf(5), station: 'arrive', caption: 'Plate' }],
  result: [{ computation: 'torque-setting', title: 'Torque', says: '20 N·m' }],
  'as-found-impossible': [{ reason: 'Flooded' }],
  'test-started': (['as-found', 'as-left'] as const).map((run) => ({
    run,
    procedureId: 'rp-relief-first',
    procedureVersion: 1,
    licence,
    instruments: [instrument],
  })),
  'step-done': [{ run: 'as-found', step: 'flush' }],
  reading: (['as-found', 'as-left'] as const).flatMap((run) =>
    ['1.0', '7.2'].map((value) => ({
      run,
      item: 'check-1',
      ...psi(value),
      source: 'typed' as const,
    })),
  ),
  answer: (['as-found', 'as-left'] as const).map((run) => ({
    run,
    item: 'shutoff-2',
    answer: 'tight',
    label: 'Tight',
  })),
  'test-finished': [{ run: 'as-found' }, { run: 'as-left' }],
  'guide-chosen': [{ guideId: 'rp-relief', version: 1, variant: 'usual' }],
  'guide-value': [{ slot: 'hold', value: '10', source: 'Sheet' }],
  'guide-step': [
    { step: '1', at: 'open-up' },
    { step: '2', at: 'rebuild' },
  ],
  'guide-round': [{ step: '2', moved: true }],
  'guide-timer': [{ step: '2' }],
  'guide-redo': [{ from: '1', reason: 'Lump' }],
  'zone-proved': [{ zone: 'zone', reading: psi('0.0'), heldMinutes: 2, by: 'Teo Brack' }],
  lock: [
    { element: 'shutoff-1', number: 'L-1', on: true },
    { element: 'shutoff-1', number: 'L-1', on: false },
  ],
  prepared: [{ item: 'Wrench', state: 'ready' }],
  'kit-taken': [
    { number: 'B-1', how: 'typed', items: [] },
    { number: 'B-2', job: 'seat', how: 'typed', items: [] },
  ] as never,
  'kit-closed': [{ items: [] }] as never,
  'correction-asked': [{ of: uuidOf(1), why: 'Slip' }],
  'times-attested': [
    { what: 'clock', why: 'Battery' },
    { what: 'validity', why: 'On site that day' },
  ],
  stopped: [{ reason: 'Storm' }],
  signed: [{ signature: 'M0 0', name: 'Odda', outcome: 'pass' }],
  'certificate-issued': [{ certificateId: uuidOf(6), number: 'LH-1' }],
  'certificate-voided': [{ certificateId: uuidOf(6), number: 'LH-1', reason: 'Wrong tag' }],
}

/** The entries that a state still has: by their event, or as withdrawn. */
function onRecord(state: VisitState): Set<string> {
  const found = new Set<string>(Object.keys(state.corrections))
  const walk = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return
    const { eventId } = value as { eventId?: unknown }
    if (typeof eventId === 'string') found.add(eventId)
    Object.values(value).forEach(walk)
  }
  walk(state)
  return found
}

class Random {
  readonly events: VisitEvent[] = [plan]
  private readonly next: () => number
  constructor(seed: number) {
    this.next = randomNumbers(seed)
  }
  pick<T>(of: readonly T[]): T {
    return of[Math.floor(this.next() * of.length)] as T
  }
  add(kind: EventKind): void {
    const n = this.events.length
    const about = { id: uuid(n + 10) as never, deviceTime: minute(n), deviceOffset: 0 }
    const draft = draftOf(kind, this.payload(kind) as never, about)
    this.events.push({ ...draft, personId: 'p', personName: 'Odda Marrin' } as VisitEvent)
  }
  private payload(kind: EventKind): unknown {
    const others = this.events.slice(1)
    // Only what the guards let be corrected or undone.
    const corrected = others.filter((e) => traitsOf(e.kind).corrected !== 'never')
    if (kind === 'correction')
      return {
        of: corrected.length > 0 ? this.pick(corrected).id : uuid(1),
        why: 'Slip',
        withdraw: this.next() < 0.5,
      }
    const last = this.events.at(-1)
    if (kind === 'undone') return { of: [last && traitsOf(last.kind).undone ? last.id : uuid(1)] }
    return this.pick(samples[kind as keyof typeof samples] as readonly unknown[])
  }
}

describe('nothing on record is ever replaced', () => {
  const kinds = eventKinds.filter((k) => k !== 'planned')
  it.each(Array.from({ length: 60 }, (_, n) => n + 1))(
    'whatever kind follows whatever kind (seed %i)',
    (seed) => {
      const log = new Random(seed)
      let before = onRecord(foldVisit(log.events))
      for (let n = 0; n < 80; n++) {
        const kind = log.pick(kinds)
        log.add(kind)
        const after = onRecord(foldVisit(log.events))
        expect(
          [...before].filter((id) => !after.has(id)),
          `lost by ${kind}, entry ${n}`,
        ).toEqual([])
        before = after
      }
    },
  )
  it('keeps a test that an older log started a second time, with its readings', () => {
    const log = new Random(1)
    const write = <K extends EventKind>(kind: K, payload: PayloadOf<K>) => {
      const about = { id: uuid(log.events.length + 10), deviceTime: minute(1), deviceOffset: 0 }
      log.events.push({
        ...draftOf(kind, payload, about),
        personId: 'p',
        personName: 'Odda',
      } as never)
    }
    write('test-started', samples['test-started'][0]!)
    write('reading', samples.reading[0]!)
    write('test-finished', { run: 'as-found' })
    write('test-started', samples['test-started'][0]!)
    const state = foldVisit(log.events)
    expect(state.earlierRuns).toMatchObject([
      { name: 'as-found', finished: true, readings: [{ value: '1.0' }] },
    ])
    expect(state.runs['as-found']?.readings).toEqual([])
  })
  it('keeps who recorded a proof beside who read the gauge', () => {
    const log = new Random(1)
    log.add('zone-proved')
    expect(foldVisit(log.events).proofs).toMatchObject([
      { by: 'Teo Brack', recordedBy: 'Odda Marrin' },
    ])
  })
})
