import { describe, expect, it } from 'vitest'
import type { Guide, PlacedStep } from '../guide'
import { Job, shippedLibrary } from '../testing'

const guide = (id: string) => shippedLibrary.guides.find((g) => g.id === id) as Guide

describe('hands and air', () => {
  const air = (s: PlacedStep) => s.air === 'on'
  const pressing = () =>
    new Job({ family: 'double-seat-valve', kind: 'mix-proof valve' })
      .choose(guide('double-seat-valve'), 'usual', true, ['upper', 'lower'])
      .toMakeSafe()
      .carryOut('make-safe')
      .done('make-safe')
      .carryOut('open-up')
      .done('open-up')
      .carryOut('rebuild', air)
  it('never come together, whatever reason is given', () => {
    const job = pressing()
    const off = job.run.steps.filter((s) => s.at === 'rebuild')
    const on = job.due('rebuild')
    if (!on) throw new Error('no air')
    const later = off.slice(off.indexOf(on) + 1)
    const hand = later.find((s) => s.renew)?.id ?? ''
    const early = { step: hand, at: 'rebuild', departure: 'It is quicker so' } as const
    expect(job.write('guide-step', early).refused).toBeNull()
    const under = pressing().doStep(on)
    expect(under.write('guide-step', early).refused?.code).toBe('air-on')
    const lubricated = later.find((s) => s.lubricate)?.id ?? ''
    expect(under.write('guide-step', { ...early, step: lubricated }).refused?.code).toBe('air-on')
    // What needs no hand in it may be done; with the air off again, so may the rest.
    const looked = later.find((s) => s.trial)?.id ?? ''
    expect(under.write('guide-step', { ...early, step: looked }).refused).toBeNull()
    under.carryOut('rebuild', (s) => Boolean(s.renew))
    expect(
      under.write('guide-step', { step: under.due('rebuild')?.id ?? '', at: 'rebuild' }).refused,
    ).toBeNull()
  })
})

describe('hands and power', () => {
  it('never come together, from when the equipment is found until it is off', () => {
    const motor = guide('motor-control-valve')
    const job = new Job({ family: 'motor-control-valve', kind: 'control valve' })
      .choose(motor, motor.variants[0]?.id ?? '')
      .toMakeSafe()
      .carryOut('make-safe', (s) => s.power === 'off')
    const hand = job.run.steps.find((s) => s.remove === 'drive')?.id ?? ''
    const early = { step: hand, at: 'make-safe', departure: 'It is quicker so' } as const
    expect(job.write('guide-step', early).refused?.code).toBe('power-on')
    job.carryOut('make-safe', (s) => s.remove === 'drive')
    expect(job.write('guide-step', { step: hand, at: 'make-safe' }).refused).toBeNull()
  })
})

describe('a photograph that is asked for', () => {
  it('is taken, or said not to be', () => {
    const job = new Job({ family: 'spring-cylinder-actuator', kind: 'actuator' })
      .choose(guide('spring-cylinder'), 'to-open')
      .carryOut('prepare')
      .done('prepare')
      .must('identity', { outcome: 'confirmed' })
      .carryOut('arrive', (s) => Boolean(s.photograph))
    const step = job.due('arrive')?.id ?? ''
    const write = (more = {}) => job.write('guide-step', { step, at: 'arrive', ...more }).refused
    expect(write()?.code).toBe('photo-missing')
    job.must('photo', {
      photoId: '018f0000-0000-7000-8004-000000000009',
      station: 'arrive',
      step,
      caption: 'Tubing',
    })
    expect(write()).toBeNull()
  })
})
