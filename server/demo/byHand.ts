import { basisOf, type PackItem, type TestRun, type Reading, type Answer } from '@uvanta/core/rules'
import type { TestPlan } from '@uvanta/core/library'
import type { StepRecord } from '@uvanta/core/procedure'
import { convertValue, roundTo, toSi, unitDefinition } from '@uvanta/core/quantity'
import type { SimulatedTest } from '@uvanta/core/simulate'
import type { Nominal } from '@uvanta/core/apparatus'
import type { Seeded } from './random'

/** What a technician finds on equipment that has no model: what its rules want, a little off, or one item bad. */
export function foundByHand(
  { test, procedure }: TestPlan,
  nominals: readonly Nominal[],
  random: Seeded,
  bad: string | null,
): SimulatedTest {
  const readings: Reading[] = []
  const answers: Answer[] = []
  const order: string[] = []
  const known = Object.fromEntries(nominals.map((n) => [n.name, n.value]))
  for (const { record } of procedure.steps) {
    const item = test.items.find((i) => i.id === record?.item)
    if (!record || !item) continue
    order.push(record.item)
    const wrong = bad === record.item
    if (record.ask === 'answer') answers.push(answerTo(record, wrong))
    else
      readings.push(
        readingOf(record, item, { readings, answers, order, nominals: known }, random, wrong),
      )
  }
  return { readings, answers, order }
}

/** Items whose being bad fails the test. */
export const mayFail = ({ test }: TestPlan): string[] =>
  test.items
    .filter((i) => i.requirement === 'required' && (i.basis === 'answer' || i.basis === 'limit'))
    .map((i) => i.id)

function answerTo({ item, answers = [] }: StepRecord, wrong: boolean): Answer {
  const given = wrong ? answers.at(-1) : answers[0]
  return { item, answer: given?.id ?? '', label: given?.label ?? '' }
}

function readingOf(
  record: StepRecord,
  item: PackItem,
  run: TestRun,
  random: Seeded,
  wrong: boolean,
): Reading {
  const dimension = record.dimension ?? 'gaugePressure'
  const unit = record.unit ?? ''
  const { digits } = unitDefinition(dimension, unit)
  const value = wanted(item, run, unit, random, wrong)
  return {
    item: record.item,
    dimension,
    value: roundTo(Math.max(value, 0), digits),
    unit,
    ...(record.hold ? { heldS: toSi({ dimension: 'time', ...record.hold }) } : {}),
  }
}

/** A value well within the ends of an item, or beyond them. */
function wanted(
  item: PackItem,
  run: TestRun,
  unit: string,
  random: Seeded,
  wrong: boolean,
): number {
  if (item.basis === 'answer') return 0
  if (item.basis === 'creep') {
    const from = run.readings.find((r) => r.item === item.from)
    return from ? convertValue(from.dimension, Number(from.value), from.unit, unit) : 0
  }
  const ends = basisOf(item).ends(item, run, unit)
  if ('missing' in ends) return 0
  const { low, high } = ends
  if (low !== undefined && high !== undefined) {
    return (low + high) / 2 + ((high - low) / 2) * random.between(-0.35, 0.35)
  }
  if (high !== undefined) return wrong ? high * 1.5 + 3 : high * random.between(0.55, 0.75)
  return (low ?? 0) * (wrong ? 0.5 : random.between(1.2, 1.6))
}
