import { describe, expect, it } from 'vitest'
import { Job, shippedLibrary } from '../../testing'
import { strokeOfRun } from '..'

const valve = () =>
  new Job({
    family: 'motor-control-valve',
    kind: 'control valve',
    packId: 'larkhaven-valves-and-actuators',
  })
    .done('prepare')
    .must('identity', { outcome: 'confirmed' })
    .done('arrive')
    .startTest('as-found')
const travel = (job: Job, item: string, value: string) =>
  job.must('reading', {
    run: 'as-found',
    item,
    dimension: 'fraction',
    value,
    unit: '%',
    source: 'typed',
  })
const POINTS = ['0', '25', '50', '75', '100']
const stroked = (up: (at: number) => number, down: (at: number) => number) => {
  const job = valve()
  for (const at of POINTS) travel(job, `up-${at}`, String(up(Number(at))))
  for (const at of [...POINTS].reverse()) travel(job, `down-${at}`, String(down(Number(at))))
  return strokeOfRun(job.state, shippedLibrary, 'as-found')
}

describe('the stroke of a run', () => {
  it('has signal and travel of every point read, and the way it was come to', () => {
    const stroke = stroked(
      (at) => at,
      (at) => at + 1,
    )
    expect(stroke?.points).toHaveLength(10)
    expect(stroke?.points[1]).toEqual({ way: 'up', signal: 25, travel: 25 })
    expect(stroke?.points[5]).toEqual({ way: 'down', signal: 100, travel: 101 })
    expect(stroke?.points[9]).toEqual({ way: 'down', signal: 0, travel: 1 })
    expect(stroke?.judged?.hysteresis).toBeCloseTo(1, 6)
  })
  it('says what is set first: zero before span', () => {
    const off = (at: number) => at * 1.06 + 4
    expect(stroked(off, off)?.judged?.first).toBe('zero')
    const long = (at: number) => at * 1.06
    expect(stroked(long, long)?.judged?.first).toBe('span')
  })
  it('looks for friction before anything is set when up and down differ', () => {
    const stroke = stroked(
      (at) => (at > 0 && at < 100 ? at - 3 : at),
      (at) => (at > 0 && at < 100 ? at + 3 : at),
    )
    expect(stroke?.judged?.first).toBe('friction')
  })
  it('is not judged before it has been up and down', () => {
    const job = travel(travel(valve(), 'up-0', '0'), 'up-25', '24')
    const stroke = strokeOfRun(job.state, shippedLibrary, 'as-found')
    expect(stroke?.points).toHaveLength(2)
    expect(stroke?.judged?.outcome).toBe('not-assessed')
  })
  it('is none of a regulator', () => {
    const job = new Job({
      family: 'spring-regulator',
      kind: 'spring regulator',
      packId: 'larkhaven-gas-at-flow',
    })
    expect(strokeOfRun(job.state, shippedLibrary, 'as-found')).toBeNull()
  })
})

describe('what is put on equipment', () => {
  const signal = {
    source: 'signal',
    to: { dimension: 'fraction' as const, value: '25', unit: '%' },
  }
  it('is what it takes, in the quantity of that source', () => {
    const job = valve().must('applied', signal)
    expect(job.state.applied).toEqual({ signal: signal.to })
    job.write('applied', { ...signal, source: 'air' })
    expect(job.refused?.code).toBe('source-unknown')
    job.write('applied', { ...signal, to: { dimension: 'gaugePressure', value: '9', unit: 'psi' } })
    expect(job.refused?.code).toBe('dimension-differs')
  })
  it('counts as a hand’s move of the step, once', () => {
    const job = valve().must('applied', signal)
    expect(job.state.handsSinceStep).toEqual([signal])
  })
})
