import { describe, expect, it } from 'vitest'
import { Job } from '../../testing'
import { correctionsMade } from '../../certificate'
import { foldVisit } from '../log/fold'

const job = () =>
  new Job({ family: 'reduced-pressure-assembly', kind: 'RP', packId: 'larkhaven-relief-first' })
const last = (j: Job, n = 1) => j.events.slice(-n).map((e) => e.id)
/** Arrived, with the identity confirmed. */
const arrived = () =>
  job().must('station-done', { station: 'prepare' }).must('identity', { outcome: 'confirmed' })

describe('what one press wrote', () => {
  it('is taken back at once: the work stands as before, the log keeps both', () => {
    const j = arrived()
    const before = j.state
    j.must('station-done', { station: 'arrive' })
    expect(j.state.done).toContain('arrive')
    j.must('undone', { of: last(j) })
    expect(j.state.done).toEqual(before.done)
    expect(j.events.map((e) => e.kind)).toEqual([
      'planned',
      'station-done',
      'identity',
      'station-done',
      'undone',
    ])
    expect(j.state).toEqual(foldVisit(j.events))
    // The way is free again.
    j.must('station-done', { station: 'arrive' })
    expect(j.state.done).toContain('arrive')
  })
  it('is taken back whole, valves and step alike', () => {
    const j = job()
    j.must('valve-moved', { element: 'shutoff-2', to: 'shut' })
    j.must('valve-moved', { element: 'shutoff-1', to: 'shut' })
    j.must('undone', { of: last(j, 2) })
    expect(j.state.valves).toEqual({})
  })
  it('is no correction that a certificate has to name', () => {
    const j = arrived().must('station-done', { station: 'arrive' })
    j.must('undone', { of: last(j) })
    expect(correctionsMade(j.events)).toEqual([])
  })
  it.each([
    [
      'once something came after it',
      (j: Job) => j.must('note', { station: 'arrive', text: 'Gate open' }),
      (j: Job) => [last(j, 2)[0] ?? ''],
    ],
    ['a minute and more later', (j: Job) => j.wait(1.1), (j: Job) => last(j)],
    ['twice', (j: Job) => j.must('undone', { of: last(j) }), (j: Job) => last(j, 2)],
    [
      'where a note says something',
      (j: Job) => j.must('note', { station: 'arrive', text: 'Gate open' }),
      (j: Job) => last(j),
    ],
    ['in another visit', (j: Job) => j, () => ['018f0000-0000-7000-8000-000000000999']],
  ])('is not %s', (_, meanwhile, of) => {
    const j = arrived().must('station-done', { station: 'arrive' })
    meanwhile(j)
    const before = j.state
    j.write('undone', { of: of(j) })
    expect(j.refused).not.toBeNull()
    expect(j.state).toBe(before)
  })
  it('is not taken back by a clock that was set back', () => {
    const j = arrived().must('station-done', { station: 'arrive' })
    const [id] = last(j)
    j.wait(-5).write('undone', { of: [id ?? ''] })
    expect(j.refused?.why).toBe('It was recorded too long ago.')
  })
})
