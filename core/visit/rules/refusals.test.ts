import { describe, expect, it } from 'vitest'
import type { Guide } from '../../guide'
import { Job, type JobOptions, shippedLibrary } from '../../testing'
import {
  decide,
  draftOf,
  type EventDraft,
  type EventKind,
  guard,
  type GuardContext,
  kitDoubts,
  type PayloadOf,
  type Refusal,
  stationRefusal,
} from '..'

/** What is refused at which place of a visit, each with its counterpart that is let through. */
const rp = (more: Partial<JobOptions> = {}) =>
  new Job({
    family: 'reduced-pressure-assembly',
    kind: 'RP',
    packId: 'larkhaven-relief-first',
    ...more,
  })
const arrived = () => rp().done('prepare').must('identity', { outcome: 'confirmed' }).done('arrive')
const draft = <K extends EventKind>(kind: K, payload: PayloadOf<K>, n = 1): EventDraft =>
  draftOf(kind, payload, {
    id: `018f0000-0000-7000-8002-${String(n).padStart(12, '0')}`,
    deviceTime: '2026-06-01T12:00:00.000Z',
    deviceOffset: 0,
  })
const asked = <K extends EventKind>(
  job: Job,
  kind: K,
  payload: PayloadOf<K>,
  context: GuardContext = job.context,
): Refusal | null => guard(job.log, draft(kind, payload), context)
const read = (more: Partial<PayloadOf<'reading'>> = {}): PayloadOf<'reading'> => ({
  run: 'as-found',
  item: 'check-1',
  dimension: 'differential',
  value: '7.2',
  unit: 'psi',
  source: 'typed',
  ...more,
})
const found = () => {
  const job = arrived().startTest('as-found')
  const answer = (item: string, id: string) =>
    job.must('answer', { run: 'as-found', item, answer: id, label: id })
  answer('relief-at-rest', 'dry')
  answer('shutoff-2', 'tight')
  job.must('reading', read({ item: 'relief-opening', value: '2.4' }))
  answer('check-2', 'held')
  return job.must('reading', read()).must('test-finished', { run: 'as-found' })
}

describe('a press that writes several entries', () => {
  const by = { personId: 'p', personName: 'Odda Marrin' }
  const note = (text: string, n: number) => draft('note', { station: 'prepare', text }, n)
  const ready = draft('station-done', { station: 'prepare' }, 2)
  const late = draft('station-done', { station: 'as-found' }, 3)
  it('is let through as a whole, each entry on what those before it lead to', () => {
    const job = rp()
    const identity = draft('identity', { outcome: 'confirmed' }, 4)
    const decision = decide(job.log, [note('Key', 1), ready, identity], by, () => job.context)
    if ('refusal' in decision) throw new Error(decision.refusal.why)
    expect(decision.events.map((e) => [e.kind, e.personName])).toEqual([
      ['note', 'Odda Marrin'],
      ['station-done', 'Odda Marrin'],
      ['identity', 'Odda Marrin'],
    ])
    expect(decision.log.events).toHaveLength(job.log.events.length + 3)
    expect(decision.log.state.identity?.outcome).toBe('confirmed')
  })
  it('is refused as a whole by one of them, which is named', () => {
    const job = rp()
    const decision = decide(job.log, [note('Key', 1), ready, late], by, () => job.context)
    expect(decision).toMatchObject({ of: { id: late.id }, refusal: { station: 'arrive' } })
  })
  it('is held against what is known when each entry was made', () => {
    const job = arrived()
    const plan = job.log.state
    expect(plan.done).toContain('arrive')
    const start = arrived()
      .startTest('as-found')
      .events.at(-1) as unknown as EventDraft<'test-started'>
    const starting = draft('test-started', start.payload, 1)
    const unlicensed = { ...job.context, person: { roles: [], licences: [] } }
    const decided = (who: GuardContext) =>
      'refusal' in
      decide(job.log, [note('x', 9), starting], by, (d) =>
        d.kind === 'test-started' ? who : unlicensed,
      )
    expect(decided(unlicensed)).toBe(true)
    expect(decided(job.context)).toBe(false)
  })
})

describe('the stations', () => {
  it('are entered in order: one that is done or due is open, one that comes is shut', () => {
    const { state } = arrived()
    expect(stationRefusal(state, 'prepare')).toBeNull()
    expect(stationRefusal(state, 'as-found')).toBeNull()
    expect(stationRefusal(state, 'open-up')).toMatchObject({ station: 'as-found' })
  })
  it('that were passed over because the test passed stay shut', () => {
    const { state } = found().done('as-found', 'return')
    expect(stationRefusal(state, 'open-up')?.code).toBe('station-skipped')
    expect(stationRefusal(state, 'return')).toBeNull()
  })
  it('that are finished are not worked at again', () => {
    expect(asked(arrived(), 'identity', { outcome: 'confirmed' })?.code).toBe('station-finished')
  })
  it('end Arrive with the equipment identified, and as that of the visit', () => {
    const job = rp().done('prepare')
    expect(asked(job, 'station-done', { station: 'arrive' })?.code).toBe('identity-missing')
    const other = { outcome: 'mismatch', seenSerial: 'S9', reason: 'Other plate' } as const
    const stop = rp()
      .done('prepare')
      .must('identity', { ...other, decision: 'stop' })
    expect(asked(stop, 'station-done', { station: 'arrive' })?.code).toBe('wrong-equipment')
    const on = rp()
      .done('prepare')
      .must('identity', { ...other, decision: 'carry-on' })
    expect(asked(on, 'station-done', { station: 'arrive' })).toBeNull()
  })
  it('end As-found with the test, and go straight to Return only after a pass', () => {
    const job = arrived()
    expect(asked(job, 'station-done', { station: 'as-found' })?.code).toBe('as-found-missing')
    const skip = { station: 'as-found', skipTo: 'return' } as const
    expect(asked(found(), 'station-done', skip)).toBeNull()
    const impossible = arrived().must('as-found-impossible', { reason: 'Shut off' })
    expect(asked(impossible, 'station-done', { station: 'as-found' })).toBeNull()
    expect(asked(impossible, 'station-done', skip)?.station).toBe('make-safe')
    expect(asked(rp(), 'station-done', { station: 'prepare', skipTo: 'return' })?.code).toBe(
      'not-passed-as-found',
    )
  })
  it('end Rebuild with a word of the repair, and As-left with the signature alone', () => {
    const open = found().done('as-found').done('make-safe').done('open-up')
    expect(asked(open, 'station-done', { station: 'rebuild' })?.code).toBe('repair-missing')
    open.must('repair', { text: 'Cleaned', parts: [] })
    expect(asked(open, 'station-done', { station: 'rebuild' })).toBeNull()
    open.done('rebuild').done('return')
    expect(asked(open, 'station-done', { station: 'as-left' })?.code).toBe('signature-missing')
  })
  it('take a repair once the as-found test is on record', () => {
    const repair = { text: 'Cleaned', parts: [] }
    expect(asked(arrived(), 'repair', repair)).toMatchObject({ station: 'as-found' })
    expect(asked(found().done('as-found'), 'repair', repair)).toBeNull()
  })
  it('take a function check only where there is no field test', () => {
    const check = { run: 'as-found', outcome: 'works', text: 'Runs' } as const
    expect(asked(arrived(), 'checked', check)?.code).toBe('has-field-test')
  })
})

describe('a field test', () => {
  it('is recorded at its station, while it runs', () => {
    expect(asked(rp(), 'reading', read())?.station).toBe('prepare')
    expect(asked(arrived(), 'reading', read())?.code).toBe('test-not-started')
    const job = arrived().startTest('as-found')
    expect(asked(job, 'reading', read())).toBeNull()
    expect(asked(found(), 'reading', read())?.code).toBe('test-finished')
  })
  it('knows its steps, its items and its answers', () => {
    const job = arrived().startTest('as-found')
    const { procedureId } = job.state.runs['as-found']!.started
    const steps = shippedLibrary.procedures.find((p) => p.id === procedureId)!.steps
    const step = (id: string) => asked(job, 'step-done', { run: 'as-found', step: id })
    expect(step(steps[1]!.id)).toBeNull()
    expect(step('dance')?.code).toBe('step-unknown')
    expect(asked(job, 'reading', read({ item: 'pulse' }))?.code).toBe('item-unknown')
    const say = (answer: string) =>
      asked(job, 'answer', { run: 'as-found', item: 'check-2', answer, label: answer })
    expect(say('held')).toBeNull()
    expect(say('perhaps')?.code).toBe('answer-unknown')
  })
  it('is finished at its station, when it was begun', () => {
    expect(asked(rp(), 'test-finished', { run: 'as-found' })?.station).toBe('prepare')
    expect(asked(arrived(), 'test-finished', { run: 'as-found' })?.code).toBe('test-not-started')
  })
  it('is begun at its station, with the licence that the pack wants: kind and number together', () => {
    const start = arrived().startTest('as-found').state.runs['as-found']!.started
    const { eventId: _, recordedAt: __, recordedBy: ___, ...payload } = start
    expect(asked(rp(), 'test-started', payload)?.station).toBe('prepare')
    const job = arrived()
    const holding = (...licences: GuardContext['person']['licences']) =>
      asked(job, 'test-started', payload, { ...job.context, person: { roles: [], licences } })
    const own = payload.licence
    expect(holding(own)).toBeNull()
    expect(holding({ ...own, kind: 'gas-regulator' }, own)).toBeNull()
    expect(holding({ ...own, number: 'BT-9' })?.code).toBe('license-not-held')
    expect(holding({ ...own, kind: 'gas-regulator' })?.code).toBe('license-not-held')
    const until = (expiresOn: string) => {
      const licence = { ...own, expiresOn }
      const context = { ...job.context, person: { roles: [], licences: [licence] } }
      return asked(job, 'test-started', { ...payload, licence }, context)
    }
    expect(until('2026-06-01')).toBeNull()
    expect(until('2026-05-31')?.code).toBe('license-expired')
    expect(asked(job, 'test-started', { ...payload, packVersion: 1 })?.code).toBe('versions-differ')
  })
  it('of a pack that nobody knows is refused in words', () => {
    const job = arrived().startTest('as-found')
    const library = {
      ...shippedLibrary,
      rulePacks: [],
      earlier: { ...shippedLibrary.earlier, rulePacks: [] },
    }
    expect(asked(job, 'reading', read(), { ...job.context, library })?.code).toBe('pack-unknown')
  })
})

describe('the end of a visit', () => {
  const signed = { signature: 'M 0 0 L 1 1', name: 'P', outcome: 'pass' } as const
  it('is signed at its last station, on a test that was made', () => {
    expect(asked(arrived(), 'signed', signed)?.station).toBe('as-found')
    const open = found().done('as-found').done('make-safe').done('open-up')
    open.must('repair', { text: 'Cleaned', parts: [] }).done('rebuild').done('return')
    expect(asked(open, 'signed', signed)?.code).toBe('as-left-missing')
  })
  it('takes nothing that the server alone writes, whatever state it is in', () => {
    const issued = { certificateId: '018f0000-0000-7000-8000-000000000001', number: 'LH-2026-1' }
    const done = found().done('as-found', 'return').done('return')
    expect(asked(done, 'certificate-issued', issued)?.code).toBe('server-only')
    done.must('signed', signed)
    expect(asked(done, 'certificate-issued', issued)?.code).toBe('server-only')
    expect(asked(done, 'planned', {} as PayloadOf<'planned'>)?.code).toBe('server-only')
  })
})

describe('a correction of a signed visit', () => {
  const closed = () => {
    const job = found()
    job.must('note', { station: 'as-found', text: 'Pit dry' })
    return job
      .done('as-found', 'return')
      .done('return')
      .must('signed', { signature: 'M 0 0 L 1 1', name: 'P', outcome: 'pass' })
  }
  const of = (job: Job, kind: EventKind) => job.events.find((e) => e.kind === kind)!
  const correct = (
    job: Job,
    kind: EventKind,
    payload: object | undefined,
    more: Partial<GuardContext> = {},
  ) =>
    asked(
      job,
      'correction',
      { of: of(job, kind).id, why: 'Slip', withdraw: false, ...(payload ? { payload } : {}) },
      { ...job.context, ...more },
    )
  it('of a note asks for nothing, of a reading for the hand that signed', () => {
    const job = closed()
    expect(correct(job, 'note', { station: 'as-found', text: 'Pit wet' })).toBeNull()
    expect(correct(job, 'reading', read({ item: 'relief-opening', value: '2.5' }))?.code).toBe(
      'signed-by-other',
    )
  })
  it('says something new', () => {
    expect(correct(closed(), 'note', undefined)?.code).toBe('correction-empty')
  })
  it('wants the licence of the test, valid on the day, among those that are held', () => {
    const job = closed()
    const kind = 'backflow-tester'
    const held = (...licences: GuardContext['person']['licences']) =>
      correct(
        job,
        'answer',
        { run: 'as-found', item: 'relief-at-rest', answer: 'drips', label: 'x' },
        {
          attested: true,
          person: { roles: [], licences },
        },
      )?.code ?? 'allowed'
    const own = { kind, number: 'BT-1', expiresOn: '2026-06-01' }
    const gas = { kind: 'gas-regulator', number: 'GR-1', expiresOn: '2030-01-01' }
    expect(held(gas)).toBe('license-needed')
    expect(held({ ...own, expiresOn: '2026-05-31' })).toBe('license-needed')
    expect(held(gas, own)).toBe('allowed')
  })
})

describe('the kit', () => {
  const guide = shippedLibrary.guides.find((g) => g.id === 'rp-relief') as Guide
  const variant = guide.variants[0]!.id
  const chosen = () => rp().choose(guide, variant)
  const line = (item: string, used: number, more: object = {}) => ({
    item,
    used,
    spare: 0,
    left: 0,
    missing: 0,
    empty: 0,
    ...more,
  })
  it('is counted against the list of a guide that was chosen', () => {
    const bag: PayloadOf<'kit-taken'> = { number: 'K-0', how: 'typed', items: [] }
    expect(kitDoubts(rp().state, shippedLibrary, bag)).toEqual([])
    expect(asked(rp(), 'kit-taken', bag)?.code).toBe('guide-not-chosen')
    expect(asked(chosen(), 'kit-taken', bag)?.code).toBe('kit-differs')
    const strange = { ...bag, items: [{ item: 'spoon', count: 1 }] }
    expect(asked(chosen(), 'kit-taken', strange)?.code).toBe('kit-item-unknown')
  })
  it('is accounted for in Rebuild, once it was taken, to the last piece', () => {
    const none = chosen()
    expect(asked(none, 'kit-closed', { lines: [] })?.code).toBe('kit-not-taken')
    const taken = chosen().takeKit()
    expect(asked(taken, 'kit-closed', { lines: [] })?.code).toBe('rebuild-not-done')
    const job = chosen().toMakeSafe()
    job.carryOut('make-safe').done('make-safe').carryOut('open-up').done('open-up')
    job.must('repair', { text: 'By the guide', parts: [] }).carryOut('rebuild')
    const counted = (id: string) => job.state.kit!.items.find((i) => i.item === id)!.count
    const lines = job.run.kit.map((k) => line(k.id, k.used, { left: counted(k.id) - k.used }))
    expect(asked(job, 'kit-closed', { lines })).toBeNull()
    const spread = lines.map((l) => ({ ...l, spare: l.left, left: 0 }))
    expect(asked(job, 'kit-closed', { lines: spread })).toBeNull()
    const [first, ...rest] = lines
    const empty = { ...first!, left: 0, empty: first!.left }
    expect(asked(job, 'kit-closed', { lines: [empty, ...rest] })).toBeNull()
    const short = { ...first!, used: first!.used - 1 }
    expect(asked(job, 'kit-closed', { lines: [short, ...rest] })?.code).toBe('kit-sum-differs')
    const wrong = { ...first!, used: first!.used - 1, missing: first!.missing + 1 }
    expect(asked(job, 'kit-closed', { lines: [wrong, ...rest] })?.code).toBe('kit-use-differs')
    expect(asked(job, 'station-done', { station: 'rebuild' })?.code).toBe('kit-not-closed')
    job.must('kit-closed', { lines })
    expect(asked(job, 'station-done', { station: 'rebuild' })).toBeNull()
    const bag = job.state.kit!
    expect(
      asked(job, 'kit-taken', { number: bag.number, how: 'typed', items: [...bag.items] })?.code,
    ).toBe('kit-closed')
  })
})
