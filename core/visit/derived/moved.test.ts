import { describe, expect, it } from 'vitest'
import { Job, type JobOptions } from '../../testing'
import { movedSince } from '..'

const previous = {
  on: '2025-06-01',
  readings: [
    { item: 'check-1', dimension: 'differential' as const, value: '50.0', unit: 'kPa' },
    { item: 'relief-opening', dimension: 'differential' as const, value: '2.4', unit: 'psi' },
  ],
}
const tested = (value: string, more: Pick<JobOptions, 'previous'> = { previous }) => {
  const job = new Job({
    family: 'reduced-pressure-assembly',
    kind: 'RP',
    packId: 'larkhaven-relief-first',
    ...more,
  })
    .done('prepare')
    .must('identity', { outcome: 'confirmed' })
    .done('arrive')
    .startTest('as-found')
    .must('answer', { run: 'as-found', item: 'relief-at-rest', answer: 'dry', label: 'Dry' })
    .must('answer', { run: 'as-found', item: 'shutoff-2', answer: 'tight', label: 'Tight' })
  job.must('reading', {
    run: 'as-found',
    item: 'relief-opening',
    dimension: 'differential',
    value,
    unit: 'psi',
    source: 'typed',
  })
  return movedSince(job.state)
}

describe('what has moved since the last visit', () => {
  it('is what was read as found less what was left, with its sign', () => {
    expect(tested('2.1')).toEqual([
      { item: 'relief-opening', on: '2025-06-01', left: '2.4', unit: 'psi', by: '-0.3' },
    ])
    expect(tested('2.9')[0]?.by).toBe('+0.5')
    expect(tested('2.4')[0]?.by).toBe('0.0')
  })
  it('is told in the unit that is read now', () => {
    const left = { item: 'relief-opening', dimension: 'differential' as const, value: '20.0' }
    const inKpa = { ...previous, readings: [{ ...left, unit: 'kPa' }] }
    // 20 kPa are 2.901 psi.
    expect(tested('2.4', { previous: inKpa })[0]).toMatchObject({ left: '2.9', by: '-0.5' })
  })
  it('is not told of what was never read, or is another quantity', () => {
    const line = {
      item: 'relief-opening',
      dimension: 'gaugePressure' as const,
      value: '2',
      unit: 'psi',
    }
    expect(tested('2.1', { previous: { ...previous, readings: [line] } })).toEqual([])
    expect(tested('2.1', {})).toEqual([])
  })
})
