import { describe, expect, it } from 'vitest'
import { apparatusOf, nominalsInSi } from '../apparatus'
import { testPlanOf } from '../library'
import { toSi } from '../quantity'
import { judgeTest, passes } from '../rules'
import { type Case, casebook, twoAtOnce } from '../testing/casebook'
import { shippedLibrary } from '../testing/library'
import { plate, platedNominals, psi } from '../testing/plate'
import { type Diagnosis, foundOf, type Prediction, predictions, rank } from '.'

const known = new Map<string, Prediction[]>()
function predicted({ pack, kind }: Case): Prediction[] {
  const { procedure } = testPlanOf(shippedLibrary, pack, kind)
  const isMachine = apparatusOf(kind)?.elements[0]?.role === 'machine'
  const made =
    known.get(procedure.id) ??
    [
      ...predictions(procedure, {
        kind,
        sizeIn: 2,
        supplyKpa: toSi(isMachine ? psi('80') : psi('110')),
        nominals: nominalsInSi(platedNominals),
      }),
    ].filter((p) => p !== null)
  known.set(procedure.id, made)
  return made
}

/** A reading of sound equipment as a case has it: a multiple of it, or so much more. */
function changed(good: string, by: string | undefined): string {
  if (by === undefined) return good
  const places = Math.max(1, good.split('.')[1]?.length ?? 0)
  const value = by.startsWith('x') ? Number(good) * Number(by.slice(1)) : Number(good) + Number(by)
  return value.toFixed(places)
}

/** A case judged by its pack and diagnosed, as after a test. */
function diagnosed(one: Case): Diagnosis {
  const made = predicted(one)
  const plan = testPlanOf(shippedLibrary, one.pack, one.kind)
  const good = made.find((p) => p.cause === null && p.degree === 1)?.test
  if (!good) throw new Error(`${one.kind} cannot be modelled`)
  const items = [...good.readings, ...good.answers].map((r) => r.item)
  for (const item of Object.keys(one.seen)) expect(items).toContain(item.replace(' swing', ''))
  const run = {
    readings: good.readings.map((r) => ({
      ...r,
      value: changed(r.value, one.seen[r.item]),
      swing: Number(one.seen[`${r.item} swing`] ?? r.swing ?? 0),
    })),
    answers: good.answers.map((a) => ({ ...a, answer: one.seen[a.item] ?? a.answer })),
    order: good.order,
    nominals: plate,
  }
  for (const { item, answer } of run.answers) {
    const record = plan.procedure.steps.find((s) => s.record?.item === item)?.record
    expect(record?.answers?.map((a) => a.id)).toContain(answer)
  }
  const { outcome, items: judged } = judgeTest(plan, run)
  const found = rank(one.kind, foundOf(run, judged), made)
  if (!passes(outcome)) expect([one, found.sound]).toEqual([one, 0])
  return found
}
const placeOf = (part: string, { suspects }: Diagnosis) =>
  suspects.findIndex((s) => s.element === part) + 1 || Infinity
const shown = (one: Case, d: Diagnosis) =>
  `${one.kind} ${JSON.stringify(one.seen)}: ${one.parts.join(' and ')}, not ${d.suspects.map((s) => `${s.element} ${s.chance.toFixed(2)}`).join(', ')}`

describe('the casebook of the trade', () => {
  const told = casebook.map((one) => ({ one, found: diagnosed(one) }))
  it('has at least 150 results', () => {
    expect(casebook.length).toBeGreaterThanOrEqual(150)
  })
  it('names the right part first in nine of ten', () => {
    const wrong = told.filter(({ one, found }) => placeOf(one.parts[0], found) > 1)
    const all = wrong.map(({ one, found }) => shown(one, found))
    expect(wrong.length / told.length, all.join('\n')).toBeLessThanOrEqual(0.1)
  })
  it('names the right part among the first three in all', () => {
    const missed = told.filter(({ one, found }) => placeOf(one.parts[0], found) > 3)
    expect(missed.map(({ one, found }) => shown(one, found))).toEqual([])
  })
  it('names both of two parts among the first four in four of five', () => {
    const both = twoAtOnce.map((one) => ({ one, found: diagnosed(one) }))
    const missed = both.filter(({ one, found }) => one.parts.some((p) => placeOf(p, found) > 4))
    const all = missed.map(({ one, found }) => shown(one, found))
    expect(missed.length / both.length, all.join('\n')).toBeLessThanOrEqual(0.2)
  })
})
