import { describe, expect, it } from 'vitest'
import { shippedLibrary } from '../testing/library'
import {
  canonicalJson,
  chainInput,
  currentStation,
  type EventDraft,
  type EventKind,
  finalRun,
  foldVisit,
  guard,
  type PayloadOf,
  type Refusal,
  standingAfter,
  stationRefusal,
  verdictOf,
  type VisitEvent,
} from '.'

const equipment = {
  id: '018f0000-0000-7000-9000-000000000001',
  tag: 'RP-101',
  family: 'reduced-pressure-assembly',
  kind: 'RP',
  sizeIn: '2',
  serial: 'L10001',
  maker: 'Maker A',
  service: 'water',
  position: 'Plant room',
  site: 'Seagate Public Bath',
  address: '1 Seagate',
  customer: 'Larkhaven Leisure',
}
const licence = { kind: 'backflow-tester', number: 'BT-1', expiresOn: '2027-01-01' }
const gauge = {
  id: '018f0000-0000-7000-9000-000000000002',
  tag: 'G-01',
  serial: 'DG-1',
  accuracyPercent: 0.25,
  accuracyOf: 'span' as const,
  span: 15,
  spanUnit: 'psi',
  calibratedOn: '2026-01-01',
  calibrationUntil: '2026-12-31',
  calibrationCertificate: 'CAL-1',
}
const context = { library: shippedLibrary, person: { roles: ['technician'], licences: [licence] } }

/** A log that is written the way a person writes it: through the guard, refusals collected. */
class Log {
  events: VisitEvent[] = []
  refused: Refusal | null = null
  private minute = 0

  constructor() {
    const payload = {
      purpose: 'periodic-test',
      plannedOn: '2026-06-01',
      packId: 'larkhaven-relief-first',
      packVersion: 1,
      equipment,
    }
    this.events.push({
      ...this.draft('planned', payload as PayloadOf<'planned'>),
      personId: 'p',
      personName: 'P',
    })
  }
  draft<K extends EventKind>(kind: K, payload: PayloadOf<K>): EventDraft<K> {
    const n = this.minute++
    const id = `018f0000-0000-7000-8000-${String(n).padStart(12, '0')}`
    const deviceTime = `2026-06-01T${String(8 + Math.floor(n / 60)).padStart(2, '0')}:${String(n % 60).padStart(2, '0')}:00.000Z`
    return { id, kind, payload, deviceTime, deviceOffset: 0 }
  }
  write<K extends EventKind>(kind: K, payload: PayloadOf<K>, who: typeof context = context): this {
    const draft = this.draft(kind, payload)
    this.refused = guard(this.events, draft, who)
    if (!this.refused) this.events.push({ ...draft, personId: 'p', personName: 'P' })
    return this
  }
  get state() {
    return foldVisit(this.events)
  }
  arrived() {
    return this.write('station-done', { station: 'prepare' })
      .write('identity', { outcome: 'confirmed' })
      .write('station-done', { station: 'arrive' })
  }
  started(run: 'as-found' | 'as-left', g = gauge) {
    return this.write('test-started', {
      run,
      procedureId: 'rp-relief-first',
      procedureVersion: 1,
      gauge: g,
      licence,
    })
  }
  tested(run: 'as-found' | 'as-left', check1: string) {
    this.started(run)
    const reading = (item: string, value: string) =>
      this.write('reading', {
        run,
        item,
        dimension: 'differential',
        value,
        unit: 'psi',
        source: 'typed',
      })
    this.write('answer', { run, item: 'shutoff-2', answer: 'tight', label: 'Tight' })
    reading('relief-opening', '2.3')
    this.write('answer', { run, item: 'relief-at-rest', answer: 'dry', label: 'Dry' })
    this.write('answer', { run, item: 'check-2', answer: 'held', label: 'Held' })
    reading('check-1', check1)
    return this.write('test-finished', { run })
  }
  repaired(temporary?: { until: string; permittedBy: string }) {
    for (const station of ['as-found', 'make-safe', 'open-up'] as const)
      this.write('station-done', { station })
    this.write('repair', { text: 'Disc wiped', parts: [], ...(temporary ? { temporary } : {}) })
    return this.write('station-done', { station: 'rebuild' }).write('station-done', {
      station: 'return',
    })
  }
  signed(outcome: PayloadOf<'signed'>['outcome']) {
    return this.write('signed', { signature: 'M 0 0 L 1 1', name: 'P', outcome })
  }
}

describe('the order of the stations', () => {
  it('begins with Prepare and refuses to jump, saying where to go', () => {
    const log = new Log()
    expect(currentStation(log.state)).toBe('prepare')
    expect(stationRefusal(log.state, 'make-safe')).toMatchObject({ station: 'prepare' })
    log.write('station-done', { station: 'as-found' })
    expect(log.refused?.todo).toMatch(/Prepare/)
  })
  it('does not leave As-found without readings or a reason', () => {
    const log = new Log().arrived().write('station-done', { station: 'as-found' })
    expect(log.refused?.why).toMatch(/evidence is gone/)
    log
      .write('as-found-impossible', { reason: 'Shut off since the flood' })
      .write('station-done', { station: 'as-found' })
    expect(log.refused).toBeNull()
    expect(currentStation(log.state)).toBe('make-safe')
  })
  it('goes straight to Return after a pass, and only then', () => {
    const passed = new Log()
      .arrived()
      .tested('as-found', '7.2')
      .write('station-done', { station: 'as-found', skipTo: 'return' })
    expect(currentStation(passed.state)).toBe('return')
    const failed = new Log()
      .arrived()
      .tested('as-found', '3.1')
      .write('station-done', { station: 'as-found', skipTo: 'return' })
    expect(failed.refused?.station).toBe('make-safe')
  })
  it('takes a failed as-left test back to Open up and keeps the failed run', () => {
    const log = new Log().arrived().tested('as-found', '3.1').repaired().tested('as-left', '4.0')
    log.write('reopened', { reason: 'Seat nicked' })
    expect(log.refused).toBeNull()
    expect(currentStation(log.state)).toBe('open-up')
    expect(log.state.runs['as-left']).toBeUndefined()
    expect(log.state.earlierAsLeft).toHaveLength(1)
  })
})

describe('before a test', () => {
  it('refuses a gauge out of calibration on the day', () => {
    const log = new Log()
      .arrived()
      .started('as-found', { ...gauge, calibrationUntil: '2026-05-31' })
    expect(log.refused?.why).toMatch(/G-01 is not in calibration on 2026-06-01/)
  })
  it('refuses an expired licence, and one that is not held', () => {
    const expired = {
      ...context,
      person: { ...context.person, licences: [{ ...licence, expiresOn: '2026-05-31' }] },
    }
    const log = new Log().arrived()
    const start = {
      run: 'as-found' as const,
      procedureId: 'rp-relief-first',
      procedureVersion: 1,
      gauge,
      licence,
    }
    expect(log.write('test-started', start, expired).refused?.why).toMatch(/expired on 2026-05-31/)
    const none = { ...context, person: { ...context.person, licences: [] } }
    expect(log.write('test-started', start, none).refused?.why).toMatch(/not one of yours/)
  })
  it('refuses another procedure than the rule pack asks for', () => {
    const log = new Log().arrived()
    log.write('test-started', {
      run: 'as-found',
      procedureId: 'another',
      procedureVersion: 1,
      gauge,
      licence,
    })
    expect(log.refused?.todo).toMatch(/Start the test again/)
  })
})

describe('during a test', () => {
  it('refuses what the procedure does not record and units of another dimension', () => {
    const log = new Log().arrived().started('as-found')
    log.write('reading', {
      run: 'as-found',
      item: 'torque',
      dimension: 'torque',
      value: '5',
      unit: 'N·m',
      source: 'typed',
    })
    expect(log.refused?.why).toMatch(/does not record/)
    log.write('reading', {
      run: 'as-found',
      item: 'check-1',
      dimension: 'gaugePressure',
      value: '5',
      unit: 'psi',
      source: 'typed',
    })
    expect(log.refused?.why).toMatch(/Check 1 differential is a differential/)
  })
  it('does not finish while something is missing, and names it', () => {
    const log = new Log().arrived().started('as-found').write('test-finished', { run: 'as-found' })
    expect(log.refused?.why).toMatch(/Relief valve opening/)
  })
})

describe('corrections', () => {
  const mistyped = () => new Log().arrived().tested('as-found', '72')
  const readingOf = (log: Log) =>
    log.events.find(
      (e) => e.kind === 'reading' && 'item' in e.payload && e.payload.item === 'check-1',
    )!

  it('count in place of what they correct, and the original stays in the log', () => {
    const log = mistyped()
    const original = readingOf(log)
    const before = verdictOf(log.state, 'as-found', shippedLibrary)
    log.write('correction', {
      of: original.id,
      why: 'No point',
      withdraw: false,
      payload: { ...original.payload, value: '3.1' },
    })
    expect(before?.outcome).toBe('pass')
    expect(verdictOf(log.state, 'as-found', shippedLibrary)?.outcome).toBe('fail')
    expect(log.events).toContain(original)
    expect(log.state.corrections[original.id]?.why).toBe('No point')
  })
  it('can withdraw an entry, which is then missing', () => {
    const log = mistyped()
    log.write('correction', { of: readingOf(log).id, why: 'Wrong gauge', withdraw: true })
    expect(verdictOf(log.state, 'as-found', shippedLibrary)?.outcome).toBe('not-assessed')
  })
  it('refuse another visit’s entry, a kind that cannot change, and content that does not fit', () => {
    const log = mistyped()
    log.write('correction', {
      of: '018f0000-0000-7000-8000-999999999999',
      why: 'x',
      withdraw: true,
    })
    expect(log.refused?.why).toMatch(/not in this visit/)
    log.write('correction', { of: log.events[0]!.id, why: 'x', withdraw: true })
    expect(log.refused?.why).toMatch(/cannot be corrected/)
    const r = readingOf(log)
    log.write('correction', {
      of: r.id,
      why: 'x',
      withdraw: false,
      payload: { ...r.payload, value: 'lots' },
    })
    expect(log.refused?.why).toMatch(/does not fit/)
  })
})

describe('signing', () => {
  it('needs an as-left test once something was opened', () => {
    const log = new Log().arrived().tested('as-found', '3.1').repaired().signed('pass')
    expect(log.refused?.why).toMatch(/as-left test is missing/)
    log.tested('as-left', '7.0').signed('pass')
    expect(log.refused).toBeNull()
    expect(finalRun(log.state)).toBe('as-left')
  })
  it('refuses a verdict that is not the one on record', () => {
    const log = new Log()
      .arrived()
      .tested('as-found', '3.1')
      .repaired()
      .tested('as-left', '4.0')
      .signed('pass')
    expect(log.refused?.why).toMatch(/verdict is now “fail”/)
  })
  it('closes the visit for everything but corrections', () => {
    const log = new Log()
      .arrived()
      .tested('as-found', '7.2')
      .write('station-done', { station: 'as-found', skipTo: 'return' })
    log.write('station-done', { station: 'return' }).signed('pass')
    expect(log.refused).toBeNull()
    expect(log.write('note', { station: 'return', text: 'late' }).refused?.why).toMatch(
      /signed and closed/,
    )
    const reading = log.events.find((e) => e.kind === 'reading')!
    log.write('correction', {
      of: reading.id,
      why: 'Digit',
      withdraw: false,
      payload: { ...reading.payload, value: '2.5' },
    })
    expect(log.refused).toBeNull()
  })
})

describe('standing of the equipment', () => {
  const standing = (log: Log) =>
    standingAfter(log.state, shippedLibrary, 'backflow-annual', '2026-06-30')
  it('is unknown until a test is finished', () => expect(standing(new Log().arrived())).toBeNull())
  it('is failed at once after a failed as-found test, with a repair-by date', () => {
    expect(standing(new Log().arrived().tested('as-found', '3.1'))).toEqual({
      condition: 'failed',
      testedOn: '2026-06-01',
      repairBy: '2026-07-01',
    })
  })
  it('is in order after a pass, due on its anchor a year on', () => {
    expect(standing(new Log().arrived().tested('as-found', '7.2'))).toEqual({
      condition: 'in-order',
      testedOn: '2026-06-01',
      dueOn: '2027-06-30',
    })
  })
  it('is temporary until the date that the permission gives', () => {
    const log = new Log()
      .arrived()
      .tested('as-found', '3.1')
      .repaired({ until: '2026-07-15', permittedBy: 'Authority' })
      .tested('as-left', '7')
    expect(standing(log)).toMatchObject({ condition: 'temporary-repair', repairBy: '2026-07-15' })
  })
})

describe('folding', () => {
  it('gives every prefix of a log a state, and the same one every time', () => {
    const log = new Log()
      .arrived()
      .tested('as-found', '3.1')
      .repaired()
      .tested('as-left', '7.0')
      .signed('pass')
    for (let n = 0; n <= log.events.length; n++) {
      const prefix = log.events.slice(0, n)
      expect(foldVisit(prefix)).toEqual(foldVisit(structuredClone(prefix)))
    }
  })
})

describe('canonical form', () => {
  it('does not depend on the order of members', () => {
    expect(canonicalJson({ b: 1, a: [{ d: 2, c: null }] })).toBe('{"a":[{"c":null,"d":2}],"b":1}')
  })
  it('binds an event to its predecessor and its visit', () => {
    const event = new Log().events[0]!
    expect(chainInput('0', 'v', event)).not.toBe(chainInput('1', 'v', event))
    expect(chainInput('0', 'v', event)).not.toBe(chainInput('0', 'w', event))
  })
})
