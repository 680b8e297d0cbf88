import { describe, expect, it } from 'vitest'
import { encodeTrace } from '../../trace'
import { Job } from '../../testing/job'
import { isStreamed, type PayloadOf, type RunName, verdictOf } from '..'
import { shippedLibrary } from '../../testing/library'

const rp = (from?: string) =>
  new Job({
    family: 'reduced-pressure-assembly',
    kind: 'RP',
    packId: 'larkhaven-relief-first',
    ...(from ? { from } : {}),
  })
    .must('station-done', { station: 'prepare' })
    .must('identity', { outcome: 'confirmed' })
    .must('station-done', { station: 'arrive' })

const psi = (value: string) => ({ dimension: 'differential', value, unit: 'psi' }) as const

function tested(job: Job, run: RunName, check1: string, wait = 0): Job {
  job.startTest(run)
  job.must('answer', { run, item: 'shutoff-2', answer: 'tight', label: 'Tight' })
  job.must('reading', { run, item: 'relief-opening', ...psi('2.4'), source: 'typed' })
  job.must('answer', { run, item: 'relief-at-rest', answer: 'dry', label: 'Dry' })
  job.must('answer', { run, item: 'check-2', answer: 'held', label: 'Held' })
  job.wait(wait)
  job.must('reading', { run, item: 'check-1', ...psi(check1), source: 'typed' })
  return job.must('test-finished', { run })
}

const startOf = (job: Job, run: RunName): PayloadOf<'test-started'> => {
  const started = job.state.runs[run]?.started
  if (!started) throw new Error('not started')
  const { eventId: _, recordedAt: __, recordedBy: ___, ...payload } = started
  return payload
}
const repaired = (job: Job): Job => {
  for (const station of ['as-found', 'make-safe', 'open-up'] as const) job.done(station)
  job.must('repair', { text: 'Disc wiped', parts: [] })
  return job.done('rebuild').done('return')
}

describe('a test on record', () => {
  it('is never replaced as found, whether it failed, passed or goes on', () => {
    for (const check1 of ['1.0', '7.2']) {
      const job = tested(rp(), 'as-found', check1)
      expect(job.write('test-started', startOf(job, 'as-found')).refused?.code).toBe('test-exists')
    }
    const begun = rp().startTest('as-found')
    begun.must('reading', { run: 'as-found', item: 'check-1', ...psi('1.0'), source: 'typed' })
    expect(begun.write('test-started', startOf(begun, 'as-found')).refused?.code).toBe(
      'test-exists',
    )
    expect(begun.state.runs['as-found']?.readings).toHaveLength(1)
  })
  it('is tested again as left only behind a reopening, and stays with its result', () => {
    const job = tested(repaired(tested(rp(), 'as-found', '1.0')), 'as-left', '4.0')
    const again = startOf(job, 'as-left')
    expect(job.write('test-started', again).refused?.code).toBe('test-exists')
    job.must('reopened', { reason: 'Seat nicked' }).done('open-up').done('rebuild').done('return')
    expect(job.write('test-started', again).refused).toBeNull()
    expect(job.state.earlierRuns).toMatchObject([
      { name: 'as-left', reason: 'Seat nicked', finished: true },
    ])
  })
})

describe('a function check on record', () => {
  const house = () =>
    new Job({ family: 'spring-regulator', kind: 'spring regulator' })
      .must('station-done', { station: 'prepare' })
      .must('identity', { outcome: 'confirmed' })
      .must('station-done', { station: 'arrive' })
  it('is never replaced', () => {
    const job = house().must('checked', { run: 'as-found', outcome: 'works-not', text: 'Drips' })
    const better = { run: 'as-found', outcome: 'works', text: 'Dry' } as const
    expect(job.write('checked', better).refused?.code).toBe('check-exists')
    expect(job.state.checks['as-found']?.outcome).toBe('works-not')
  })
})

describe('what was undone', () => {
  it('is not brought back by a correction', () => {
    const job = rp().startTest('as-found')
    job.must('reading', { run: 'as-found', item: 'check-1', ...psi('4.4'), source: 'typed' })
    const of = job.events.at(-1)!.id
    job.must('undone', { of: [of] })
    const payload = { run: 'as-found', item: 'check-1', ...psi('9.9'), source: 'typed' }
    const refused = job.write('correction', { of, why: 'Slip', withdraw: false, payload }).refused
    expect(refused?.code).toBe('entry-undone')
    expect(job.state.runs['as-found']?.readings).toEqual([])
  })
})

describe('the day of a reading', () => {
  it('is held against the calibration, whenever its test began', () => {
    // The calibration of the job's gauge ends on 31 December.
    const job = tested(rp('2026-12-31T20:00:00.000Z'), 'as-found', '7.2', 10 * 60)
    const verdict = verdictOf(job.state, 'as-found', shippedLibrary)
    const of = (id: string) => verdict?.items.find((i) => i.id === id)
    expect(of('relief-opening')?.outcome).toBe('pass')
    expect(of('check-1')).toMatchObject({
      outcome: 'not-assessed',
      code: 'out-of-calibration',
      params: { on: '2027-01-01' },
    })
    expect(verdict?.outcome).toBe('not-assessed')
  })
  it('is held against the license', () => {
    const job = rp('2026-06-01T20:00:00.000Z')
    const { licences } = job.context.person
    const ended = licences.map((l) => ({ ...l, expiresOn: '2026-06-01' }))
    Object.assign(job.context.person, { licences: ended })
    const verdict = verdictOf(
      tested(job, 'as-found', '7.2', 10 * 60).state,
      'as-found',
      shippedLibrary,
    )
    expect(verdict?.items.find((i) => i.id === 'check-1')).toMatchObject({
      outcome: 'not-assessed',
      code: 'license-expired',
    })
  })
})

describe('a streamed reading', () => {
  const values = Float64Array.from({ length: 400 }, (_, i) => (i < 200 ? 6 : 7.2))
  const data = encodeTrace({ periodS: 0.1, resolution: 0.1, unit: 'psi', values })
  const reading = (value: string, mark: number, text = data): PayloadOf<'reading'> => ({
    run: 'as-found',
    item: 'check-1',
    ...psi(value),
    source: 'streamed',
    trace: { data: text, mark, found: mark },
  })
  it.each([
    ['is what its trace shows at its mark', reading('7.2', 390), true],
    ['is typed where its trace shows another value there', reading('7.2', 100), false],
    ['is typed where it says more than its trace', reading('9.0', 390), false],
    ['is typed where its mark lies beyond the trace', reading('7.2', 4_000), false],
    ['is typed where its trace cannot be read', reading('7.2', 390, 'garbage'), false],
    [
      'is typed where its trace asks for more samples than anybody takes',
      reading('7.2', 390, `T1 0.1 0.1 psi|${'0*200000 '.repeat(60)}`),
      false,
    ],
    ['is typed without a trace', { ...reading('7.2', 390), trace: undefined }, false],
  ])('%s', (_, payload, streamed) => expect(isStreamed(payload)).toBe(streamed))
  it('is read in the unit of the reading', () => {
    expect(isStreamed({ ...reading('49.6', 390), unit: 'kPa' })).toBe(true)
    expect(isStreamed({ ...reading('7.2', 390), unit: 'kPa' })).toBe(false)
  })
})
