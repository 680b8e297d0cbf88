import { describe, expect, it } from 'vitest'
import { apparatusOf, nominalsInSi } from '../apparatus'
import { testPlanOf } from '../library'
import { toSi } from '../quantity'
import { fails, judgeTest, type TestRun } from '../rules'
import { shippedLibrary } from '../testing/library'
import { plate, platedNominals, psi } from '../testing/plate'
import { hasModel, type KnownSite, type Prediction, predictions, rank } from '.'

const IN_FORCE = shippedLibrary.rulePacks.flatMap((pack) =>
  pack.tests
    .filter((t) => hasModel(t.kind) && apparatusOf(t.kind))
    .map((t) => [pack.id, t.kind] as const),
)

const siteOf = (kind: string): KnownSite => {
  const isMachine = apparatusOf(kind)?.elements[0]?.role === 'machine'
  return {
    kind,
    sizeIn: 2,
    supplyKpa: toSi(isMachine ? psi('80') : psi('110')),
    nominals: nominalsInSi(platedNominals),
  }
}
/** Sound equipment and a few faults tell what is tested of every kind; to model all of them takes minutes. */
const FEW = 6
const few = (pack: string, kind: string): Prediction[] => predicted(pack, kind, FEW)
const known = new Map<string, Prediction[]>()
function predicted(pack: string, kind: string, most = Infinity): Prediction[] {
  const { procedure } = testPlanOf(shippedLibrary, pack, kind)
  const key = `${procedure.id} ${procedure.version} ${most}`
  const made = known.get(key) ?? []
  if (made.length > 0) return made
  for (const p of predictions(procedure, siteOf(kind))) {
    if (p) made.push(p)
    if (made.length === most) break
  }
  known.set(key, made)
  return made
}

describe.each(IN_FORCE)('%s, %s', (packId, kind) => {
  it('never calls equipment sound of which one answer failed, and names parts for it', () => {
    const plan = testPlanOf(shippedLibrary, packId, kind)
    const made = few(packId, kind)
    const good = made.find((p) => p.cause === null && p.degree === 1)?.test
    expect(good).toBeDefined()
    for (const { record } of plan.procedure.steps) {
      if (record?.ask !== 'answer') continue
      const item = plan.test.items.find((i) => i.id === record.item)
      if (item?.basis !== 'answer' || item.requirement === 'recorded') continue
      for (const { id } of record.answers ?? []) {
        if (item.accept.includes(id)) continue
        const answers = [
          ...(good?.answers ?? []).filter((a) => a.item !== record.item),
          { item: record.item, answer: id, label: id },
        ]
        const run: TestRun = {
          readings: good?.readings ?? [],
          answers,
          order: good?.order ?? [],
          nominals: plate,
        }
        const failed = judgeTest(plan, run)
          .items.filter((i) => fails(i.outcome))
          .map((i) => i.id)
        expect(failed).toContain(record.item)
        const found = rank(kind, { readings: run.readings, answers, failed }, made)
        expect([record.item, id, found.sound]).toEqual([record.item, id, 0])
        expect(found.suspects.length, `${record.item}: ${id}`).toBeGreaterThan(0)
      }
    }
  })
  it('never calls equipment sound of which one reading failed', () => {
    const plan = testPlanOf(shippedLibrary, packId, kind)
    const made = few(packId, kind)
    const good = made.find((p) => p.cause === null && p.degree === 1)?.test
    for (const reading of good?.readings ?? []) {
      for (const factor of [0.2, 3]) {
        const readings = (good?.readings ?? []).map((r) =>
          r.item === reading.item ? { ...r, value: (Number(r.value) * factor + 5).toFixed(1) } : r,
        )
        const run: TestRun = {
          readings,
          answers: good?.answers ?? [],
          order: good?.order ?? [],
          nominals: plate,
        }
        const failed = judgeTest(plan, run)
          .items.filter((i) => fails(i.outcome))
          .map((i) => i.id)
        if (failed.length === 0) continue
        const found = rank(kind, { readings, answers: run.answers, failed }, made)
        expect([reading.item, factor, found.sound]).toEqual([reading.item, factor, 0])
        expect(found.suspects.length).toBeGreaterThan(0)
      }
    }
  })
})

/** What was seen beside an otherwise good test, and the part that the trade looks at first. */
const SEEN: readonly [string, string, Record<string, string>, string][] = [
  ['larkhaven-valves-and-actuators', 'on-off valve', { lower: 'wet' }, 'needle-and-seat'],
  ['larkhaven-valves-and-actuators', 'on-off valve', { upper: 'wet' }, 'stem-seal'],
  ['larkhaven-valves-and-actuators', 'on-off valve', { middle: 'wet' }, 'adapter'],
  ['larkhaven-valves-and-actuators', 'injector', { column: 'falls' }, 'check-valve'],
  ['larkhaven-valves-and-actuators', 'injector', { drip: 'seen' }, 'stem-o-rings'],
  ['larkhaven-valves-and-actuators', 'sampler', { drain: 'weeps' }, 'rod-seals'],
  ['larkhaven-relief-first', 'RP', { 'relief-at-rest': 'drips' }, 'relief'],
  ['larkhaven-relief-first', 'RP', { 'check-2': 'leaked' }, 'check-2'],
  ['larkhaven-gas-at-flow', 'spring regulator', { breath: 'blows' }, 'relief'],
]
describe('what was seen does not drown in good readings', () => {
  it.each(SEEN)('%s, %s: %o is %s', (packId, kind, seen, part) => {
    const plan = testPlanOf(shippedLibrary, packId, kind)
    const made = predicted(packId, kind)
    const good = made.find((p) => p.cause === null && p.degree === 1)?.test
    const known = plan.procedure.steps.flatMap((s) => s.record?.answers ?? []).map((a) => a.id)
    for (const answer of Object.values(seen)) expect(known).toContain(answer)
    const answers = [
      ...(good?.answers ?? []).filter((a) => !(a.item in seen)),
      ...Object.entries(seen).map(([item, answer]) => ({ item, answer, label: answer })),
    ]
    const found = rank(
      kind,
      { readings: good?.readings ?? [], answers, failed: Object.keys(seen) },
      made,
    )
    expect(found.suspects[0]?.element).toBe(part)
    expect(found.sound).toBe(0)
  })
})
