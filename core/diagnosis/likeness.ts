import { toSi } from '../quantity'
import type { Answer, Reading } from '../rules'
import type { Prediction } from './hypotheses'

/** What was found of a test, as far as it has come. */
export interface Found {
  readonly readings: readonly Seen[]
  readonly answers: readonly Pick<Answer, 'item' | 'answer'>[]
}
type Seen = Pick<Reading, 'item' | 'dimension' | 'value' | 'unit'>

/** What a hypothesis has an item read, in SI, or answered; undefined where it says nothing of it. */
export interface Expected {
  /** Everything that it says something of. */
  readonly items: readonly string[]
  readonly reading: (item: string) => number | undefined
  readonly answer: (item: string) => string | undefined
}

/** A person can be mistaken in what he saw, and the model in what he would see. */
const OTHER_ANSWER = 0.06
/** How much any reading may lie outside of what is expected: nothing is ruled out for good. */
const ANY_READING = 0.002
/** Part of the largest reading that is thinkable by which a model is off at best. */
const MODEL_OFF = 0.02

/** A reading in the SI unit of its dimension. */
const siOf = ({ dimension, value, unit }: Seen): number =>
  toSi({ dimension, value, unit } as Parameters<typeof toSi>[0])

/** What a prediction expects; of an item the last reading counts. */
export function expectedOf({ test }: Pick<Prediction, 'test'>): Expected {
  const readings = new Map(test.readings.map((r) => [r.item, siOf(r)]))
  const answers = new Map(test.answers.map((a) => [a.item, a.answer]))
  return {
    items: [...readings.keys(), ...answers.keys()],
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
  return (item) => {
    const found = known.get(item) ?? spread(item)
    known.set(item, found)
    return found
  }
}

/** How well found and expected agree: the likelihood, and whether nothing contradicts. */
export interface Likeness {
  readonly likelihood: number
  readonly agrees: boolean
}

/** Compares what was found with what is expected, item by item; what either is silent about says nothing. */
export function likenessOf(
  found: Found,
  expected: Expected,
  spread: (item: string) => number,
): Likeness {
  let likelihood = 1
  let agrees = true
  for (const reading of found.readings) {
    const there = expected.reading(reading.item)
    if (there === undefined) continue
    const off = (siOf(reading) - there) / spread(reading.item)
    likelihood *= Math.exp((-off * off) / 2) + ANY_READING
    if (Math.abs(off) > 3) agrees = false
  }
  for (const { item, answer } of found.answers) {
    const there = expected.answer(item)
    if (there === undefined || there === answer) continue
    likelihood *= OTHER_ANSWER
    agrees = false
  }
  return { likelihood, agrees }
}
