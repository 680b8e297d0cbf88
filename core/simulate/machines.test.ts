import { describe, expect, it } from 'vitest'
import { apparatusOf, type Fault, type NominalName, possibleFaults } from '../apparatus'
import { MachineSite, works } from '../apparatus/machine'
import { testPlanOf } from '../library'
import { type AnyQuantity, fromSi, valueToSi } from '../quantity'
import { judgeTest, passes } from '../rules'
import { shippedLibrary } from '../testing/library'
import { runTest } from '.'

const PACK = 'larkhaven-valves-and-actuators'
const psi = (value: number) => valueToSi('gaugePressure', value, 'psi')
const PLATE: Partial<Record<NominalName, number>> = {
  supply: psi(80),
  'bench-low': psi(6),
  'bench-high': psi(30),
  'stroke-volume': 30e-6,
  ratio: 0.02,
  'test-pressure': psi(150),
  'air-test': psi(16),
  'cycle-rate': 40 / 60,
}
const given: Readonly<Partial<Record<NominalName, AnyQuantity>>> = {
  supply: { dimension: 'gaugePressure', value: '80', unit: 'psi' },
  'bench-low': { dimension: 'gaugePressure', value: '6', unit: 'psi' },
  'bench-high': { dimension: 'gaugePressure', value: '30', unit: 'psi' },
  'stroke-volume': { dimension: 'volume', value: '30', unit: 'mL' },
  ratio: { dimension: 'fraction', value: '2', unit: '%' },
  'test-pressure': { dimension: 'gaugePressure', value: '150', unit: 'psi' },
  'air-test': { dimension: 'gaugePressure', value: '16', unit: 'psi' },
  'cycle-rate': { dimension: 'frequency', value: '40', unit: '/min' },
}
const kinds = Object.keys(works)

function site(kind: string, faults: readonly Fault[] = []) {
  return new MachineSite({
    kind,
    sizeIn: 1,
    condition: { faults, supplyKpa: psi(80) },
    nominals: PLATE,
  })
}
/** The whole test of the pack on the model, judged by the pack. */
function run(kind: string, faults: readonly Fault[] = []) {
  const plan = testPlanOf(shippedLibrary, PACK, kind)
  const found = runTest(plan.procedure, site(kind, faults), { periodS: 0.5 })
  const verdict = judgeTest(plan, { ...found, nominals: given })
  const reading = (item: string) => Number(found.readings.find((r) => r.item === item)?.value)
  return { verdict, reading, bad: verdict.items.filter((i) => !passes(i.outcome)).map((i) => i.id) }
}

it('every kind that is proved by hand and eye has a model', () => {
  const proved = shippedLibrary.rulePacks.find((p) => p.id === PACK)?.tests.map((t) => t.kind)
  expect([...kinds].sort()).toEqual([...(proved ?? [])].sort())
})

describe.each(kinds)('a %s', (kind) => {
  it('passes when nothing is wrong with it', () => {
    expect(run(kind).bad).toEqual([])
  })
  const faults = possibleFaults(apparatusOf(kind) ?? { elements: [] }).map(
    ({ element, fault }) => ({ element: element.id, fault }) as const,
  )
  it.each(faults)('shows that its $element is $fault', (f) => {
    const { verdict } = run(kind, [{ ...f, severity: 0.6 }])
    expect(
      verdict.items.filter((i) => i.requirement !== 'recorded' && !passes(i.outcome)),
    ).not.toEqual([])
  })
  it.each(faults)('never looks healthier as $fault of its $element grows', (f) => {
    const worse = [0, 0.2, 0.4, 0.6, 0.8, 1].map((severity) => run(kind, [{ ...f, severity }]).bad)
    worse.slice(1).forEach((bad, n) => {
      expect(bad).toEqual(expect.arrayContaining(worse[n] ?? []))
    })
  })
})

describe('a test with another medium than it speaks of', () => {
  it.each([
    ['coupler', 'gas', ['nose', 'shaft', 'joint', 'poppet', 'spill']],
    ['on-off valve', 'other', ['drip', 'upper', 'middle', 'lower', 'test-start', 'test-end']],
  ])('of a %s (%s) is judged in nothing that rests on it', (kind, medium, resting) => {
    const plan = testPlanOf(shippedLibrary, PACK, kind)
    const found = runTest(plan.procedure, site(kind), { periodS: 0.5 })
    const judged = (answers: typeof found.answers) =>
      judgeTest(plan, { ...found, answers, nominals: given })
    const other = judged(
      found.answers.map((a) => (a.item === 'medium' ? { ...a, answer: medium } : a)),
    )
    expect(other.outcome).toBe('not-assessed')
    const lost = other.items.filter((i) => i.code === 'invalidated').map((i) => i.id)
    expect(lost.toSorted()).toEqual(resting.toSorted())
    // Not said it is not known, and no better.
    const unsaid = judged(found.answers.filter((a) => a.item !== 'medium'))
    expect(unsaid.outcome).toBe('not-assessed')
  })
})

describe.each(kinds)('the test of a %s', (kind) => {
  const plan = testPlanOf(shippedLibrary, PACK, kind)
  const found = runTest(plan.procedure, site(kind), { periodS: 0.5 })
  const wanted = plan.test.items.filter(
    (i) => i.requirement === 'required' && (i.basis === 'answer' || i.basis === 'limit'),
  )
  it.each(wanted.map((i) => i.id))('fails by %s alone', (id) => {
    const item = plan.test.items.find((i) => i.id === id)
    const last = plan.procedure.steps.find((s) => s.record?.item === id)?.record?.answers?.at(-1)
    const beyond = item?.basis === 'limit' ? (item.atMost ? 1e4 : 0) : 0
    const spoilt = {
      ...found,
      readings: found.readings.map((r) => (r.item === id ? { ...r, value: String(beyond) } : r)),
      answers: found.answers.map((a) =>
        a.item === id ? { ...a, answer: last?.id ?? '', label: last?.label ?? '' } : a,
      ),
    }
    const verdict = judgeTest(plan, { ...spoilt, nominals: given })
    expect(verdict.items.find((i) => i.id === id)?.outcome).toBe('fail')
    expect(verdict.outcome).toBe('fail')
  })
})

it('every family has a test in a pack of the house', () => {
  const tested = shippedLibrary.rulePacks.flatMap((p) => p.tests.map((t) => t.kind))
  for (const { kinds: own } of shippedLibrary.families) {
    for (const kind of own) expect(tested).toContain(kind)
  }
})

describe('a positioner', () => {
  const travelAt = (signals: readonly number[], faults: readonly Fault[] = [], zeroTurns = 0) => {
    const s = site('control valve', faults)
    if (zeroTurns) s.adjust('zero', zeroTurns)
    s.look('up-50')
    for (const signal of signals) {
      s.apply('signal', signal)
      s.advance(20)
      s.advance(20)
    }
    return s.atInstrument()
  }
  it('goes with its signal', () => {
    expect(travelAt([0.5])).toBeCloseTo(0.5, 2)
  })
  it('stays behind on both ways by its dead band, and by that alone', () => {
    const worn: Fault[] = [{ element: 'drive', fault: 'linkage-worn', severity: 0.5 }]
    const [up, down] = [travelAt([0, 0.5], worn), travelAt([0, 1, 0.5], worn)]
    const [upHealthy, downHealthy] = [travelAt([0, 0.5]), travelAt([0, 1, 0.5])]
    expect(down - up).toBeGreaterThan(0.04)
    expect(downHealthy - upHealthy).toBeLessThan(0.01)
    expect((up + down) / 2).toBeCloseTo((upHealthy + downHealthy) / 2, 3)
  })
  it('is brought back by its zero', () => {
    const off: Fault[] = [{ element: 'drive', fault: 'zero-off', severity: 0.5 }]
    const found = travelAt([0, 0.5], off)
    const healthy = travelAt([0, 0.5])
    const perTurn = travelAt([0, 0.5], off, 1) - found
    expect(perTurn).toBeGreaterThan(0)
    expect(travelAt([0, 0.5], off, -(found - healthy) / perTurn)).toBeCloseTo(healthy, 3)
  })
  it('takes its time over the travel', () => {
    const s = site('control valve')
    s.look('up-100')
    s.apply('signal', 1)
    s.advance(2)
    expect(s.atInstrument()).toBeLessThan(0.5)
  })
})

describe('air that is shut in', () => {
  it('falls from when it was shut in, as fast as its seals let it', () => {
    const s = site('cylinder', [{ element: 'quad-ring', fault: 'seal-worn', severity: 0.5 }])
    s.advance(600)
    s.look('hold-start')
    s.advance(60)
    const start = s.atInstrument()
    s.look('hold-end')
    s.advance(240)
    // p = p0·e^(−k·t): the tight part and half of the worn one, over the 300 s since it was shut in.
    expect(s.atInstrument() / start).toBeCloseTo(Math.exp(-(1e-5 + 0.5 * 2e-3) * 300), 3)
  })
})

describe('air that cools as it is held', () => {
  it('falls without a leak, which its temperatures tell apart from one', () => {
    const { verdict, reading } = run('actuator')
    const fell = 1 - reading('hold-end') / reading('hold-start')
    expect(fell).toBeGreaterThan(0.01)
    expect(verdict.items.find((i) => i.id === 'hold-end')?.outcome).toBe('pass')
    expect(reading('temp-start') - reading('temp-end')).toBeGreaterThan(3)
  })
})

it('what is not put on a machine, and what it is not set by, is refused', () => {
  expect(() => site('sampler').apply('signal', 0.5)).toThrow(/takes no such thing/)
  expect(() => site('sampler').adjust('regulator', 1)).toThrow(/no such adjuster/)
})

it('bench set: rising and falling stand apart by twice the friction, alike at both ends', () => {
  const { reading } = run('actuator')
  const low = reading('first-up') - reading('full-down')
  const high = reading('full-up') - reading('first-down')
  expect(low).toBeCloseTo(high, 1)
  expect((reading('first-up') + reading('full-down')) / 2).toBeCloseTo(
    fromSi('gaugePressure', psi(6), 'psi'),
    1,
  )
})
