import { Job } from '@uvanta/core/testing'

/** A double check that was tested as found; its second check was read so. */
export function testedDoubleCheck(check2 = '0.6'): Job {
  const job = new Job({ family: 'tower-double-check', kind: 'DC', packId: 'larkhaven-check-first' })
    .done('prepare')
    .must('identity', { outcome: 'confirmed' })
    .done('arrive')
  const run = 'as-found'
  job.startTest(run)
  job.must('answer', { run, item: 'outside', answer: 'none', label: 'None' })
  job.must('answer', { run, item: 'shutoff-2', answer: 'tight', label: 'Tight' })
  for (const [item, value] of [
    ['check-1', '2.4'],
    ['check-2', check2],
  ] as const) {
    job.must('reading', {
      run,
      item,
      dimension: 'differential',
      value,
      unit: 'psi',
      source: 'typed',
    })
  }
  return job.must('test-finished', { run })
}
