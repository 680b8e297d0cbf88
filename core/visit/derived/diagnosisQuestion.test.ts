import { describe, expect, it } from 'vitest'
import { guideOpens, guidesOf } from '../../library'
import { Job, type JobOptions, shippedLibrary } from '../../testing'
import { diagnosisQuestion } from '..'

const dc = { family: 'tower-double-check', kind: 'DC', packId: 'larkhaven-relief-first' } as const
/** A double check tested as found, with these differentials of its two checks. */
function tested([check1, check2]: readonly [string, string], options: JobOptions = dc): Job {
  const job = new Job(options)
    .done('prepare')
    .must('identity', { outcome: 'confirmed' })
    .done('arrive')
    .startTest('as-found')
  const answer = (item: string, of: string) =>
    job.must('answer', { run: 'as-found', item, answer: of, label: of })
  const reading = (item: string, value: string) =>
    job.must('reading', {
      run: 'as-found',
      item,
      dimension: 'differential',
      value,
      unit: 'psi',
      source: 'typed',
      gaugeAbovePort: { value: '300', unit: 'mm' },
    })
  answer('outside', 'none')
  answer('shutoff-2', 'tight')
  reading('check-1', check1)
  answer('cock-3-stopped', 'stopped')
  reading('check-2', check2)
  answer('cock-4-stopped', 'stopped')
  return job
}
const finished = (values: readonly [string, string]) =>
  tested(values).must('test-finished', { run: 'as-found' })
const question = (job: Job) => diagnosisQuestion(job.state, shippedLibrary, 'as-found')

describe('what is asked of the model', () => {
  it('is what was read and seen by a test that did not pass, on equipment as it is known', () => {
    const asked = question(finished(['0.3', '2.1']))
    expect(asked?.site).toMatchObject({ kind: 'DC', sizeIn: 2, gaugeAbovePortM: 0.3 })
    expect(asked?.found.readings.map((r) => [r.item, r.value, r.unit])).toEqual([
      ['check-1', '0.3', 'psi'],
      ['check-2', '2.1', 'psi'],
    ])
    expect(asked?.found.answers).toContainEqual({ item: 'shutoff-2', answer: 'tight' })
    expect(asked?.procedure.kind).toBe('DC')
  })
  it('is nothing after a pass, nor before the test is finished, nor without a test', () => {
    expect(question(finished(['2.3', '2.1']))).toBeNull()
    expect(question(tested(['0.3', '2.1']))).toBeNull()
    expect(question(new Job(dc))).toBeNull()
  })
})

describe('the guide that comes to what is at fault', () => {
  const coming = (family: string, element: string) =>
    guidesOf(shippedLibrary, family)
      .filter((g) => guideOpens(shippedLibrary, g, element))
      .map((g) => g.id)
      .sort()
  it('is that of the relief for the relief, and those of the checks for a check', () => {
    expect(coming('reduced-pressure-assembly', 'relief')).toEqual(['rp-relief'])
    expect(coming('reduced-pressure-assembly', 'check-2')).toEqual([
      'cartridge-check',
      'spring-cover-check',
    ])
  })
  it('is none for a shutoff, which no guide takes apart', () => {
    expect(coming('reduced-pressure-assembly', 'shutoff-2')).toEqual([])
  })
})
