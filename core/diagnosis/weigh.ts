import { chances } from './chances'
import { type Group, grouped } from './grouped'
import type { Cause, Prediction } from './hypotheses'
import {
  badItems,
  type Expected,
  expectedOf,
  type Found,
  halfway,
  type Likeness,
  likenessOf,
  showsBad,
  spreadsOf,
} from './likeness'

/** All degrees of one cause, held against what was found. */
export interface Weighed {
  readonly cause: Cause
  /** Its part of all that is thinkable; those of all causes are one together. */
  readonly weight: number
  /** At the degree that fits best nothing contradicts what was found. */
  readonly agrees: boolean
  /** What is expected at that degree. */
  readonly best: Expected
  /** How likely what was found is at each degree, item by item. */
  readonly likenesses: readonly Likeness[]
}

/** All causes weighed, and what the weighing went by. */
export interface Weighing {
  readonly causes: readonly Weighed[]
  readonly spread: (item: string) => number
  readonly bad: ReadonlySet<string>
  /** Items that failed though no cause that the model knows shows them so. */
  readonly unexplained: readonly string[]
}

/** What was found weighed under every cause, the likeliest first, and how far apart sound pieces read. */
export function weigh(found: Found, predictions: readonly Prediction[]): Weighing {
  const cases = grouped(predictions, ({ cause }) =>
    cause ? `${cause.element} ${cause.fault}` : '',
  ).map((of) => ({ cause: of[0].cause, expected: byDegree(of) }))
  const soundOnes = cases.find((c) => c.cause === null)?.expected ?? []
  const spread = spreadsOf(
    soundOnes,
    cases.flatMap((c) => c.expected),
  )
  const bad = badItems(found, soundOnes)
  // Nothing failed: that nothing is wrong is as likely as all that may be. Where something failed, something is wrong.
  const all = cases.reduce((sum, { cause }) => sum + (cause ? chances[cause.fault] : 0), 0)
  const sound = bad.size > 0 ? 0 : all
  const weighed = cases.map(({ cause, expected }) => {
    const likenesses = expected.map((best) => ({ best, ...likenessOf(found, best, spread, bad) }))
    const { best, agrees } = likenesses.reduce((a, b) => (b.likelihood > a.likelihood ? b : a))
    // Every degree of a fault is as likely as another.
    const mean = likenesses.reduce((sum, l) => sum + l.likelihood, 0) / likenesses.length
    return {
      cause,
      best,
      agrees,
      likenesses,
      weight: mean * (cause ? chances[cause.fault] : sound),
    }
  })
  const whole = weightOf(weighed) || 1
  const causes = weighed.map((w) => ({ ...w, weight: w.weight / whole }))
  const isExplained = (item: string) =>
    cases.some(
      (c) => c.cause !== null && c.expected.some((e) => showsBad(e, item, soundOnes, spread)),
    )
  return {
    causes: causes.sort((a, b) => b.weight - a.weight),
    spread,
    bad,
    unexplained: [...bad].filter((item) => !isExplained(item)),
  }
}

/** One fault, weighed. */
export type Faulty = Weighed & { readonly cause: NonNullable<Cause> }

/** What may be wrong, in groups by part, the likeliest first. */
export const byPart = (causes: readonly Weighed[]): Group<Faulty>[] =>
  grouped(
    causes.filter((c): c is Faulty => c.cause !== null),
    (c) => c.cause.element,
  )

/** How likely it is that one of several causes is the one. */
export const weightOf = (causes: readonly Pick<Weighed, 'weight'>[]): number =>
  causes.reduce((sum, { weight }) => sum + weight, 0)

/** What is expected by degrees, and at what lies halfway between two of them. */
function byDegree(of: readonly Prediction[]): Expected[] {
  const points = [...of].sort((a, b) => a.degree - b.degree).map(expectedOf)
  const between = points.slice(1).map((worse, n) => halfway(points[n] ?? worse, worse))
  return [...points, ...between]
}
