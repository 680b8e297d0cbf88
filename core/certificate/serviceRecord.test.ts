import { describe, expect, it } from 'vitest'
import { Job, shippedLibrary } from '../testing'
import { shippedGuides } from '../testing/guides'
import { serviceRecord } from './serviceRecord'

const psi = (value: string) => ({ dimension: 'gaugePressure' as const, value, unit: 'psi' })

describe('what a visit did besides readings and repair', () => {
  const overhauled = () => {
    const job = new Job({ family: 'threaded-lid-cylinder', kind: 'cylinder' })
    const guide = shippedGuides.find((g) => g.id === 'threaded-lid-cylinder')
    if (!guide) throw new Error('the guide has gone')
    return job
      .choose(guide, guide.variants[0]?.id ?? '')
      .toMakeSafe()
      .toAsLeft()
  }
  it('says what was lubricated with what, and what was tightened to which figure', () => {
    const says = serviceRecord(overhauled().state, shippedLibrary)
    expect(says.some((s) => /grease|jelly|oil|sachet/.test(s))).toBe(true)
    expect(new Set(says).size).toBe(says.length)
  })
  it('adds up the turns of an adjuster', () => {
    const job = new Job({
      family: 'spring-regulator',
      kind: 'spring regulator',
      packId: 'larkhaven-gas-at-flow',
      service: 'gas',
      nominals: [{ name: 'set-point', value: psi('10') }],
    })
    job.done('prepare').must('identity', { outcome: 'confirmed' }).done('arrive')
    job.must('as-found-impossible', { reason: 'Gas off' }).done('as-found').done('make-safe')
    job.done('open-up').must('repair', { text: 'Cleaned', parts: [] }).done('rebuild')
    job.must('adjusted', { adjuster: 'regulator', way: 'in', turns: '1' })
    job.must('adjusted', { adjuster: 'regulator', way: 'out', turns: '0.25' })
    expect(serviceRecord(job.state, shippedLibrary)).toEqual([
      'Adjuster of the regulator: 0.75 turns in.',
    ])
    job.must('adjusted', { adjuster: 'regulator', way: 'out', turns: '0.75' })
    expect(serviceRecord(job.state, shippedLibrary)).toEqual([
      'Adjuster of the regulator: turned and put back where it was.',
    ])
  })
  it('says nothing of a visit that only looked', () => {
    const job = new Job({ family: 'spring-regulator', kind: 'spring regulator' }).done('prepare')
    expect(serviceRecord(job.state, shippedLibrary)).toEqual([])
  })
})
