import { chances } from './chances'
import { grouped } from './grouped'
import { byPart, type Faulty, type Weighed } from './weigh'

/** Two parts that may both be to blame. */
export interface Pair {
  readonly elements: readonly [string, string]
  /** 0 … 1 of all pairs. */
  readonly chance: number
}

/** How much rarer two faults at once are than one. */
const TWO_AT_ONCE = 0.05
const WORTH_SAYING = 0.02

/**
 * Weighs pairs of parts: of each item the part counts that explains it better, since a fault shows in some readings
 * and leaves the others as they are.
 * @returns the likeliest first, with their likelihood against that of the best single cause
 */
export function pairsOf(causes: readonly Weighed[]): {
  readonly pairs: readonly Pair[]
  /** How likely each cause is as one of two: of the same scale for all of one part. */
  readonly shares: ReadonlyMap<Faulty, number>
  /** How much better the best pair reads than the best single cause; over one, two faults are likelier. */
  readonly gain: number
} {
  const parts = byPart(causes)
  const both = parts.flatMap((a, n) =>
    parts
      .slice(n + 1)
      .flatMap((b) => a.flatMap((x) => b.map((y) => ({ x, y, weight: together(x, y) })))),
  )
  const elementsOf = ({ x, y }: (typeof both)[number]) =>
    [x.cause.element, y.cause.element] as const
  const weighed = grouped(both, (p) => elementsOf(p).join(' ')).map((of) => ({
    elements: elementsOf(of[0]),
    weight: Math.max(...of.map((p) => p.weight)),
  }))
  const whole = weighed.reduce((sum, p) => sum + p.weight, 0)
  const single = Math.max(0, ...parts.flat().map(alone))
  const best = Math.max(0, ...weighed.map((p) => p.weight))
  const pairs = weighed
    .map(({ elements, weight }) => ({ elements, chance: whole > 0 ? weight / whole : 0 }))
    .filter((p) => p.chance >= WORTH_SAYING)
    .sort((a, b) => b.chance - a.chance)
  const shares = new Map<Faulty, number>()
  for (const { x, y, weight } of both)
    for (const cause of [x, y]) shares.set(cause, (shares.get(cause) ?? 0) + weight)
  return { pairs, shares, gain: single > 0 ? (best * TWO_AT_ONCE) / single : Infinity }
}

const priorOf = ({ cause }: Faulty) => chances[cause.fault]
const alone = (c: Faulty) => priorOf(c) * Math.max(...c.likenesses.map((l) => l.likelihood))

/** The likelihood of two causes at their best degrees. */
function together(a: Faulty, b: Faulty): number {
  let best = 0
  for (const x of a.likenesses)
    for (const y of b.likenesses) {
      const items = new Set([...x.byItem.keys(), ...y.byItem.keys()])
      let likelihood = 1
      for (const item of items)
        likelihood *= Math.max(x.byItem.get(item) ?? 1, y.byItem.get(item) ?? 1)
      best = Math.max(best, likelihood)
    }
  // Priors are of ten: two of them together stay comparable with one.
  return (best * priorOf(a) * priorOf(b)) / 10
}
