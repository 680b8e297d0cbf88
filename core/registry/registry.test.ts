import { describe, expect, it } from 'vitest'
import { check } from '../schema'
import { shippedLibrary } from '../testing/library'
import { CannotCompute } from '../errors'
import { compute, computationNamed, computations } from '.'

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
    [{ rulePack: 'nobody' }, /Choose one of larkhaven/],
    [{ kind: 'DC', rulePack: 'larkhaven-metric-zone' }, /DC/],
  ])('says what is wrong with %o', (more, words) => {
    expect(() => simulate(more)).toThrow(CannotCompute)
    expect(() => simulate(more)).toThrow(words)
  })
})

describe('zones and plan-isolation', () => {
  const ask = (name: string, input: object) =>
    compute(computationNamed(name), input, shippedLibrary) as Record<string, unknown>
  it('agree: after the plan’s moves and a reading, every space inside is proved', () => {
    const subject = { kind: 'RP', guide: 'cartridge-check' }
    const { moves } = ask('plan-isolation', subject) as {
      moves: { kind: string; valve?: string; zone?: string }[]
    }
    const openings = Object.fromEntries(
      moves.flatMap((m) => (m.valve ? [[m.valve, m.kind === 'shut' ? 'shut' : 'open']] : [])),
    )
    const proved = moves.flatMap((m) => m.zone ?? [])
    const { spaces } = ask('zones', { ...subject, openings, proved }) as {
      spaces: { state: string; source: boolean }[]
    }
    expect(spaces.filter((s) => !s.source).map((s) => s.state)).toEqual([
      'proved',
      'proved',
      'proved',
    ])
    expect(spaces.filter((s) => s.source).map((s) => s.state)).toEqual(['live', 'live'])
  })
  it('name where energy stays', () => {
    const { stored } = ask('plan-isolation', { kind: 'actuator', guide: 'spring-cylinder' })
    expect(stored).toMatchObject([{ id: 'main-spring', controlled: false }])
  })
  it.each([
    ['zones', { kind: 'toaster' }, /Nothing is known.*“toaster”/],
    [
      'zones',
      { kind: 'RP', openings: { 'shutoff-9': 'shut' } },
      /no valve “shutoff-9”.*Choose from cock-1/,
    ],
    ['zones', { kind: 'RP', guide: 'nobody' }, /no guide “nobody”/],
    [
      'plan-isolation',
      { kind: 'actuator', guide: 'spring-cylinder', variant: 'sideways' },
      /no variant “sideways”.*to-closed/,
    ],
  ])('%s of %o: says what is wrong', (name, input, words) => {
    expect(() => ask(name, input)).toThrow(CannotCompute)
    expect(() => ask(name, input)).toThrow(words)
  })
  it('take openings that there are', () => {
    expect(() => ask('zones', { kind: 'RP', openings: { 'cock-2': 'ajar' } })).toThrow(
      /shut, crack/,
    )
  })
})

describe('throw-symmetry', () => {
  const thrown = (one: string, other: string, unit = 'mm') =>
    compute(
      computationNamed('throw-symmetry'),
      { one: { value: one, unit: 'mm' }, other: { value: other, unit } },
      shippedLibrary,
    ) as { equal: boolean }
  it('compares in one unit', () => {
    expect(thrown('25.4', '1.0', 'in').equal).toBe(true)
    expect(thrown('25.4', '0.5', 'in').equal).toBe(false)
  })
  it('declines what was not thrown', () => {
    expect(() => thrown('0', '0')).toThrow(CannotCompute)
  })
})

describe('convert-quantity', () => {
  const convert = (dimension: string, value: string, from: string, to: string) =>
    compute(
      computationNamed('convert-quantity'),
      { dimension, value, unit: from, to },
      shippedLibrary,
    )
  it.each([
    ['temperature', '-273.2', '°C', '°F'],
    ['temperature', '-460', '°F', '°C'],
    ['absolutePressure', '-0.1', 'kPa', 'psi'],
  ])('refuses %s of %s %s, below absolute zero', (dimension, value, from, to) => {
    expect(() => convert(dimension, value, from, to)).toThrow(/below absolute zero/)
  })
})

describe('overpressure-limit', () => {
  const limit = (maop: string, more: object = {}) =>
    compute(
      computationNamed('overpressure-limit'),
      {
        rulePack: 'larkhaven-gas-at-flow',
        maop: { dimension: 'gaugePressure', value: maop, unit: 'psi' },
        ...more,
      },
      shippedLibrary,
    ) as { limit: string; kPa: number }
  it.each([
    ['60', '66.00'],
    ['30', '36.00'],
    ['10', '15.00'],
  ])('of %s psi is %s psi', (maop, wanted) => {
    expect(limit(maop).limit).toBe(wanted)
    expect(limit(maop).kPa).toBeCloseTo(Number(wanted) * 6.894757, 2)
  })
  it('needs a pack that has one', () => {
    expect(() => limit('60', { rulePack: 'larkhaven-relief-first' })).toThrow(
      /no rule pack “larkhaven-relief-first” with a limit of protection/,
    )
  })
})

describe('judge-regulator-run', () => {
  it('refuses another kind, and a reading that no step takes', () => {
    const c = computationNamed('judge-regulator-run')
    const given = c.example as { readings: object[] }
    expect(() => compute(c, { ...given, kind: 'RP' }, shippedLibrary)).toThrow()
    const odd = { item: 'check-1', dimension: 'gaugePressure', value: '5', unit: 'psi' }
    expect(() =>
      compute(c, { ...given, readings: [...given.readings, odd] }, shippedLibrary),
    ).toThrow(/does not record “check-1”/)
    expect(compute(c, c.example, shippedLibrary)).toMatchObject({ outcome: 'pass' })
  })
})

describe('figures of the trade', () => {
  const of = (name: string, input: object) =>
    compute(computationNamed(name), input, shippedLibrary) as Record<string, number | string>
  it('the Cv that is needed passes the flow that was asked for', () => {
    const pressures = { inletKpa: 700, outletKpa: 200 }
    const gas = { specificGravity: 0.6, gamma: 1.31, temperatureK: 288.15, z: 1 }
    const { cv } = of('needed-cv', { flowM3h: 400, ...pressures, gas })
    const back = of('size-gas-flow', { valve: { cv, xT: 0.7 }, gas, ...pressures })
    expect(back.sm3h).toBeCloseTo(400, 6)
    // 10 gpm through Cv 1 at 100 psi: 2.2712 m³/h at 689.476 kPa.
    const water = of('needed-cv', { flowM3h: 2.271247, inletKpa: 689.4757, outletKpa: 0 })
    expect(water.cv).toBeCloseTo(1, 3)
  })
  it('droop and lock-up are in percent of the set pressure', () => {
    expect(of('droop', { setKpa: 400, loadKpa: 380, lockUpKpa: 420 })).toEqual({
      droopPercent: 5,
      lockUpPercent: 5,
    })
  })
  it('a due date keeps its anchor, and an overhaul long before it is not wanted again at once', () => {
    const rule = { intervalMonths: 36, maximumMonths: 42, anchor: '2025-09-10' }
    expect(of('due-date', { ...rule, testedOn: '2025-01-05' }).dueOn).toBe('2028-07-05')
    expect(of('due-date', { ...rule, testedOn: '2025-08-01' }).dueOn).toBe('2028-09-10')
  })
  it('a ring that keeps half of its squeeze has a compression set of 50 %', () => {
    expect(
      of('compression-set', { originalMm: 4, compressedMm: 3, recoveredMm: 3.5 }).percent,
    ).toBe(50)
  })
})

describe('the limit of a metric pack', () => {
  // EN 12186: operating pressure, bar, and the part of it to which it may rise for a while.
  it.each([
    ['0.1', '0.25'],
    ['1', '1.75'],
    ['4', '5.60'],
    ['10', '13.00'],
    ['20', '24.00'],
    ['60', '69.00'],
  ])('of %s bar is %s bar', (maop, wanted) => {
    const found = compute(
      computationNamed('overpressure-limit'),
      {
        rulePack: 'larkhaven-gas-metric',
        maop: { dimension: 'gaugePressure', value: maop, unit: 'bar' },
      },
      shippedLibrary,
    )
    expect(found).toMatchObject({ limit: wanted, unit: 'bar' })
  })
})
