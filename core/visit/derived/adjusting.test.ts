import { describe, expect, it } from 'vitest'
import { Job, shippedLibrary } from '../../testing'
import { adjustingOf, verdictOf } from '..'

const psi = (value: string) => ({ dimension: 'gaugePressure' as const, value, unit: 'psi' })
type Pack = 'larkhaven-gas-at-flow' | 'larkhaven-gas-at-lock-up'

/** A regulator whose as-found test is behind it, back under pressure, in its as-left test. */
function toBeSet(found: string, { pack = 'larkhaven-gas-at-lock-up' as Pack, high = '14' } = {}) {
  const job = new Job({
    family: 'spring-regulator',
    kind: 'spring regulator',
    packId: pack,
    service: 'gas',
    nominals: [
      { name: 'set-point', value: psi('10') },
      { name: 'spring-low', value: psi('7') },
      { name: 'spring-high', value: psi(high) },
    ],
  })
    .done('prepare')
    .must('identity', { outcome: 'confirmed' })
    .done('arrive')
    .startTest('as-found')
  set(job, 'as-found', found)
  job.must('as-found-impossible', { reason: 'Gas off before the run was through' })
  job.done('as-found').done('make-safe').done('open-up')
  return job.must('repair', { text: 'Set anew', parts: [] }).done('rebuild').done('return')
}
const set = (job: Job, run: 'as-found' | 'as-left', value: string) =>
  job.must('reading', {
    run,
    item: 'set',
    dimension: 'gaugePressure',
    value,
    unit: 'psi',
    source: 'typed',
  })
const turn = (job: Job, way: 'in' | 'out', turns: string, adjuster = 'regulator') =>
  job.must('adjusted', { adjuster, way, turns })
const help = (job: Job, adjuster = 'regulator') =>
  adjustingOf(job.state, shippedLibrary).find((a) => a.adjuster.id === adjuster)

describe('help with an adjuster', () => {
  it('says which way, and to learn first what a turn does', () => {
    expect(help(toBeSet('8.8'))?.next).toBe('learn-in')
    expect(help(toBeSet('11.6'))?.next).toBe('learn-out')
  })
  it('then says how much, from the slope seen so far', () => {
    const job = toBeSet('8.8').startTest('as-left')
    set(turn(job, 'in', '0.5'), 'as-left', '9.4')
    // Half a turn raised it by 0.6 psi: 1.2 a turn, and 0.6 are left.
    expect(help(job)?.perTurn).toBeCloseTo(1.2, 6)
    expect(help(job)?.turns).toBeCloseTo(0.5, 6)
    expect(help(job)?.next).toBe('turn-in')
  })
  it('counts turns out against turns in', () => {
    const job = toBeSet('8.8').startTest('as-left')
    set(turn(turn(job, 'in', '1'), 'out', '0.5'), 'as-left', '9.4')
    expect(help(job)?.perTurn).toBeCloseTo(1.2, 6)
  })
  it('learns nothing from two screws turned between two readings', () => {
    const job = toBeSet('8.8').startTest('as-left')
    set(turn(turn(job, 'in', '0.5'), 'in', '0.5', 'relief'), 'as-left', '9.4')
    expect(help(job)?.perTurn).toBeUndefined()
  })
  it('wants another spring for what lies outside its range', () => {
    expect(help(toBeSet('8.8', { high: '9' }))?.next).toBe('change-spring')
  })
  it('leaves alone what is within tolerance where the pack is of that school', () => {
    expect(help(toBeSet('9.6', { pack: 'larkhaven-gas-at-flow' }))?.next).toBe('leave-alone')
    expect(help(toBeSet('9.6', { pack: 'larkhaven-gas-at-lock-up' }))?.next).toBe('learn-in')
    expect(help(toBeSet('8.0', { pack: 'larkhaven-gas-at-flow' }))?.next).toBe('learn-in')
  })
  it('has nothing to say before anything was read, or without a nominal value', () => {
    expect(help(toBeSet('8.8'), 'relief')?.next).toBe('enter-nominal')
  })
})

describe('zero and span of a positioner', () => {
  const stroked = (zero: string, full: string) => {
    const job = new Job({
      family: 'motor-control-valve',
      kind: 'control valve',
      packId: 'larkhaven-valves-and-actuators',
    })
      .done('prepare')
      .must('identity', { outcome: 'confirmed' })
      .done('arrive')
      .startTest('as-found')
    for (const [item, value] of [
      ['up-0', zero],
      ['up-100', full],
    ] as const) {
      const travel = { dimension: 'fraction' as const, value, unit: '%', source: 'typed' as const }
      job.must('reading', { run: 'as-found', item, ...travel })
    }
    return job
  }
  it('are set in that order', () => {
    expect(help(stroked('4.0', '104.0'), 'span')?.next).toBe('another-first')
    expect(help(stroked('4.0', '104.0'), 'zero')?.next).toBe('learn-out')
    expect(help(stroked('0.2', '104.0'), 'span')?.next).toBe('learn-out')
  })
})

describe('turning an adjuster', () => {
  it('is refused before what was found is on record', () => {
    const job = new Job({ family: 'spring-regulator', kind: 'spring regulator' }).done('prepare')
    job.write('adjusted', { adjuster: 'regulator', way: 'in', turns: '1' })
    expect(job.refused?.code).toBe('setting-too-early')
  })
  it('is refused for a screw that is not there, and for no turns', () => {
    const job = toBeSet('8.8')
    job.write('adjusted', { adjuster: 'zero', way: 'in', turns: '1' })
    expect(job.refused?.code).toBe('adjuster-unknown')
    job.write('adjusted', { adjuster: 'regulator', way: 'in', turns: '0' })
    expect(job.refused?.code).toBe('turns-missing')
  })
  it('takes the meaning of every reading of the as-left test before it', () => {
    const job = toBeSet('8.8').startTest('as-left')
    set(job, 'as-left', '10')
    const item = () =>
      verdictOf(job.state, 'as-left', shippedLibrary)?.items.find((i) => i.id === 'set')
    const before = item()
    turn(job, 'in', '1')
    expect(before?.outcome).toBe('pass')
    expect(item()).toMatchObject({ outcome: 'not-assessed', code: 'before-adjustment' })
    set(job, 'as-left', '10.1')
    expect(item()?.outcome).toBe('pass')
  })
})
