import { describe, expect, it } from 'vitest'
import { apparatusOf, type Fault, possibleFaults } from '../apparatus'
import { testPlanOf } from '../library'
import { judgeTest, passes } from '../rules'
import { runTest, siteModelOf } from '../simulate'
import { shippedLibrary } from '../testing/library'
import { randomNumbers } from '../testing/random'
import { answerOf, readingOf, testGauge } from '../testing/readings'
import { type Diagnosis, foundOf, type KnownSite, type Prediction, predictions, rank } from '.'

const known = new Map<string, Prediction[]>()
/** What every hypothesis reads, computed once for a pack and a site. */
function predicted(pack: string, site: KnownSite): Prediction[] {
  const key = JSON.stringify([pack, site])
  const { procedure } = testPlanOf(shippedLibrary, pack, site.kind)
  const made = known.get(key) ?? [...predictions(procedure, site)].filter((p) => p !== null)
  known.set(key, made)
  return made
}
const RELIEF_FIRST = 'larkhaven-relief-first'
const line = (kind: string): KnownSite => ({ kind, sizeIn: 2, supplyKpa: 480 })
const service: KnownSite = {
  kind: 'spring regulator',
  sizeIn: 2,
  supplyKpa: 400,
  nominals: { 'set-point': 1.74, 'relief-set': 2.5 },
}
const first = ({ suspects: [suspect] }: Diagnosis) => [suspect?.element, suspect?.faults[0]?.fault]

describe('what a reduced-pressure assembly shows', () => {
  const diagnosed = (
    [relief, check1]: readonly [string, string],
    dripping = false,
    check2 = 'held',
  ) =>
    rank(
      'RP',
      {
        readings: [readingOf('relief-opening', relief), readingOf('check-1', check1)],
        answers: [
          answerOf('relief-at-rest', dripping ? 'drips' : 'dry'),
          answerOf('check-2', check2),
          answerOf('shutoff-2', 'tight'),
        ],
      },
      predicted(RELIEF_FIRST, line('RP')),
    )
  // Section 7 of the handbook, row by row.
  it('relief drips and check 1 reads low: check 1 fouled, before anything else', () => {
    expect(first(diagnosed(['2.8', '2.8'], true))).toEqual(['check-1', 'fouled'])
  })
  it('relief drips and both checks are good: the relief', () => {
    expect(diagnosed(['4.9', '7.5'], true).suspects[0]?.element).toBe('relief')
  })
  it('relief opens late: its spring', () => {
    expect(first(diagnosed(['0.9', '7.5']))).toEqual(['relief', 'spring-weak'])
  })
  it('check 2 lets water back, and nothing else: check 2 fouled', () => {
    expect(first(diagnosed(['2.8', '7.5'], false, 'leaked'))).toEqual(['check-2', 'fouled'])
  })
  it('check 1 reads low and the relief is dry: its spring, which is named with what to look for', () => {
    const { suspects, explained } = diagnosed(['2.8', '5.0'])
    expect(explained).toBe(true)
    expect(suspects[0]).toMatchObject({ element: 'check-1', label: 'Check 1' })
    expect(suspects[0]?.faults[0]).toMatchObject({ fault: 'spring-weak', title: 'Spring weak' })
    expect(suspects[0]?.faults[0]?.look).toMatch(/shorter than a new one/)
  })
  it('nothing out of order is most likely sound', () => {
    expect(diagnosed(['2.8', '7.5']).sound).toBeGreaterThan(0.5)
  })
  it('what no single fault explains is said to be so', () => {
    // A weak spring in check 1 and a relief that opens far too early.
    expect(diagnosed(['11.0', '3.0']).explained).toBe(false)
  })
  it('is weighed whole: what is likely adds up to one at most', () => {
    const { suspects, sound } = diagnosed(['2.8', '5.0'])
    const sum = suspects.reduce((s, { chance }) => s + chance, sound)
    expect(sum).toBeGreaterThan(0.9)
    expect(sum).toBeLessThanOrEqual(1 + 1e-9)
  })
  it('counts what was taken last', () => {
    const low = readingOf('check-1', '2.0')
    const again = { readings: [low, readingOf('check-1', '7.5')], answers: [] }
    const all = predicted(RELIEF_FIRST, line('RP'))
    const once = { readings: again.readings.slice(1), answers: [] }
    expect(rank('RP', again, all)).toEqual(rank('RP', once, all))
  })
  it('says what the checks that were not made would tell: whether check 1 reads low', () => {
    const found = { readings: [], answers: [answerOf('relief-at-rest', 'drips')] }
    const { next } = rank('RP', found, predicted(RELIEF_FIRST, line('RP')))
    const check1 = next.find((n) => n.item === 'check-1')
    const reads = (element: string) =>
      check1?.outcomes.find((o) => o.element === element)?.si ?? Number.NaN
    // Half of the normal value, in kPa.
    expect(reads('check-1')).toBeLessThan(26)
    expect(reads('relief')).toBeGreaterThan(26)
    expect(check1?.bits).toBeGreaterThan(0.2)
    expect(next.map((n) => n.item)).not.toContain('relief-at-rest')
    expect(next.map((n) => n.bits)).toEqual(next.map((n) => n.bits).toSorted((a, b) => b - a))
  })
})

describe('what is evidence', () => {
  it('is neither an answer nor a failure whose meaning another finding has taken', () => {
    const plan = testPlanOf(shippedLibrary, RELIEF_FIRST, 'RP')
    const run = {
      readings: [readingOf('relief-opening', '2.8'), readingOf('check-1', '2.8')],
      answers: [
        answerOf('shutoff-2', 'tight'),
        answerOf('relief-at-rest', 'drips'),
        answerOf('check-2', 'leaked'),
      ],
      order: ['shutoff-2', 'relief-opening', 'relief-at-rest', 'check-2', 'check-1'],
      channels: [testGauge],
    }
    const found = foundOf(run, judgeTest(plan, run).items)
    // The buffer of 0.0 rests on the relief opening.
    expect(found.failed).toEqual(['relief-at-rest', 'check-1'])
    expect(found.answers.map((a) => a.item)).toEqual(['shutoff-2', 'relief-at-rest'])
  })
})

describe('what a gas regulator shows', () => {
  const found = (faults: readonly Fault[]) => {
    const { supplyKpa, ...spec } = service
    const model = siteModelOf({ ...spec, condition: { faults, supplyKpa } })
    const { procedure } = testPlanOf(shippedLibrary, 'larkhaven-gas-at-flow', service.kind)
    return runTest(procedure, model!, {})
  }
  it.each<[string, Fault['fault'], readonly Fault['fault'][]]>([
    ['lock-up creeps on', 'disc-cut', ['disc-cut', 'fouled', 'seat-nicked']],
    ['it hunts', 'undamped', ['undamped']],
    ['too much droop', 'stem-bent', ['stem-bent', 'passage-blocked']],
  ])('%s: %s', (_, fault, thinkable) => {
    const seen = found([{ element: 'regulator', fault, severity: 0.6 }])
    const [element, named] = first(
      rank(service.kind, seen, predicted('larkhaven-gas-at-flow', service)),
    )
    expect(element).toBe('regulator')
    expect(thinkable).toContain(named)
  })
})

describe('a fault without which the test would pass is found by its readings', () => {
  const cases = ['RP', 'DC', 'PVB', 'SVB'].flatMap((kind) =>
    possibleFaults(apparatusOf(kind) ?? { elements: [] }).map(
      ({ element, fault }) => [kind, element.id, fault] as const,
    ),
  )
  // With springs of its own and a gauge that wavers, neither of which the model knows.
  it.each(cases)('%s: %s %s', (kind, element, fault) => {
    const random = randomNumbers(kind.length + element.length + fault.length)
    const elements = apparatusOf(kind)?.elements ?? []
    const springs = Object.fromEntries(elements.map((e) => [e.id, 0.96 + 0.08 * random()]))
    const faults = [{ element, fault, severity: 0.68 }]
    const model = siteModelOf({
      kind,
      sizeIn: 2,
      condition: { supplyKpa: 480, faults, springs },
    })
    const plan = testPlanOf(shippedLibrary, RELIEF_FIRST, kind)
    const seen = runTest(plan.procedure, model!, { random })
    const { outcome } = judgeTest(plan, { ...seen, channels: [testGauge] })
    const { suspects, sound } = rank(kind, seen, predicted(RELIEF_FIRST, line(kind)))
    if (!passes(outcome)) expect(suspects[0]?.element).toBe(element)
    // What passes all the same is no ground for an alarm about another part.
    else
      expect(sound + (suspects.find((s) => s.element === element)?.chance ?? 0)).toBeGreaterThan(
        0.5,
      )
  })
})

it('there is none for equipment without a model', () => {
  const { procedure } = testPlanOf(shippedLibrary, RELIEF_FIRST, 'DC')
  expect([...predictions(procedure, { ...line('DC'), kind: 'strainer' })]).toEqual([])
})
