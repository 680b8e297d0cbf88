import { toSi, valueToSi } from '../quantity'
import type { Answer, Reading } from '../rules'
import type { Prediction } from './hypotheses'

/** What was found of a test, as far as it has come. */
export interface Found {
  readonly readings: readonly Seen[]
  readonly answers: readonly Pick<Answer, 'item' | 'answer'>[]
  /** Items that failed by their rule pack. Something is wrong then: the equipment is not called sound. */
  readonly failed?: readonly string[]
}
type Seen = Pick<Reading, 'item' | 'dimension' | 'value' | 'unit' | 'swing'>

/** What a hypothesis has an item read, in SI, or answered; undefined where it says nothing of it. */
export interface Expected {
  /** Everything that it says something of. */
  readonly items: readonly string[]
  readonly reading: (item: string) => number | undefined
  readonly answer: (item: string) => string | undefined
}

/**
 * The chance that an answer is mistaken, by its kind. Nobody invents a drip, a hiss or a wrong way that is not there;
 * a small one is easily missed. Judgement of the trade, no statistic.
 */
export const ANSWER_ERRORS = { seenByMistake: 0.01, missed: 0.15 } as const
/**
 * How much an item that is in order weighs beside one that failed: a part that fails one test passes others, so that
 * good readings must not outweigh what was seen.
 */
const IN_ORDER_WEIGHT = 0.7
/** How much any reading may lie outside of what is expected: nothing is ruled out for good. */
const ANY_READING = 0.002
/** Part of the largest reading that is thinkable by which a model is off at best. */
const MODEL_OFF = 0.02

/** A reading in the SI unit of its dimension. */
const siOf = ({ dimension, value, unit }: Seen): number =>
  toSi({ dimension, value, unit } as Parameters<typeof toSi>[0])

/** How widely the needle swung during a reading of an item is measured as well, under a name of its own. */
const SWING = ' swing'

/** What a reading measured, by name, in SI: its value, and the swing of the needle where that was watched. */
function measured(reading: Seen): [name: string, si: number][] {
  const { item, swing, dimension, unit } = reading
  const own: [string, number] = [item, siOf(reading)]
  return swing === undefined ? [own] : [own, [`${item}${SWING}`, valueToSi(dimension, swing, unit)]]
}

/** What a prediction expects; of an item the last reading counts. */
export function expectedOf({ test }: Pick<Prediction, 'test'>): Expected {
  const readings = new Map(test.readings.flatMap(measured))
  const answers = new Map(test.answers.map((a) => [a.item, a.answer]))
  return {
    items: [...test.readings.map((r) => r.item), ...answers.keys()],
    reading: (item) => readings.get(item),
    answer: (item) => answers.get(item),
  }
}

/** Halfway between two degrees of one fault; what is seen is then as with the worse of them. */
export const halfway = (slight: Expected, worse: Expected): Expected => ({
  items: worse.items,
  reading: (item) => {
    const [a, b] = [slight.reading(item), worse.reading(item)]
    return a === undefined || b === undefined ? b : (a + b) / 2
  },
  answer: worse.answer,
})

/**
 * How far two sound pieces of the kind may be apart in what an item reads, and the model from either:
 * standard deviations in SI, by item.
 */
export function spreadsOf(
  sound: readonly Expected[],
  all: readonly Expected[],
): (item: string) => number {
  const known = new Map<string, number>()
  const readingsOf = (of: readonly Expected[], item: string) =>
    of.flatMap((e) => e.reading(item) ?? [])
  const spread = (item: string) => {
    const between = readingsOf(sound, item)
    const apart = between.length > 1 ? (Math.max(...between) - Math.min(...between)) / 2 : 0
    const most = Math.max(0, ...readingsOf(all, item).map(Math.abs))
    return Math.hypot(apart, MODEL_OFF * most) || 1
  }
  return (name) => {
    // A needle wavers as far as the reading itself may be off.
    const item = name.endsWith(SWING) ? name.slice(0, -SWING.length) : name
    const found = known.get(item) ?? spread(item)
    known.set(item, found)
    return found
  }
}

/** How well found and expected agree: the likelihood, whole and by item, and whether nothing contradicts. */
export interface Likeness {
  readonly likelihood: number
  readonly byItem: ReadonlyMap<string, number>
  readonly agrees: boolean
}

/**
 * Compares what was found with what is expected, item by item; what either is silent about says nothing.
 * @param bad items that failed, or that sound equipment answers otherwise
 */
export function likenessOf(
  found: Found,
  expected: Expected,
  spread: (item: string) => number,
  bad: ReadonlySet<string>,
): Likeness {
  const byItem = new Map<string, number>()
  let agrees = true
  const weightOf = (item: string) => (bad.size > 0 && !bad.has(item) ? IN_ORDER_WEIGHT : 1)
  for (const [item, si] of found.readings.flatMap(measured)) {
    const there = expected.reading(item)
    if (there === undefined) continue
    const off = (si - there) / spread(item)
    const likelihood = Math.exp((-off * off) / 2) + ANY_READING
    byItem.set(item, likelihood ** weightOf(item))
    // A hand on the valve makes a needle swing as well: that contradicts no fault.
    if (Math.abs(off) > 3 && !item.endsWith(SWING)) agrees = false
  }
  for (const { item, answer } of found.answers) {
    const there = expected.answer(item)
    if (there === undefined || there === answer) continue
    const { seenByMistake, missed } = ANSWER_ERRORS
    byItem.set(item, bad.has(item) ? seenByMistake : missed ** weightOf(item))
    agrees = false
  }
  const likelihood = [...byItem.values()].reduce((a, b) => a * b, 1)
  return { likelihood, byItem, agrees }
}

/** Items that failed by their pack, and answers that sound equipment does not give. */
export function badItems(found: Found, sound: readonly Expected[]): Set<string> {
  const strange = found.answers.filter(({ item, answer }) => {
    const good = sound[0]?.answer(item)
    return good !== undefined && good !== answer
  })
  return new Set([...(found.failed ?? []), ...strange.map((a) => a.item)])
}

/** Whether an expectation shows an item as sound equipment does not: another answer, or a reading far from it. */
export function showsBad(
  expected: Expected,
  item: string,
  sound: readonly Expected[],
  spread: (item: string) => number,
): boolean {
  const answer = expected.answer(item)
  if (answer !== undefined) return sound.every((s) => s.answer(item) !== answer)
  const reading = expected.reading(item)
  if (reading === undefined) return false
  return sound.every((s) => Math.abs((s.reading(item) ?? reading) - reading) > 2 * spread(item))
}
