import { describe, expect, it } from 'vitest'
import { type Library, pinsInForce, testPlanOf } from '../library'
import { shippedLibrary } from '../testing/library'
import {
  canonicalJson,
  chainInput,
  clockDoubt,
  correctionEffect,
  currentStation,
  type EventDraft,
  type EventKind,
  finalRun,
  appended,
  draftOf,
  emptyLog,
  foldVisit,
  gaugeAsInstrument,
  guard,
  type GuardContext,
  type PayloadOf,
  planOfVisit,
  type Refusal,
  standingAfter,
  stationRefusal,
  verdictOf,
  type VisitEvent,
} from '.'

const { pack, procedure } = testPlanOf(shippedLibrary, 'larkhaven-relief-first', 'RP')
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
      packVersion: pack.version,
      pins: pinsInForce(shippedLibrary, {
        ...equipment,
        programme: 'backflow-annual',
        packId: pack.id,
      }),
      equipment,
    }
    this.events.push({
      ...this.draft('planned', payload as PayloadOf<'planned'>),
      personId: 'p',
      personName: 'P',
    })
  }
  draft<K extends EventKind>(kind: K, payload: PayloadOf<K>): EventDraft {
    const n = this.minute++
    const id = `018f0000-0000-7000-8000-${String(n).padStart(12, '0')}`
    const deviceTime = `2026-06-01T${String(8 + Math.floor(n / 60)).padStart(2, '0')}:${String(n % 60).padStart(2, '0')}:00.000Z`
    return draftOf(kind, payload, { id, deviceTime, deviceOffset: 0 })
  }
  write<K extends EventKind>(kind: K, payload: PayloadOf<K>, who: GuardContext = context): this {
    const draft = this.draft(kind, payload)
    this.refused = guard(appended(emptyLog, this.events), draft, who)
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
      procedureVersion: procedure.version,
      instruments: [gaugeAsInstrument(g)],
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
    expect(log.refused?.code).toBe('station-out-of-order')
  })
  it('does not leave As-found without readings or a reason', () => {
    const log = new Log().arrived().write('station-done', { station: 'as-found' })
    expect(log.refused?.code).toBe('as-found-missing')
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
    expect(log.state.earlierRuns).toMatchObject([{ name: 'as-left', reason: 'Seat nicked' }])
  })
})

describe('before a test', () => {
  it('refuses a gauge out of calibration on the day', () => {
    const log = new Log()
      .arrived()
      .started('as-found', { ...gauge, calibrationUntil: '2026-05-31' })
    expect(log.refused?.code).toBe('gauge-out-of-calibration')
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
      procedureVersion: procedure.version,
      instruments: [gaugeAsInstrument(gauge)],
      licence,
    }
    const old = { ...start, licence: { ...licence, expiresOn: '2026-05-31' } }
    expect(log.write('test-started', old, expired).refused?.code).toBe('license-expired')
    expect(log.write('test-started', start, expired).refused?.code).toBe('license-differs')
    const otherKind = { ...start, licence: { ...licence, kind: 'gas-regulator' } }
    expect(log.write('test-started', otherKind).refused?.code).toBe('license-not-held')
    const none = { ...context, person: { ...context.person, licences: [] } }
    expect(log.write('test-started', start, none).refused?.code).toBe('license-not-held')
  })
  it('refuses another procedure than the rule pack asks for', () => {
    const log = new Log().arrived()
    log.write('test-started', {
      run: 'as-found',
      procedureId: 'another',
      procedureVersion: procedure.version,
      instruments: [gaugeAsInstrument(gauge)],
      licence,
    })
    expect(log.refused?.code).toBe('versions-differ')
    log.write('test-started', {
      run: 'as-found',
      procedureId: procedure.id,
      procedureVersion: procedure.version - 1,
      instruments: [gaugeAsInstrument(gauge)],
      licence,
    })
    expect(log.refused?.code).toBe('versions-differ')
  })
  it.each([
    { dimension: 'differential', value: '60', unit: 'psi' },
    { dimension: 'gaugePressure', value: '-3', unit: 'psi' },
    { dimension: 'gaugePressure', value: '0', unit: 'psi' },
  ] as const)('refuses a line pressure that is none: %o', (linePressure) => {
    const log = new Log().arrived()
    log.write('test-started', {
      run: 'as-found',
      procedureId: procedure.id,
      procedureVersion: procedure.version,
      instruments: [gaugeAsInstrument(gauge)],
      licence,
      linePressure,
    })
    expect(log.refused?.code).toBe('line-pressure-invalid')
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
    expect(log.refused?.code).toBe('item-unknown')
    log.write('reading', {
      run: 'as-found',
      item: 'check-1',
      dimension: 'gaugePressure',
      value: '5',
      unit: 'psi',
      source: 'typed',
    })
    expect(log.refused?.code).toBe('dimension-differs')
  })
  const check1 = (value: string, more: Partial<PayloadOf<'reading'>> = {}) => ({
    run: 'as-found' as const,
    item: 'check-1',
    dimension: 'differential' as const,
    value,
    unit: 'psi',
    source: 'typed' as const,
    ...more,
  })
  it('questions a reading that its gauge cannot have shown, and takes it with a reason', () => {
    const log = new Log().arrived().started('as-found').write('reading', check1('48'))
    expect(log.refused?.why).toBe('48 psid on a gauge that ends at 15 psi: 4.8?')
    expect(log.refused?.code).toBe('reading-impossible')
    log.write('reading', check1('-0.5'))
    expect(log.refused?.code).toBe('reading-impossible')
    log.write('reading', check1('48', { insisted: ' ' }))
    expect(log.refused).not.toBeNull()
    log.write('reading', check1('48', { insisted: 'Second gauge on the line' }))
    expect(log.refused).toBeNull()
    const verdict = verdictOf(log.state, 'as-found', shippedLibrary)
    expect(verdict?.items.find((i) => i.id === 'check-1')?.outcome).toBe('not-assessed')
    expect(log.state.runs['as-found']?.readings.at(-1)?.insisted).toBe('Second gauge on the line')
  })
  it('questions one above the line pressure', () => {
    const log = new Log().arrived().write('test-started', {
      run: 'as-found',
      procedureId: procedure.id,
      procedureVersion: procedure.version,
      instruments: [gaugeAsInstrument(gauge)],
      licence,
      linePressure: { dimension: 'gaugePressure', value: '6', unit: 'psi' },
    })
    log.write('reading', check1('7.2'))
    expect(log.refused?.code).toBe('reading-impossible')
  })
  it('refuses a height of the gauge where both hoses are on', () => {
    const log = new Log().arrived().started('as-found')
    log.write('reading', check1('4.5', { gaugeAbovePort: { value: '500', unit: 'mm' } }))
    expect(log.refused?.code).toBe('height-not-applicable')
  })
  it('the last answer and the last reading stand, and order is theirs', () => {
    const log = new Log().arrived().tested('as-found', '7.2')
    log.events.pop()
    log.write('answer', { run: 'as-found', item: 'check-2', answer: 'leaked', label: 'Leaked' })
    expect(log.state.runs['as-found']?.order.at(-1)).toBe('check-2')
    const found = verdictOf(log.state, 'as-found', shippedLibrary)
    expect(found?.items.find((i) => i.id === 'check-2')).toMatchObject({
      outcome: 'fail',
      answer: 'Leaked',
    })
  })
  it('does not finish while something is missing, and names it', () => {
    const log = new Log().arrived().started('as-found').write('test-finished', { run: 'as-found' })
    expect(log.refused?.code).toBe('items-missing')
  })
})

describe('corrections', () => {
  const mistyped = () => new Log().arrived().tested('as-found', '7.2')
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
    expect(log.refused?.code).toBe('entry-not-in-visit')
    log.write('correction', { of: log.events[0]!.id, why: 'x', withdraw: true })
    expect(log.refused?.code).toBe('kind-not-correctable')
    const r = readingOf(log)
    log.write('correction', {
      of: r.id,
      why: 'x',
      withdraw: false,
      payload: { ...r.payload, value: 'lots' },
    })
    expect(log.refused?.code).toBe('correction-malformed')
  })
  const corrected = (log: Log, entry: VisitEvent, payload: object) =>
    log.write('correction', { of: entry.id, why: 'x', withdraw: false, payload })
  const entryOf = (log: Log, kind: EventKind) => log.events.find((e) => e.kind === kind)!
  it.each([
    ['reading', { dimension: 'torque', unit: 'N·m' }, ['identity-fixed', { field: 'dimension' }]],
    ['reading', { item: 'no-such-item' }, ['identity-fixed', { field: 'item' }]],
    ['reading', { run: 'as-left' }, ['identity-fixed', { field: 'run' }]],
    ['reading', { value: '48' }, ['reading-impossible']],
    ['reading', { gaugeAbovePort: { value: '500', unit: 'mm' } }, ['height-not-applicable']],
    ['answer', { answer: 'banana' }, ['answer-unknown']],
  ] as const)('of a %s to %o pass the guard of the entry', (kind, change, [code, params]) => {
    const log = mistyped()
    const entry = entryOf(log, kind)
    corrected(log, entry, { ...entry.payload, ...change })
    expect(log.refused?.code).toBe(code)
    if (params) expect(log.refused?.params).toMatchObject(params)
  })
  it('are judged on the state in which the entry stood', () => {
    const log = mistyped().write('station-done', { station: 'as-found', skipTo: 'return' })
    const identity = entryOf(log, 'identity')
    corrected(log, identity, {
      outcome: 'mismatch',
      seenTag: 'RP-1',
      decision: 'carry-on',
      reason: 'Tag lost',
    })
    expect(log.refused).toBeNull()
    const reading = readingOf(log)
    corrected(log, reading, { ...reading.payload, value: '6.9' })
    expect(log.refused).toBeNull()
  })
  it('say beforehand what they change', () => {
    const log = mistyped()
    const reading = readingOf(log)
    const effect = (value: string) =>
      correctionEffect(
        log.events,
        log.draft('correction', {
          of: reading.id,
          why: 'Digit',
          withdraw: false,
          payload: { ...reading.payload, value },
        }),
        shippedLibrary,
      )
    expect(effect('3.1')).toEqual([{ of: 'as-found', before: 'pass', after: 'fail' }])
    expect(effect('6.9')).toEqual([])
  })
})

describe('the log of a signed visit', () => {
  const signed = () =>
    new Log()
      .arrived()
      .tested('as-found', '7.2')
      .write('station-done', { station: 'as-found', skipTo: 'return' })
      .write('station-done', { station: 'return' })
      .signed('pass')
  const reading = (log: Log) => log.events.find((e) => e.kind === 'reading')!
  const correct = (log: Log, who: GuardContext) => {
    const entry = reading(log)
    const payload = { ...entry.payload, value: '2.5' }
    return log.write('correction', { of: entry.id, why: 'Digit', withdraw: false, payload }, who)
  }
  it('takes a correction of what was measured with the tester’s password only', () => {
    expect(correct(signed(), context).refused?.code).toBe('signed-by-other')
    expect(correct(signed(), { ...context, attested: true }).refused).toBeNull()
    const withdraw = { of: reading(signed()).id, why: 'x', withdraw: true }
    expect(signed().write('correction', withdraw).refused).not.toBeNull()
  })
  it('and with a licence that is valid on the day', () => {
    const expired = [{ ...licence, expiresOn: '2026-05-31' }]
    const who = { ...context, attested: true, person: { ...context.person, licences: expired } }
    expect(correct(signed(), who).refused?.code).toBe('license-needed')
  })
  it('takes a request to correct from anybody, until it is corrected', () => {
    const log = signed()
    const of = reading(log).id
    expect(log.write('correction-asked', { of, why: 'Looks mistyped' }).refused).toBeNull()
    expect(log.state.asked).toHaveLength(1)
    correct(log, { ...context, attested: true })
    expect(log.state.asked).toHaveLength(0)
    const plan = log.events[0]!.id
    expect(log.write('correction-asked', { of: plan, why: 'x' }).refused?.code).toBe(
      'entry-not-in-visit',
    )
  })
})

describe('the device’s clock', () => {
  const at = (deviceTime: string, serverTime?: string) =>
    clockDoubt(
      { deviceTime, deviceOffset: 0, ...(serverTime ? { serverTime } : {}) },
      { plannedAt: '2026-06-01T08:00:00.000Z' },
    )
  it.each([
    ['2026-06-01T09:00:00.000Z', '2026-06-01T09:01:00.000Z', null],
    ['2026-06-01T07:30:00.000Z', '2026-06-01T09:00:00.000Z', null],
    ['2026-05-31T09:00:00.000Z', '2026-06-01T09:00:00.000Z', 'before-planned'],
    ['2026-06-01T09:00:00.000Z', '2026-06-03T08:59:00.000Z', null],
    ['2026-06-01T09:00:00.000Z', '2026-06-03T09:01:00.000Z', 'far-from-arrival'],
    // Nothing is made after it arrives.
    ['2026-06-01T09:10:00.000Z', '2026-06-01T09:00:00.000Z', 'clock-off'],
    ['2026-06-09T09:00:00.000Z', '2026-06-01T09:00:00.000Z', 'clock-far-off'],
    ['2026-05-01T09:00:00.000Z', undefined, null],
  ])('%s, arrived %s: %s', (device, server, doubt) => {
    expect(at(device, server)).toBe(doubt)
  })
  it('is noted on the entries that it makes doubtful', () => {
    const log = new Log().arrived()
    const events = log.events.map((e, n) => ({
      ...e,
      serverTime: n < 2 ? '2026-06-01T08:00:00.000Z' : '2026-06-08T08:00:00.000Z',
    }))
    const doubts = foldVisit(events).clockDoubts
    expect(doubts).toEqual(events.slice(2).map((e) => ({ of: e.id, doubt: 'far-from-arrival' })))
  })
})

describe('what a visit rests on', () => {
  const packs = shippedLibrary.rulePacks
  const raised = {
    ...shippedLibrary,
    rulePacks: [
      ...packs.filter((p) => p.id !== pack.id),
      {
        ...pack,
        version: pack.version + 1,
        tests: pack.tests.map((t) => ({
          ...t,
          items: t.items.map((i) =>
            i.basis === 'limit' && i.atLeast
              ? { ...i, atLeast: { ...i.atLeast, value: '9.0' } }
              : i,
          ),
        })),
      },
    ],
    earlier: { ...shippedLibrary.earlier, rulePacks: [pack, ...shippedLibrary.earlier.rulePacks] },
  }
  const renamed = { ...raised, rulePacks: [{ ...raised.rulePacks.at(-1)!, id: 'renamed' }] }
  const removed = {
    ...raised,
    rulePacks: [],
    procedures: [],
    policies: [],
    programmes: [],
    earlier: {
      ...raised.earlier,
      procedures: shippedLibrary.procedures,
      programmes: shippedLibrary.programmes,
      policies: shippedLibrary.policies,
    },
  }
  it.each([
    ['raised', raised],
    ['renamed', renamed],
    ['removed', removed],
  ])('gives the same verdict to the letter when its pack is %s', (_, library) => {
    const log = new Log().arrived().tested('as-found', '7.2')
    const before = verdictOf(log.state, 'as-found', shippedLibrary)
    expect(verdictOf(log.state, 'as-found', library)).toEqual(before)
    const standing = (l: Library) => standingAfter(log.state, l, 'backflow-annual', '2026-06-30')
    expect(standing(library)).toEqual(standing(shippedLibrary))
  })
  it('is what was pinned last, and a test may be begun by what was pinned before', () => {
    const log = new Log()
    const earlier = { id: procedure.id, version: procedure.version - 1 }
    const older = { id: pack.id, version: pack.version - 1 }
    const pinned = log.draft('pinned', { pins: { pack: older, procedure: earlier } })
    log.events.push({ ...pinned, personId: 's', personName: 'Uvanta' })
    expect(planOfVisit(log.state, shippedLibrary)?.pack.version).toBe(pack.version - 1)
    log.arrived().started('as-found')
    expect(log.refused).toBeNull()
    expect(planOfVisit(log.state, shippedLibrary, 'as-found')?.procedure.version).toBe(
      procedure.version,
    )
  })
  it('is the oldest version known, in a log that pins none', () => {
    const log = new Log()
    const [plan] = log.events
    const { pins: _, ...payload } = plan!.payload as PayloadOf<'planned'>
    log.events[0] = { ...plan!, payload: { ...payload, packVersion: 2 } } as VisitEvent
    expect(planOfVisit(log.state, shippedLibrary)?.pack.version).toBe(2)
    expect(planOfVisit(log.state, shippedLibrary)?.procedure.version).toBe(2)
  })
})

describe('signing', () => {
  it('needs an as-left test once something was opened', () => {
    const log = new Log().arrived().tested('as-found', '3.1').repaired().signed('pass')
    expect(log.refused?.code).toBe('as-left-missing')
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
    expect(log.refused?.code).toBe('outcome-differs')
  })
  it('closes the visit for everything but corrections', () => {
    const log = new Log()
      .arrived()
      .tested('as-found', '7.2')
      .write('station-done', { station: 'as-found', skipTo: 'return' })
    log.write('station-done', { station: 'return' }).signed('pass')
    expect(log.refused).toBeNull()
    expect(log.write('note', { station: 'return', text: 'late' }).refused?.code).toBe(
      'visit-signed',
    )
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
      lawfulUntil: '2027-09-01',
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
