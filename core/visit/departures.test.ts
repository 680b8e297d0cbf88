import { describe, expect, it } from 'vitest'
import type { Guide, PlacedStep } from '../guide'
import { Job, shippedLibrary } from '../testing'

const guide = (id: string) => shippedLibrary.guides.find((g) => g.id === id) as Guide
const WHY = { departure: 'No air on the bench' }

/** Up to a step of a station, with everything before it done as written. */
function at(
  job: Job,
  stations: readonly PlacedStep['at'][],
  until: (s: PlacedStep) => boolean,
): Job {
  job.toMakeSafe()
  for (const station of stations.slice(0, -1))
    job.carryOut(station as 'make-safe').done(station as 'make-safe')
  return job.carryOut(stations.at(-1) as 'make-safe', until)
}
const jet = () =>
  new Job({ family: 'high-pressure-water-valve', kind: 'high-pressure valve' }).choose(
    guide('high-pressure-water-valve'),
    'normally-closed',
  )
const asking = (job: Job, extra: object = {}) => {
  const station = job.state.guideSteps.at(-1)?.at as 'open-up'
  const step = job.due(station)
  return job.write('guide-step', { step: step?.id ?? '', at: station, ...extra }).refused
}

describe('a departure', () => {
  it('comes back at the step that rests on it: torque “with the air on”, and no air', () => {
    const job = at(jet(), ['make-safe', 'open-up'], (s) => s.air === 'on')
    const air = job.due('open-up')
    job.must('guide-step', { step: air?.id ?? '', at: 'open-up', ...WHY })
    expect(job.due('open-up')?.withAir).toBe(true)
    expect(asking(job)).toMatchObject({
      code: 'rests-on-departure',
      params: { rule: 'air-missing' },
    })
    // Recorded with its own reason it stays readable on the record; in silence it is never taken.
    expect(asking(job, WHY)).toBeNull()
  })
  it('does not come back where the step was done as written', () => {
    const job = at(jet(), ['make-safe', 'open-up'], (s) => s.withAir === true)
    expect(asking(job)).toBeNull()
  })
  it('from a proof of zero lets nothing be opened in silence', () => {
    const job = at(
      new Job({ family: 'spool-valve', kind: 'spool valve' }).choose(guide('spool-valve'), 'usual'),
      ['make-safe'],
      (s) => s.prove === 'drive-air',
    )
    const proof = job.due('make-safe')
    job.must('guide-step', { step: proof?.id ?? '', at: 'make-safe', ...WHY })
    job.carryOut('make-safe').done('make-safe')
    job.carryOut('open-up', (s) => s.remove === 'snap-ring')
    expect(asking(job)).toMatchObject({
      code: 'rests-on-departure',
      params: { rule: 'opened-live' },
    })
    // What the instrument shows makes it good.
    job.proveZone('drive-air')
    expect(asking(job)).toBeNull()
  })
  it('leaves valves to their own record: a shutoff opened on the drawing stays the step’s own turn', () => {
    const job = new Job({
      family: 'double-check-detector',
      kind: 'DCDA',
      defects: { 'rubber-1': ['embossed'] },
      findings: { 'rubber-1': 'turn-over' },
    }).choose(guide('double-check-detector'), 'two-checks')
    job.toMakeSafe().carryOut('make-safe').done('make-safe').carryOut('open-up').done('open-up')
    job.must('repair', { text: 'By the guide', parts: [] })
    job.carryOut('rebuild').closeKit().done('rebuild')
    // The helper turns each valve before it records the step, as a press on the drawing does.
    job.carryOut('return')
    const opened = job.state.guideSteps.filter((s) => s.at === 'return')
    expect(opened.filter((s) => s.departure !== undefined)).toEqual([])
    expect(job.state.valves['shutoff-1']).toBe('open')
  })
})
