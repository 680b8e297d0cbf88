import { chances } from './chances'
import { grouped } from './grouped'
import type { Cause, Prediction } from './hypotheses'
import { type Expected, expectedOf, type Found, halfway, likenessOf, spreadsOf } from './likeness'

/** All degrees of one cause, held against what was found. */
export interface Weighed {
  readonly cause: Cause
  /** Its part of all that is thinkable; those of all causes are one together. */
  readonly weight: number
  /** At the degree that fits best nothing contradicts what was found. */
  readonly agrees: boolean
  /** What is expected at that degree. */
  readonly best: Expected
}

/** What was found weighed under every cause, the likeliest first, and how far apart sound pieces read. */
export function weigh(
  found: Found,
  predictions: readonly Prediction[],
): { readonly causes: readonly Weighed[]; readonly spread: (item: string) => number } {
  const cases = grouped(predictions, ({ cause }) =>
    cause ? `${cause.element} ${cause.fault}` : '',
  ).map((of) => ({ cause: of[0]?.cause ?? null, expected: byDegree(of) }))
  const spread = spreadsOf(
    cases.find((c) => c.cause === null)?.expected ?? [],
    cases.flatMap((c) => c.expected),
  )
  // Whoever asks has seen something: that nothing is wrong is as likely as all that may be.
  const sound = cases.reduce((sum, { cause }) => sum + (cause ? chances[cause.fault] : 0), 0)
  const weighed = cases.map(({ cause, expected }) => {
    const likenesses = expected.map((best) => ({ best, ...likenessOf(found, best, spread) }))
    const { best, agrees } = likenesses.reduce((a, b) => (b.likelihood > a.likelihood ? b : a))
    // Every degree of a fault is as likely as another.
    const mean = likenesses.reduce((sum, l) => sum + l.likelihood, 0) / likenesses.length
    return { cause, best, agrees, weight: mean * (cause ? chances[cause.fault] : sound) }
  })
  const whole = weightOf(weighed)
  const causes = weighed.map((w) => ({ ...w, weight: w.weight / whole }))
  return { causes: causes.sort((a, b) => b.weight - a.weight), spread }
}

/** How likely it is that one of several causes is the one. */
export const weightOf = (causes: readonly Pick<Weighed, 'weight'>[]): number =>
  causes.reduce((sum, { weight }) => sum + weight, 0)

/** What is expected by degrees, and at what lies halfway between two of them. */
function byDegree(of: readonly Prediction[]): Expected[] {
  const points = [...of].sort((a, b) => a.degree - b.degree).map(expectedOf)
  const between = points.slice(1).map((worse, n) => halfway(points[n] ?? worse, worse))
  return [...points, ...between]
}
