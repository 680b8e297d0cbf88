import { Job, shippedLibrary } from '@uvanta/core/testing'
import { testPlanOf } from '@uvanta/core/library'
import { describe, expect, it } from 'vitest'
import { handsDone, handsInOneGo } from './handsInOneGo'

const { procedure } = testPlanOf(shippedLibrary, 'larkhaven-relief-first', 'RP')
const steps = procedure.steps
const from = (id: string, streaming: boolean) =>
  handsInOneGo(
    steps,
    steps.find((s) => s.id === id)!,
    streaming,
  ).map((s) => s.id)

describe('what hands do in one go in a test', () => {
  it('goes as far as the hands of what is read next, with the gauge on the line', () => {
    expect(from('flush', true)).toEqual(['flush', 'hoses', 'open-low', 'open-high'])
    expect(from('hoses', true)).toEqual(['flush', 'hoses', 'open-low', 'open-high'])
    expect(from('restore-zone', true)).toEqual(['restore-zone', 'check-2'])
  })
  it('ends before what is read where that is typed', () => {
    expect(from('open-low', false)).toEqual(['flush', 'hoses', 'open-low'])
    expect(from('restore-zone', false)).toEqual([])
  })
  it('is nothing where a hazard warns, where something is read, and at the end', () => {
    for (const id of ['close-2', 'relief', 'check-1', 'restore']) expect(from(id, true)).toEqual([])
  })
  it('is done once every turn is made, though nothing is read yet', () => {
    const job = new Job({
      family: 'reduced-pressure-assembly',
      kind: 'RP',
      packId: 'larkhaven-relief-first',
    })
    const step = steps.find((s) => s.id === 'close-2')!
    expect(handsDone(step, job.state, 'as-found')).toBe(false)
    job.must('valve-moved', { element: 'shutoff-2', to: 'shut' })
    expect(handsDone(step, job.state, 'as-found')).toBe(true)
  })
})
