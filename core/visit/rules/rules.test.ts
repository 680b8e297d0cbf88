import { describe, expect, it } from 'vitest'
import { Job, type JobOptions, shippedLibrary } from '../../testing'
import { type EventDraft, foldVisit, guard, standingAfter, verdictOf } from '..'

/** What keeps people safe and records true, each at the edge where it begins to hold. */
const PACK = 'larkhaven-relief-first'
const guide = (id: string) => {
  const found = shippedLibrary.guides.find((g) => g.id === id)
  if (!found) throw new Error(id)
  return found
}
const tower = (options: Partial<JobOptions> = {}) =>
  new Job({ family: 'tower-double-check', kind: 'DC', packId: PACK, ...options }).choose(
    guide('tower-double-check'),
    'usual',
  )

describe('zero', () => {
  const proved = (job: Job, zone: string, value: string, unit = 'kPa') =>
    job.write('zone-proved', {
      zone,
      reading: { dimension: 'gaugePressure', value, unit },
      heldMinutes: 2,
      by: 'P',
    }).refused?.code
  it('of water is a kilopascal at most, in either direction', () => {
    const at = () =>
      tower()
        .toMakeSafe()
        .carryOut('make-safe', (s) => Boolean(s.prove))
    expect(proved(at(), 'body', '1')).toBeUndefined()
    expect(proved(at(), 'body', '1.1')).toBe('not-zero')
    expect(proved(at(), 'body', '-1.1')).toBe('not-zero')
    expect(proved(at(), 'body', '0.2', 'psi')).toBe('not-zero')
  })
  it('of gas is a tenth of that: a house service line lives at less than two', () => {
    const at = () =>
      new Job({ family: 'spring-regulator', kind: 'spring regulator', service: 'gas' })
        .choose(guide('spring-regulator'), 'gas')
        .toMakeSafe()
        .carryOut('make-safe', (s) => Boolean(s.prove))
    const zone = at().due('make-safe')?.prove ?? ''
    expect(proved(at(), zone, '0.1')).toBeUndefined()
    expect(proved(at(), zone, '0.2')).toBe('not-zero')
    expect(proved(at(), zone, '4', 'inH2O')).toBe('not-zero')
  })
})

describe('a lock that is still on', () => {
  it('lets nobody sign', () => {
    const job = new Job({ family: 'spring-cylinder-actuator', kind: 'actuator' })
      .choose(guide('spring-cylinder'), 'to-open')
      .toMakeSafe()
    job.carryOut('make-safe')
    const valve = Object.entries(job.state.valves).find(([, to]) => to === 'shut')?.[0] ?? ''
    job.must('lock', { element: valve, number: '14', on: true }).done('make-safe')
    job.carryOut('open-up').done('open-up').must('repair', { text: 'Resealed', parts: [] })
    job.carryOut('rebuild').closeKit().done('rebuild')
    // Everything else is done; the valve is opened again on the drawing by whoever forgot the lock.
    job.must('lock', { element: valve, number: '14', on: false })
    job.carryOut('return').done('return')
    job.must('checked', { run: 'as-left', outcome: 'works', text: 'Strokes' }).carryOut('as-left')
    job.must('valve-moved', { element: valve, to: 'shut' })
    job.must('lock', { element: valve, number: '15', on: true })
    const sign = {
      signature: 'M 0 0 L 1 1',
      name: 'P',
      outcome: 'pass',
    } as const
    expect(job.write('signed', sign).refused?.code).toBe('lock-left')
    job.must('lock', { element: valve, number: '15', on: false })
    expect(job.write('signed', sign).refused).toBeNull()
  })
})

describe('a temporary repair', () => {
  const rebuilding = () => {
    const job = tower().toMakeSafe().carryOut('make-safe').done('make-safe')
    return job.carryOut('open-up').done('open-up')
  }
  const until = (date: string) => ({
    text: 'Disc turned over',
    parts: [],
    temporary: { until: date, permittedBy: 'The authority' },
  })
  it.each([
    ['2026-05-31', false],
    ['2026-06-01', false],
    ['2026-06-02', true],
  ])('until %s, on the first of June: %s', (date, taken) => {
    expect(rebuilding().write('repair', until(date)).refused === null).toBe(taken)
  })
})

describe('the kit', () => {
  const closing = (used: number, left: number) => ({
    lines: [
      { item: 'kit-disc', used, spare: 0, left, missing: 0, empty: 0 },
      { item: 'kit-cover-oring', used: 1, spare: 0, left: 0, missing: 0, empty: 0 },
      { item: 'kit-seat-ring', used: 0, spare: 2, left: 0, missing: 0, empty: 0 },
    ],
  })
  const rebuilt = () =>
    tower({ defects: { 'disc-1': ['cut'], 'disc-2': ['cut'], 'cover-oring': ['cut'] } })
      .toMakeSafe()
      .carryOut('make-safe')
      .done('make-safe')
      .carryOut('open-up')
      .done('open-up')
      .must('repair', { text: 'New discs', parts: [] })
      .carryOut('rebuild')
  it('is not accounted for with fewer parts than the guide fitted', () => {
    expect(rebuilt().write('kit-closed', closing(1, 1)).refused?.code).toBe('kit-use-differs')
    expect(rebuilt().write('kit-closed', closing(2, 0)).refused).toBeNull()
  })
  it('closed before a reopening is not closed after it', () => {
    const job = rebuilt().must('kit-closed', closing(2, 0)).done('rebuild')
    job.carryOut('return').done('return').must('reopened', { reason: 'It leaks' })
    expect(job.state.kitClosed).toBeUndefined()
    job.carryOut('make-safe').done('make-safe').carryOut('open-up').done('open-up')
    job.must('repair', { text: 'Again', parts: [] }).carryOut('rebuild')
    expect(job.write('station-done', { station: 'rebuild' }).refused?.code).toBe('kit-not-closed')
  })
  it('closed before the last part was fitted is stale', () => {
    const job = rebuilt().must('kit-closed', closing(2, 0))
    const step = job.state.guideSteps.findLast((s) => s.at === 'rebuild')?.step ?? ''
    const from = job.run.steps.find((s) => s.at === 'rebuild' && s.from)?.id ?? step
    job.must('guide-redo', { from, reason: 'Wrong ring' })
    job.carryOut('rebuild', (s) => Boolean(s.from))
    expect(job.write('station-done', { station: 'rebuild' }).refused).not.toBeNull()
  })
})

describe('reopening', () => {
  it('forgets the rounds and clocks of the work before', () => {
    const job = new Job({ family: 'pulse-valve', kind: 'pulse valve' })
      .choose(guide('pulse-valve'), 'usual')
      .toMakeSafe()
      .toAsLeft()
    expect(job.state.guideTimers.length).toBeGreaterThan(0)
    job.must('reopened', { reason: 'It leaks' })
    expect(job.state.guideTimers).toEqual([])
    expect(job.state.guideRounds).toEqual([])
    job.carryOut('make-safe').done('make-safe').carryOut('open-up').done('open-up')
    job.must('repair', { text: 'Again', parts: [] }).carryOut('rebuild', (s) => Boolean(s.hold))
    const step = job.due('rebuild')?.id ?? ''
    expect(job.write('guide-step', { step, at: 'rebuild' }).refused?.code).toBe('timer-not-started')
  })
})

describe('qualified work', () => {
  it('wants a licence that is valid on the day', () => {
    const job = new Job({ family: 'spring-regulator', kind: 'spring regulator' })
      .choose(guide('spring-regulator'), 'gas')
      .toMakeSafe()
      .carryOut('make-safe', (s) => s.gate === 'qualified')
    const step = { step: job.due('make-safe')?.id ?? '', at: 'make-safe' } as const
    const ask = (expiresOn: string) => {
      const licences = [{ kind: 'gas-regulator', number: 'GR-1', expiresOn }]
      const draft = { ...job.events.at(-1), id: 'x', kind: 'guide-step', payload: step }
      const context = { ...job.context, person: { roles: [], licences } }
      return guard(job.log, draft as unknown as EventDraft, context)
    }
    expect(ask('2026-05-31')?.code).toBe('license-needed')
    expect(ask('2026-06-01')).toBeNull()
  })
})

describe('as-left readings', () => {
  const procedure = shippedLibrary.procedures.find((p) => p.id === 'dc-atmospheric')
  function tested(job: Job, run: 'as-found' | 'as-left', value: string): Job {
    job.startTest(run)
    for (const { record } of procedure?.steps ?? []) {
      if (!record) continue
      const about = { run, item: record.item }
      if (record.ask === 'answer') {
        const [good] = record.answers ?? []
        job.must('answer', { ...about, answer: good?.id ?? '', label: good?.label ?? '' })
      } else {
        const reading = { dimension: 'differential', unit: 'psi', source: 'typed' } as const
        const level = { gaugeAbovePort: { value: '0', unit: 'mm' } } as const
        job.must('reading', { ...about, ...reading, ...level, value })
      }
    }
    return job.must('test-finished', { run })
  }
  const repair = { text: 'Disc wiped', parts: [] }
  const plain = () => {
    const job = new Job({ family: 'tower-double-check', kind: 'DC', packId: PACK })
    return job.done('prepare').must('identity', { outcome: 'confirmed' }).done('arrive')
  }
  it('follow the last repair, not only the first', () => {
    const job = tested(plain(), 'as-found', '0.4')
      .done('as-found')
      .done('make-safe')
      .done('open-up')
    job.must('repair', repair).must('repair', { ...repair, text: 'And the other' })
    job.done('rebuild').done('return')
    tested(job, 'as-left', '2.1')
    const events = [...job.events]
    const outcome = () => verdictOf(foldVisit(events), 'as-left', shippedLibrary)?.outcome
    expect(outcome()).toBe('pass')
    // A device whose clock was set back between the two repairs and the test, at whose beginning already.
    const began = events.findIndex((e) => e.kind === 'test-started' && e.payload.run === 'as-left')
    const [earliest] = job.events
    events[began] = { ...events[began]!, deviceTime: earliest!.deviceTime }
    const [first, last] = job.events.filter((e) => e.kind === 'repair')
    const between = (time: string) => {
      const n = events.findIndex((e) => e.kind === 'reading' && e.payload.run === 'as-left')
      events[n] = { ...events[n]!, deviceTime: time }
    }
    between(last!.deviceTime)
    expect(outcome()).toBe('pass')
    between(first!.deviceTime)
    expect(outcome()).toBe('not-assessed')
  })
  it('decide how equipment stands once the visit is signed after an opening', () => {
    const job = tested(plain(), 'as-found', '2.0')
      .done('as-found')
      .done('make-safe')
      .done('open-up')
    job.must('repair', repair).done('rebuild').done('return')
    const standing = () =>
      standingAfter(foldVisit(job.events), shippedLibrary, 'backflow-annual', '2026-06-30')
    expect(standing()?.condition).toBe('in-order')
    tested(job, 'as-left', '0.3')
    expect(standing()?.condition).toBe('failed')
    job.must('signed', { signature: 'M 0 0 L 1 1', name: 'P', outcome: 'fail' })
    expect(standing()).toMatchObject({ condition: 'failed', repairBy: '2026-07-01' })
  })
})
