import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { parse } from 'yaml'
import { apparatusOf, nominalsInSi } from '../apparatus'
import { testPlanOf } from '../library'
import { toSi } from '../quantity'
import { runTest, siteModelOf } from '../simulate'
import { shippedLibrary } from '../testing/library'
import { plate, platedNominals, psi } from '../testing/plate'
import { randomNumbers } from '../testing/random'
import { type RawRun, type RawTest, reasonsAgainst, type Value } from '../testing/secondJudge'
import { type Channel, judgeTest, passes, type TestRun } from '.'

const FOLDER = join(import.meta.dirname, '../../library/demo/rulepacks')
const packs = readdirSync(FOLDER).map(
  (file) => parse(readFileSync(join(FOLDER, file), 'utf8')) as { id: string; tests: RawTest[] },
)
const tests = packs.flatMap(({ id, tests }) => tests.map((test) => ({ id, test })))
const SETS = 3_000
const EACH = Math.ceil(SETS / tests.length)

interface Written extends RawRun {
  readonly nominals: Record<string, Value>
}
/** Instruments that are good enough for a pack that judges by their uncertainty. */
const channels: readonly Channel[] = [
  { id: 'gauge', dimension: 'gaugePressure', percent: 0.05, of: 'span', span: 300, unit: 'psi' },
  { id: 'gauge', dimension: 'differential', percent: 0.05, of: 'span', span: 15, unit: 'psi' },
]
const START = Date.parse('2026-12-01T09:00:00Z')

/** A test of sound equipment by the model, with the times at which a patient tester would have taken it. */
function soundRun(packId: string, test: RawTest): Written {
  const { procedure } = testPlanOf(shippedLibrary, packId, test.kind)
  const isMachine = apparatusOf(test.kind)?.elements[0]?.role === 'machine'
  const supplyKpa = toSi(isMachine ? psi('80') : psi('110'))
  const model = siteModelOf({
    kind: test.kind,
    sizeIn: 2,
    nominals: nominalsInSi(platedNominals),
    condition: { supplyKpa, faults: [] },
  })
  if (!model) throw new Error(`no model of a ${test.kind}`)
  const good = runTest(procedure, model, { periodS: 0.2 })
  return stamped(test, {
    readings: good.readings.map(({ swing: _, ...r }) => ({ ...r })),
    answers: good.answers.map((a) => ({ ...a })),
    order: [...good.order],
    nominals: { ...(plate as Record<string, Value>) },
  } as unknown as Written)
}

/** The same with a time for every reading: half a minute each, and the hold before what is held. */
function stamped(test: RawTest, run: Written, early = 0): Written {
  let at = START
  const times = new Map<string, number>()
  for (const id of run.order) {
    const over = test.items.find((i) => i.id === id)?.over
    const hold = over ? Number(over.value) * (over.unit === 'min' ? 60 : 1) : 0
    at += (hold ? Math.max(1, hold + 20 - early) : 30) * 1000
    times.set(id, at)
  }
  return {
    ...run,
    readings: run.readings.map(({ heldS: _, driftPerMinute: __, ...r }) => ({
      ...r,
      atS: (times.get(r.item) ?? at) / 1000,
      takenAt: new Date(times.get(r.item) ?? at).toISOString(),
    })),
  }
}

const pick = <T>(list: readonly T[], random: () => number) =>
  list[Math.floor(random() * list.length)]

/** The ways in which a test goes wrong at random; each leaves what it does not touch. */
const ways: ((run: Written, test: RawTest, random: () => number) => Written)[] = [
  (run, _, random) => {
    const r = pick(run.readings, random)
    const factor = pick([0, 0.1, 0.5, 0.8, 0.9, 0.97, 1.03, 1.1, 1.2, 1.5, 3, -1], random) ?? 1
    return change(run, r?.item, (v) => String(Number((Number(v) * factor).toFixed(3))))
  },
  // Within a hair of the limit, on either side.
  (run, test, random) => {
    const limited = test.items.filter((i) => i.basis === 'limit' && (i.atLeast ?? i.atMost))
    const item = pick(limited, random)
    const limit = item?.atLeast ?? item?.atMost
    const r = run.readings.find((x) => x.item === item?.id)
    if (!limit || r?.unit !== limit.unit) return run
    const by = pick([-0.1, 0, 0.1], random) ?? 0
    return change(run, r.item, () => (Number(limit.value) + by).toFixed(1))
  },
  (run, test, random) => {
    const item = pick(
      test.items.filter((i) => i.basis === 'answer'),
      random,
    )
    const { procedure } = testPlanOf(shippedLibrary, packOf(test), test.kind)
    const asked = procedure.steps.find((s) => s.record?.item === item?.id)?.record?.answers ?? []
    const given = pick(asked, random)?.id
    return {
      ...run,
      answers: run.answers.map((a) => (a.item === item?.id && given ? { ...a, answer: given } : a)),
    }
  },
  (run, _, random) => {
    const gone = pick(run.order, random)
    return {
      ...run,
      readings: run.readings.filter((r) => r.item !== gone),
      answers: run.answers.filter((a) => a.item !== gone),
      order: run.order.filter((id) => id !== gone),
    }
  },
  // One thing was done before another.
  (run, test, random) => {
    const [a, b] = [pick(run.order, random) ?? '', pick(run.order, random) ?? '']
    const order = run.order.map((id) => (id === a ? b : id === b ? a : id))
    return stamped(test, { ...run, order })
  },
  (run, test, random) => stamped(test, run, pick([15, 21, 22, 60, 200, 319], random)),
  // What it says of the hold is more than the clock.
  (run, test, random) => {
    const short = stamped(test, run, pick([60, 319], random))
    return { ...short, readings: short.readings.map((r) => ({ ...r, heldS: 300 })) }
  },
  (run, _, random) => {
    const [a, b] = [pick(run.readings, random), pick(run.readings, random)]
    return a && b && a.unit === b.unit ? change(run, a.item, () => b.value) : run
  },
  (run, _, random) => {
    const name = pick(Object.keys(run.nominals), random) ?? ''
    const { [name]: gone, ...nominals } = run.nominals
    const factor = pick([0.3, 0.7, 1.4, 3], random) ?? 1
    return random() < 0.3 || !gone
      ? { ...run, nominals }
      : {
          ...run,
          nominals: {
            ...nominals,
            [name]: { ...gone, value: (Number(gone.value) * factor).toFixed(2) },
          },
        }
  },
  (run, _, random) => {
    const [accuracy, lockUp] = [
      pick(['5', '10', '30', '90'], random),
      pick(['10', '50', '400'], random),
    ]
    const percent = (value = '10') => ({ dimension: 'fraction', value, unit: '%' })
    return {
      ...run,
      nominals: {
        ...run.nominals,
        'accuracy-class': percent(accuracy),
        'lock-up-class': percent(lockUp),
      },
    }
  },
  (run, _, random) => change(run, 'inlet', () => pick(['40', '90', '149', '250'], random) ?? '90'),
]
const change = (
  run: Written,
  item: string | undefined,
  by: (value: string) => string,
): Written => ({
  ...run,
  readings: run.readings.map((r) => (r.item === item ? { ...r, value: by(r.value) } : r)),
})
const packOf = (test: RawTest) => packs.find((p) => p.tests.includes(test))?.id ?? ''

let sets = 0
let passed = 0
let refusedByBoth = 0
describe('a second judge, on sets of readings at random', () => {
  it.each(tests.map(({ id, test }) => [id, test.kind, test] as const))(
    '%s, %s: nothing passes that it has something against',
    (packId, kind, test) => {
      const random = randomNumbers(packId.length * 31 + kind.length * 7 + kind.charCodeAt(0))
      const plan = testPlanOf(shippedLibrary, packId, kind)
      const sound = soundRun(packId, test)
      const judged = (run: Written) =>
        passes(judgeTest(plan, { ...(run as unknown as TestRun), channels }).outcome)
      expect(reasonsAgainst(test, sound)).toEqual([])
      expect(
        judged(sound),
        judgeTest(plan, { ...(sound as unknown as TestRun), channels }).reason,
      ).toBe(true)
      for (let n = 0; n < EACH; n++) {
        let run = sound
        const often = 1 + Math.floor(random() * 2.5)
        for (let m = 0; m < often; m++) run = pick(ways, random)?.(run, test, random) ?? run
        const isPassed = judged(run)
        sets++
        if (!isPassed) {
          if (reasonsAgainst(test, run).length > 0) refusedByBoth++
          continue
        }
        passed++
        expect({ run, against: reasonsAgainst(test, run) }).toEqual({ run, against: [] })
      }
    },
  )
  it('was asked of 3,000 sets, of which enough passed to tell', () => {
    expect(sets).toBeGreaterThanOrEqual(SETS)
    expect(passed / sets).toBeGreaterThan(0.1)
    expect(passed / sets).toBeLessThan(0.6)
    // The second judge sees most of what is wrong by itself; what it does not know is never a pass.
    expect(refusedByBoth / (sets - passed)).toBeGreaterThan(0.7)
  })
})

it('reviews the capacity of a relief at the inlet that was read where that is above its maximum', () => {
  const test = packs.find((p) => p.id === 'larkhaven-gas-at-flow')?.tests[0]
  if (!test) throw new Error('no pack')
  const plan = testPlanOf(shippedLibrary, 'larkhaven-gas-at-flow', test.kind)
  const nominals = {
    ...(plate as Record<string, Value>),
    'regulator-cv': { dimension: 'flowCoefficient', value: '0.8', unit: 'Cv' },
    'relief-cv': { dimension: 'flowCoefficient', value: '2.0', unit: 'Cv' },
  }
  const sound = { ...soundRun('larkhaven-gas-at-flow', test), nominals }
  const capacityAt = (inlet: string) => {
    const run = change(sound, 'inlet', () => inlet) as unknown as TestRun
    return judgeTest(plan, run).items.find((i) => i.id === 'capacity')?.outcome
  }
  const secondAt = (inlet: string) =>
    reasonsAgainst(
      test,
      change(sound, 'inlet', () => inlet),
    ).some((r) => r.startsWith('capacity'))
  expect([capacityAt('110'), secondAt('110')]).toEqual(['pass', false])
  expect([capacityAt('250'), secondAt('250')]).toEqual(['fail', true])
})
