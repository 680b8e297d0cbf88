import { describe, expect, it } from 'vitest'
import { Job, shippedLibrary } from '../../testing'
import { stackOf } from '..'

const psi = (value: string) => ({ dimension: 'gaugePressure' as const, value, unit: 'psi' })
const regulator = () =>
  new Job({
    family: 'spring-regulator',
    kind: 'spring regulator',
    packId: 'larkhaven-gas-at-flow',
    service: 'gas',
    nominals: [
      { name: 'set-point', value: psi('10') },
      { name: 'relief-set', value: psi('12') },
      { name: 'maop', value: psi('11') },
    ],
  })
    .done('prepare')
    .must('identity', { outcome: 'confirmed' })
    .done('arrive')
    .startTest('as-found')
const read = (job: Job, item: string, value: string, unit = 'psi') =>
  job.must('reading', {
    run: 'as-found',
    item,
    dimension: 'gaugePressure',
    value,
    unit,
    source: 'typed',
  })

describe('the pressures of a station on one scale', () => {
  it('stand in the unit of the set point, with the ends between which they are accepted', () => {
    const job = read(read(regulator(), 'set', '10.2'), 'lock-up', '75.8', 'kPa')
    const stack = stackOf(job.state, shippedLibrary, 'as-found')
    const row = (id: string) => stack?.rows.find((r) => r.id === id)
    expect(stack).toMatchObject({ unit: 'psi', set: 10 })
    expect(row('set')).toMatchObject({ found: 10.2, low: 9, high: 11 })
    expect(row('lock-up')?.found).toBeCloseTo(75.8 / 6.894757, 3)
    expect(row('relief-start')).toMatchObject({ found: undefined })
    // Under 12 psig half of the MAOP may be added: 49 CFR 192.201 (a) (2).
    expect(row('protection')?.high).toBeCloseTo(16.5, 6)
  })
  it('are none without a set point', () => {
    const bare = new Job({ family: 'spring-regulator', kind: 'spring regulator' })
    expect(stackOf(bare.state, shippedLibrary, 'as-found')).toBeNull()
  })
})
describe('the instrument of a reading', () => {
  const loading = (channel: string, item = 'loading') => {
    const job = new Job({
      family: 'sleeve-pilot-regulator',
      kind: 'pilot regulator',
      packId: 'larkhaven-gas-at-flow',
      service: 'gas',
    })
      .done('prepare')
      .must('identity', { outcome: 'confirmed' })
      .done('arrive')
      .startTest('as-found')
    const reading = {
      dimension: 'gaugePressure',
      value: '12',
      unit: 'psi',
      source: 'typed',
    } as const
    return job.write('reading', { run: 'as-found', item, ...reading, channel }).refused?.why
  }
  it('is one of the run, or the gauge of the equipment where the step reads that', () => {
    expect(loading('G-1/main')).toBeUndefined()
    expect(loading('aside')).toBeUndefined()
    expect(loading('aside', 'set')).toContain('is no instrument')
    expect(loading('G-9/main')).toContain('is no instrument')
  })
})
describe('a reading that is held', () => {
  /** Fifty samples, five seconds. */
  const FIVE_S = 'T1 0.1 0.01 psi|1*50'
  const refused = (more: object) => {
    const reading = { dimension: 'gaugePressure', value: '10.4', unit: 'psi' } as const
    const job = regulator()
    job.write('reading', {
      run: 'as-found',
      item: 'creep',
      ...reading,
      source: 'streamed',
      ...more,
    })
    return job.refused?.why
  }
  const trace = (data: string) => ({ trace: { data, mark: 0, found: 0 } })
  const SHORT = 'Its trace does not show that it was held so long.'
  it('is believed no longer than its trace lasts', () => {
    expect(refused({ heldS: 5, ...trace(FIVE_S) })).toBeUndefined()
    expect(refused({ heldS: 5.1, ...trace(FIVE_S) })).toBe(SHORT)
    expect(refused({ heldS: 300 })).toBe(SHORT)
    expect(refused({ heldS: 1, ...trace('no trace') })).toBe(SHORT)
  })
  it('stands beside what a recorder can have shown at the same time', () => {
    const beside = (more: object = {}) => [
      { place: 'body-1', value: '60.1', low: '59.8', high: '60.3', unit: 'psi', ...more },
    ]
    const STRANGE = 'A recorder cannot have shown what stands beside it.'
    expect(refused({ ...trace(FIVE_S), beside: beside() })).toBeUndefined()
    expect(refused({ ...trace(FIVE_S), beside: beside({ low: '60.2' }) })).toBe(STRANGE)
    expect(refused({ ...trace(FIVE_S), beside: beside({ high: '60.0' }) })).toBe(STRANGE)
    expect(refused({ ...trace(FIVE_S), beside: beside({ unit: 'mm' }) })).toBe(STRANGE)
    expect(refused({ ...trace(FIVE_S), beside: beside({ place: 'attic' }) })).toBe(STRANGE)
    expect(refused({ beside: beside(), source: 'typed' })).toBe(STRANGE)
  })
  it('is the tester’s word when it was typed, and says nothing when it says nothing', () => {
    expect(refused({ heldS: 300, source: 'typed' })).toBeUndefined()
    expect(refused(trace(FIVE_S))).toBeUndefined()
  })
})
describe('a test that reads pressures', () => {
  it('is not begun without a gauge', () => {
    const job = new Job({
      family: 'spring-regulator',
      kind: 'spring regulator',
      packId: 'larkhaven-gas-at-flow',
    })
      .done('prepare')
      .must('identity', { outcome: 'confirmed' })
      .done('arrive')
    const licence = job.context.person.licences.find((l) => l.kind === 'gas-regulator')
    if (!licence) throw new Error('no licence')
    job.write('test-started', {
      run: 'as-found',
      procedureId: 'regulator-run',
      procedureVersion: 1,
      packVersion: 1,
      instruments: [],
      licence,
    })
    expect(job.refused?.why).toBe('No gauge is chosen, and pressures are read.')
  })
})
