import { describe, expect, it } from 'vitest'
import { check } from '../schema'
import { shippedLibrary } from '../testing/library'
import { CannotCompute, compute, computationNamed, computations } from '.'

describe('every computation', () => {
  it.each(computations.map((c) => [c.name, c] as const))('%s answers its own example', (_, c) => {
    const answer = compute(c, c.example, shippedLibrary)
    expect(() => check(c.output, answer)).not.toThrow()
    expect(() => compute(c, { ...(c.example as object), stranger: 1 }, shippedLibrary)).toThrow(
      /stranger/,
    )
  })
  it('has a name of its own', () => {
    expect(new Set(computations.map((c) => c.name)).size).toBe(computations.length)
  })
})

describe('simulate-assembly', () => {
  const simulate = (more: object) =>
    compute(
      computationNamed('simulate-assembly'),
      {
        rulePack: 'larkhaven-relief-first',
        kind: 'RP',
        sizeIn: 2,
        supplyKpa: 450,
        faults: [],
        ...more,
      },
      shippedLibrary,
    ) as { verdict: { outcome: string } }
  it('passes a healthy assembly and fails a fouled one', () => {
    expect(simulate({}).verdict.outcome).toBe('pass')
    const faults = [{ element: 'check-1', fault: 'fouled', severity: 0.4 }]
    expect(simulate({ faults }).verdict.outcome).toBe('fail')
  })
  it.each([
    [{ faults: [{ element: 'check-3', fault: 'fouled', severity: 0.4 }] }, /no “check-3”/],
    [{ faults: [{ element: 'relief', fault: 'disc-cut', severity: 0.4 }] }, /happens to a check/],
    [{ rulePack: 'nobody' }, /Known: larkhaven/],
    [{ kind: 'DC', rulePack: 'larkhaven-metric-zone' }, /DC/],
  ])('says what is wrong with %o', (more, words) => {
    expect(() => simulate(more)).toThrow(CannotCompute)
    expect(() => simulate(more)).toThrow(words)
  })
})
