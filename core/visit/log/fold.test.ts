import { describe, expect, it } from 'vitest'
import { InvalidInput } from '../../schema'
import { Job } from '../../testing/job'
import {
  appended,
  checkDraft,
  draftOf,
  emptyLog,
  type EventKind,
  foldVisit,
  type PayloadOf,
  traitsOf,
  upcast,
  type VisitEvent,
} from '..'
import { kinds } from './events'

const uuid = (n: number) => `018f0000-0000-7000-8000-${String(n).padStart(12, '0')}`
const PLANNED_AT = '2026-06-01T08:00:00.000Z'

/** A log written event by event, with no guard between: what the fold makes of each. */
class Written {
  readonly events: VisitEvent[] = []
  add<K extends EventKind>(kind: K, payload: PayloadOf<K>, at = PLANNED_AT): this {
    const about = { id: uuid(this.events.length + 1), deviceTime: at, deviceOffset: 0 }
    this.events.push({ ...draftOf(kind, payload, about), personId: 'p', personName: 'Teo' })
    return this
  }
  get state() {
    return foldVisit(this.events)
  }
  id = (n: number) => this.events.at(n)?.id ?? ''
}

const plan = new Job({
  family: 'reduced-pressure-assembly',
  kind: 'RP',
  packId: 'larkhaven-relief-first',
})
const started = plan
  .must('station-done', { station: 'prepare' })
  .must('identity', { outcome: 'confirmed' })
  .must('station-done', { station: 'arrive' })
  .startTest('as-found')
  .events.at(-1) as VisitEvent<'test-started'>

const reading = (item: string, value: string): PayloadOf<'reading'> => ({
  run: 'as-found',
  item,
  dimension: 'differential',
  value,
  unit: 'psi',
  source: 'typed',
})
const begun = () => new Written().add('test-started', started.payload)
const run = (log: Written) => log.state.runs['as-found']

describe('a log carried on from entry to entry', () => {
  it('has at every length the state that the whole folds to, corrections and withdrawals with it', () => {
    const log = new Written()
      .add('planned', plan.events[0]!.payload as PayloadOf<'planned'>)
      .add('test-started', started.payload)
      .add('reading', reading('check-1', '7.2'))
      .add('reading', reading('check-2', '1.4'))
    log
      .add('correction', {
        of: log.id(2),
        why: 'No point',
        withdraw: false,
        payload: reading('check-1', '5.2'),
      })
      .add('note', { station: 'as-found', text: 'Pit was dry' })
      .add('correction', { of: log.id(3), why: 'Other gauge', withdraw: true })
      .add('test-finished', { run: 'as-found' })
    let carried = emptyLog
    for (const [n, event] of log.events.entries()) {
      carried = appended(carried, [event])
      expect(carried.state).toEqual(foldVisit(log.events.slice(0, n + 1)))
    }
    expect(carried.state.runs['as-found']?.readings.map((r) => r.value)).toEqual(['5.2'])
    expect(carried.state.count).toBe(log.events.length)
  })
  it('says whether somebody has begun the visit: a plan and newer rules are no beginning', () => {
    const log = new Written().add('planned', plan.events[0]!.payload as PayloadOf<'planned'>)
    log.add('pinned', { pins: {} })
    expect(log.state.begun).toBe(false)
    expect(log.add('note', { station: 'prepare', text: 'Key at the gate' }).state.begun).toBe(true)
  })
})

describe('a visit that is planned otherwise', () => {
  const otherwise = {
    plannedOn: '2026-06-09',
    technicianId: uuid(900) as never,
    technician: 'Odda',
  }
  const time = { time: '09:30' as never }
  it('has its new day and time, and what was asked of the office is answered', () => {
    const log = new Written()
      .add('planned', plan.events[0]?.payload as PayloadOf<'planned'>)
      .add('replan-asked', { why: 'Customer away' })
    expect(log.state.replanAsked?.why).toBe('Customer away')
    log.add('replanned', { ...otherwise, ...time })
    expect(log.state.plan).toMatchObject({ plannedOn: '2026-06-09', time: '09:30' })
    expect(log.state.replanAsked).toBeUndefined()
    // Without a time it has none, whatever it had before.
    log.add('replanned', otherwise)
    expect(log.state.plan).not.toHaveProperty('time')
  })
  it('was planned before', () => {
    expect(new Written().add('replanned', otherwise).state.plan).toEqual(emptyLog.state.plan)
  })
})

describe('a field test', () => {
  it('begins empty, with the hands of before forgotten', () => {
    const log = new Written().add('valve-moved', { element: 'cock-2', to: 'open' })
    expect(log.state.handsSinceStep).toEqual([{ element: 'cock-2', to: 'open' }])
    log.add('test-started', started.payload)
    expect(log.state.handsSinceStep).toEqual([])
    expect(run(log)).toMatchObject({
      stepsDone: [],
      readings: [],
      answers: [],
      order: [],
      finished: false,
    })
  })
  it('takes a step up where the hands left it, and forgets them when it is done', () => {
    const log = begun().add('hose-moved', { hose: 'high', port: 'cock-2' })
    expect(log.state.handsSinceStep).toEqual([{ hose: 'high', port: 'cock-2' }])
    log.add('step-done', { run: 'as-found', step: 'hoses' })
    expect(log.state.handsSinceStep).toEqual([])
    log.add('step-done', { run: 'as-found', step: 'hoses' })
    log.add('step-done', { run: 'as-found', step: 'bleed' })
    expect(run(log)?.stepsDone).toEqual(['hoses', 'bleed'])
  })
  it('has the order of the entries that stand: what is taken again goes to the end', () => {
    const log = begun()
      .add('reading', reading('check-1', '7.2'))
      .add('reading', reading('check-2', '1.4'))
      .add('reading', reading('check-1', '7.0'))
    expect(run(log)?.order).toEqual(['check-2', 'check-1'])
    expect(run(log)?.readings).toHaveLength(3)
  })
})

describe('what was proved at zero', () => {
  const proved = (log: Written, zone: string) =>
    log.add('zone-proved', {
      zone,
      reading: { dimension: 'gaugePressure', value: '0', unit: 'psi' },
      heldMinutes: 2,
      by: 'Teo',
    })
  it('is the newest proof of each zone', () => {
    const log = proved(proved(proved(new Written(), 'inlet'), 'outlet'), 'inlet')
    expect(log.state.proofs.map((p) => [p.zone, p.eventId])).toEqual([
      ['outlet', log.id(1)],
      ['inlet', log.id(2)],
    ])
  })
  it('lapses when what was shut is opened, and by nothing else', () => {
    const log = new Written().add('valve-moved', { element: 'shutoff-1', to: 'shut' })
    proved(log, 'body').add('valve-moved', { element: 'shutoff-1', to: 'shut' })
    log.add('valve-moved', { element: 'cock-2', to: 'open' })
    expect(log.state.proofs).toHaveLength(1)
    log.add('valve-moved', { element: 'shutoff-1', to: 'crack' })
    expect(log.state.proofs).toEqual([])
  })
})

describe('work taken up again', () => {
  const step = (log: Written, id: string) => log.add('guide-step', { step: id, at: 'rebuild' })
  const work = () => {
    const log = step(step(new Written(), '3'), '4')
    log.add('guide-round', { step: '3', moved: false }).add('guide-timer', { step: '3' })
    return log.add('guide-round', { step: '4', moved: true }).add('guide-timer', { step: '4' })
  }
  it('from a step on loses the step, its rounds and its clock, and nothing before', () => {
    const { state } = work().add('guide-redo', { from: '4', reason: 'It leaks' })
    expect(state.guideSteps.map((s) => s.step)).toEqual(['3'])
    expect(state.guideRounds.map((r) => r.step)).toEqual(['3'])
    expect(state.guideTimers.map((t) => t.step)).toEqual(['3'])
  })
  it('from the first step on loses all of it', () => {
    const { state } = work().add('guide-redo', { from: '3', reason: 'It leaks' })
    expect([state.guideSteps, state.guideRounds, state.guideTimers]).toEqual([[], [], []])
  })
  it('from a step that was never done changes nothing', () => {
    const before = work()
    const kept = before.state.guideSteps
    expect(before.add('guide-redo', { from: '9', reason: 'x' }).state.guideSteps).toEqual(kept)
  })
  it('after a failed as-left test keeps what was prepared, and makes safe again where it was returned', () => {
    const log = new Written()
      .add('guide-step', { step: '1', at: 'prepare' })
      .add('guide-step', { step: '2', at: 'make-safe' })
    for (const station of ['prepare', 'arrive'] as const) log.add('station-done', { station })
    log.add('station-done', { station: 'as-found', skipTo: 'return' })
    const { state } = log.add('reopened', { reason: 'Fails as left' })
    expect(state.done).toEqual(['prepare', 'arrive', 'as-found'])
    expect(state.skipped).toEqual([])
    expect(state.guideSteps.map((s) => s.step)).toEqual(['1'])
  })
  it('keeps Make safe done where the equipment was never brought back', () => {
    const log = new Written()
    for (const station of ['as-found', 'make-safe', 'open-up', 'rebuild', 'return'] as const)
      log.add('station-done', { station })
    expect(log.add('reopened', { reason: 'Fails' }).state.done).toEqual(['as-found', 'make-safe'])
  })
})

describe('after the signature', () => {
  const issued = { certificateId: uuid(900), number: 'LH-2026-000001' }
  it('a certificate stands, and a correction behind it says that it no longer fits', () => {
    const log = begun().add('reading', reading('check-1', '7.2')).add('certificate-issued', issued)
    expect(log.state.certificate?.number).toBe('LH-2026-000001')
    expect(log.state.correctedSinceCertificate).toBe(false)
    log.add('correction', { of: log.id(1), why: 'Other gauge', withdraw: true })
    expect(log.state.correctedSinceCertificate).toBe(true)
    log.add('certificate-issued', { ...issued, number: 'LH-2026-000002' })
    expect(log.state.correctedSinceCertificate).toBe(false)
  })
  it('a correction before any certificate makes none doubtful', () => {
    const log = begun().add('reading', reading('check-1', '7.2'))
    log.add('correction', { of: log.id(1), why: 'x', withdraw: true })
    expect(log.state.correctedSinceCertificate).toBe(false)
  })
  it('certificates that are void are known by their number', () => {
    const log = new Written()
      .add('certificate-voided', { ...issued, reason: 'Wrong serial' })
      .add('certificate-voided', { ...issued, number: 'LH-2026-000002', reason: 'Again' })
    expect(Object.keys(log.state.voided)).toEqual(['LH-2026-000001', 'LH-2026-000002'])
  })
  it('a correction that was asked for is asked for until it is made', () => {
    const log = begun().add('reading', reading('check-1', '7.2')).add('note', {
      station: 'as-found',
      text: 'x',
    })
    log.add('correction-asked', { of: log.id(1), why: 'Is it 5.2?' })
    log.add('correction-asked', { of: log.id(2), why: 'Whose note?' })
    log.add('correction', { of: log.id(2), why: 'x', withdraw: true })
    expect(log.state.asked.map((a) => a.why)).toEqual(['Is it 5.2?'])
    // What was answered is kept, and what was not is not put away with it.
    expect(log.state.replaced.map((r) => (r as { why?: string }).why)).toEqual(['Whose note?'])
  })
})

describe('the clock of a device', () => {
  const doubtsOf = (deviceTime: string, arrived: string) => {
    const log = new Written()
      .add('planned', plan.events[0]!.payload as PayloadOf<'planned'>)
      .add('note', { station: 'prepare', text: 'x' }, deviceTime)
    const events = log.events.map((e, n) => ({
      ...e,
      serverTime: n === 0 ? PLANNED_AT : arrived,
    }))
    return foldVisit(events).clockDoubts.map((d) => d.doubt)
  }
  it.each([
    ['2026-06-01T07:00:00.000Z', '2026-06-01T08:00:00.000Z', []],
    ['2026-06-01T06:59:59.000Z', '2026-06-01T08:00:00.000Z', ['before-planned']],
    ['2026-06-01T09:00:00.000Z', '2026-06-03T09:00:00.000Z', []],
    ['2026-06-01T09:00:00.000Z', '2026-06-03T09:00:01.000Z', ['far-from-arrival']],
  ])('%s, arrived %s: %j', (device, arrived, doubts) => {
    expect(doubtsOf(device, arrived)).toEqual(doubts)
  })
  it('is not doubted for the plan, which the office may make long before', () => {
    const log = new Written().add('planned', plan.events[0]!.payload as PayloadOf<'planned'>)
    const [event] = log.events
    const events = [{ ...event!, serverTime: '2026-07-01T08:00:00.000Z' }]
    expect(foldVisit(events).clockDoubts).toEqual([])
  })
})

describe('an entry of an earlier form', () => {
  it('is read in the newest one, step by step', () => {
    const note = new Written().add('note', { station: 'prepare', text: 'Key' }).events[0]!
    expect(upcast(note)).toBe(note)
  })
  it('of a form that is not known yet is refused', () => {
    const [note] = new Written().add('note', { station: 'prepare', text: 'Key' }).events
    expect(() => upcast({ ...note!, version: 7 })).toThrow(/newer than this version/)
  })
  const old = () => {
    const { instruments, ...test } = started.payload
    const [{ channels, ...gauge }] = instruments as [(typeof instruments)[number]]
    const { span, unit, accuracyPercent, accuracyOf } = channels[0]!
    const payload = {
      ...test,
      gauge: { ...gauge, span, spanUnit: unit, accuracyPercent, accuracyOf },
    }
    const { version: _, ...event } = started
    return { ...event, payload } as unknown as VisitEvent
  }
  it('as a test with the one gauge that there was: it folds to the state of today', () => {
    expect(foldVisit([old()])).toEqual(foldVisit([started]))
    expect(upcast(old())).toEqual(started)
  })
  it('is checked in that form before it is brought to the newest: a device that lies breaks nothing', () => {
    expect(checkDraft(old())).toEqual(started)
    expect(() => checkDraft({ ...old(), payload: {} } as VisitEvent)).toThrow(
      expect.objectContaining({
        faults: expect.arrayContaining([expect.objectContaining({ path: 'gauge' })]),
      }),
    )
    expect(() => checkDraft({ ...old(), payload: { gauge: 7 } } as unknown as VisitEvent)).toThrow(
      InvalidInput,
    )
    expect(() => checkDraft({ ...started, version: 9 })).toThrow(/“version” is not known/)
    expect(checkDraft(started)).toEqual(started)
  })
  it('can be brought to the newest form for every kind that has had more than one', () => {
    for (const kind of Object.keys(kinds) as EventKind[]) {
      const { version, earlier } = traitsOf(kind)
      const forms = Array.from({ length: version - 1 }, (_, n) => String(n + 1))
      expect(Object.keys(earlier), kind).toEqual(forms)
    }
  })
})

describe('everything on record', () => {
  it('is found in the state: notes, photographs, results', () => {
    const { state } = new Written()
      .add('note', { station: 'prepare', text: 'Key at the gate' })
      .add('photo', { photoId: uuid(5), station: 'arrive', caption: 'Plate' })
      .add('result', { computation: 'torque-setting', title: 'Torque', says: '20 N·m' })
      .add('stopped', { reason: 'Flooded' })
    expect(state.notes.map((n) => n.text)).toEqual(['Key at the gate'])
    expect(state.photos.map((p) => p.caption)).toEqual(['Plate'])
    expect(state.results.map((r) => r.says)).toEqual(['20 N·m'])
    expect(state.stopped).toMatchObject({ reason: 'Flooded', recordedBy: 'Teo' })
  })
})
