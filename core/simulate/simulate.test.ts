import { describe, expect, it } from 'vitest'
import { type Condition, type Fault, possibleFaults, SiteModel } from '../assembly'
import type { PackTest, RulePack } from '../procedure'
import { shippedLibrary } from '../testing/library'
import { randomNumbers } from '../testing/random'
import { judgeTest } from '../verdict'
import { runTest } from '.'

const gauge = { percent: 0.25, of: 'span', span: 15, unit: 'psi' } as const
const tests = shippedLibrary.rulePacks.flatMap((pack) =>
  pack.tests.map((test) => ({ name: `${test.kind}, ${test.procedure}`, pack, test })),
)

function judged(
  { pack, test }: { pack: RulePack; test: PackTest },
  faults: Fault[],
  random?: () => number,
  more: Partial<Condition> = {},
) {
  const procedure = shippedLibrary.procedures.find((p) => p.id === test.procedure)
  if (!procedure) throw new Error(test.procedure)
  const sizeIn = test.kind.endsWith('DA') ? 6 : 1.5
  const site = new SiteModel({
    kind: test.kind,
    sizeIn,
    condition: { faults, supplyKpa: 480, ...more },
  })
  const found = runTest(procedure, site, random ? { random } : {})
  const run = { ...found, gauge }
  return { ...judgeTest(pack, test, run), found }
}
const outcomeOf = (verdict: ReturnType<typeof judged>, item: string) =>
  verdict.items.find((i) => i.id === item)?.outcome

describe('a healthy assembly passes in every school', () => {
  it.each(tests)('$name', (t) => {
    const verdict = judged(t, [], randomNumbers(11))
    expect(verdict.reason).toMatch(/^Every required item/)
    expect(verdict.outcome).toBe('pass')
  })
})

describe('a fault shows where the trade says it does', () => {
  const of = (pack: string, kind: string) => {
    const found = tests.find((t) => t.pack.id === pack && t.test.kind === kind)
    if (!found) throw new Error(`${pack} ${kind}`)
    return found
  }
  const broken = (element: string, fault: Fault['fault'], severity = 0.6): Fault[] => [
    { element, fault, severity },
  ]
  it.each<[string, string, Fault[], string]>([
    ['larkhaven-relief-first', 'RP', broken('check-1', 'fouled'), 'check-1'],
    ['larkhaven-relief-first', 'RP', broken('check-1', 'spring-weak'), 'check-1'],
    ['larkhaven-relief-first', 'RP', broken('check-2', 'disc-cut'), 'check-2'],
    ['larkhaven-relief-first', 'RP', broken('relief', 'spring-weak'), 'relief-opening'],
    ['larkhaven-relief-first', 'RP', broken('relief', 'fouled'), 'relief-at-rest'],
    ['larkhaven-check-first', 'RP', broken('check-2', 'spring-broken'), 'check-2-flow'],
    ['larkhaven-check-first', 'RP', broken('relief', 'spring-stiff', 1), 'buffer'],
    ['larkhaven-relief-first', 'DC', broken('check-1', 'fouled'), 'check-1'],
    ['larkhaven-relief-first', 'DC', broken('check-2', 'spring-broken'), 'check-2'],
    ['larkhaven-check-first', 'DC', broken('check-2', 'seat-nicked'), 'check-2'],
    ['larkhaven-relief-first', 'DCDA', broken('bypass-check-1', 'disc-cut'), 'bypass-check-1'],
    ['larkhaven-relief-first', 'DCDA', broken('bypass-meter', 'stuck'), 'bypass-meter'],
    ['larkhaven-check-first', 'RPDA', broken('bypass-check-2', 'fouled'), 'bypass-check-2'],
    ['larkhaven-check-first', 'RPDA', broken('check-1', 'spring-weak', 0.9), 'detector-margin'],
    ['larkhaven-relief-first', 'PVB', broken('air-inlet', 'stuck'), 'air-inlet'],
    ['larkhaven-relief-first', 'PVB', broken('check-1', 'fouled'), 'check'],
    ['larkhaven-relief-first', 'SVB', broken('air-inlet', 'stuck'), 'air-inlet'],
    ['larkhaven-relief-first', 'SVB', broken('check-1', 'disc-cut'), 'check'],
    ['larkhaven-metric-zone', 'RP', broken('relief', 'spring-weak'), 'relief-opening'],
  ])('%s %s: %o fails %s', (pack, kind, faults, item) => {
    const t = of(pack, kind)
    expect(outcomeOf(judged(t, []), item)).toBe('pass')
    const verdict = judged(t, faults, randomNumbers(7))
    expect(outcomeOf(verdict, item)).toMatch(/^fail/)
    const deciding = verdict.items.find((i) => i.id === item)?.requirement === 'required'
    if (deciding) expect(verdict.outcome).toBe('fail')
  })
  it('two faults at once show both', () => {
    const verdict = judged(of('larkhaven-relief-first', 'RP'), [
      ...broken('check-1', 'spring-weak'),
      ...broken('check-2', 'disc-cut'),
    ])
    expect([outcomeOf(verdict, 'check-1'), outcomeOf(verdict, 'check-2')]).toEqual(['fail', 'fail'])
  })
  it('a shutoff 2 that leaks makes the checks not assessed, never passed', () => {
    const verdict = judged(
      of('larkhaven-check-first', 'DC'),
      broken('shutoff-2', 'leaking', 0.8),
      undefined,
      { demandLMin: 4 },
    )
    expect(verdict.outcome).toBe('not-assessed')
    expect(outcomeOf(verdict, 'check-1')).toBe('not-assessed')
  })
})

describe('noise, lag and display steps do not change the verdict', () => {
  const random = randomNumbers(2026)
  const cases = Array.from({ length: 20 }, (_, n) => {
    const t = tests[Math.floor(random() * tests.length)] as (typeof tests)[number]
    const options = possibleFaults(t.test.kind)
    const { element, fault } = options[
      Math.floor(random() * options.length)
    ] as (typeof options)[number]
    const severity = Math.round((0.2 + 0.8 * random()) * 100) / 100
    return {
      n: n + 1,
      t,
      faults: [{ element: element.id, fault, severity }],
      name: `${t.name}: ${element.id} ${fault} ${severity}`,
    }
  })
  it.each(cases)('$n. $name', ({ n, t, faults }) => {
    const truth = judged(t, faults, undefined, { demandLMin: 2 })
    const measured = judged(t, faults, randomNumbers(n), { demandLMin: 2 })
    const decided = (o: string) => o.replace('-uncertain', '')
    expect(decided(measured.outcome)).toBe(decided(truth.outcome))
  })
})
