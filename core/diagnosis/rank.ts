import { apparatusOf, elementLabel, type FaultKind, faultKinds } from '../apparatus'
import { grouped } from './grouped'
import type { Prediction } from './hypotheses'
import type { Found } from './likeness'
import { type Pair, pairsOf } from './pairs'
import { type Sign, signs } from './signs'
import { pointsTo } from '../symptoms'
import { type Telling, tellingOf } from './telling'
import { byPart, type Faulty, weigh, type Weighed, type Weighing, weightOf } from './weigh'

/** One fault that what was found may come from. */
export interface Suspicion extends Sign {
  readonly fault: FaultKind
  readonly title: string
  /** 0 … 1 of all that is thinkable. */
  readonly chance: number
}

/** A part that may be to blame, with its faults, the likeliest first. */
export interface Suspect {
  readonly element: string
  readonly label: string
  /** 0 … 1 of all that is thinkable. */
  readonly chance: number
  readonly faults: readonly Suspicion[]
}

export interface Diagnosis {
  /** Some single cause explains all that was found; else there may be two, or one that the model has not. */
  readonly explained: boolean
  /** That nothing is wrong with it, 0 … 1; none where an item failed. */
  readonly sound: number
  /** Two parts that may both be to blame, where no single fault explains what was found. */
  readonly pairs: readonly (Pair & { readonly labels: readonly [string, string] })[]
  /** The likeliest first. */
  readonly suspects: readonly Suspect[]
  /** Checks that were not made, the most telling first. */
  readonly next: readonly Telling[]
}

/** What is less likely than this is not worth a line. */
const WORTH_SAYING = 0.02

/**
 * What may be wrong, by what was found: every thinkable cause weighed by how well the model reads
 * with it as the equipment did (Bayes’ rule; one cause at a time).
 * @param predictions of every hypothesis of the kind, computed for this equipment
 */
export function rank(kind: string, found: Found, predictions: readonly Prediction[]): Diagnosis {
  const last = lastOf(found)
  const weighing = weigh(last, predictions)
  const { causes, spread, bad } = weighing
  const explained = causes[0]?.agrees ?? false
  const { pairs, shares, gain } = explained || bad.size < 2 ? NO_PAIRS : pairsOf(causes)
  const suspects = withSymptoms(kind, weighing, suspectsOf(kind, causes), explained)
  return {
    explained,
    sound: causes.find((c) => c.cause === null)?.weight ?? 0,
    pairs: pairs.map((p) => ({
      ...p,
      labels: [labelOf(kind, p.elements[0]), labelOf(kind, p.elements[1])],
    })),
    suspects: gain > 1 ? byPairs(kind, pairs, shares) : suspects,
    next: tellingOf(last, causes, spread),
  }
}

/** How much the tables of symptoms count beside a model that explains nothing whole. */
const SYMPTOM_SHARE = 0.7
const NO_PAIRS: ReturnType<typeof pairsOf> = { pairs: [], shares: new Map(), gain: 0 }

/** The parts of the likeliest pairs: how likely each is, and each of its faults, as one of two. */
function byPairs(
  kind: string,
  pairs: readonly Pair[],
  shares: ReadonlyMap<Faulty, number>,
): Suspect[] {
  const chanceOf = (element: string) =>
    pairs.filter((p) => p.elements.includes(element)).reduce((sum, p) => sum + p.chance, 0) / 2
  return grouped([...shares], ([c]) => c.cause.element)
    .map((of): Suspect => {
      const { element } = of[0][0].cause
      const whole = of.reduce((sum, [, share]) => sum + share, 0) || 1
      const chance = chanceOf(element)
      const faults = of.map(([c, share]) => ({ ...c, weight: (chance * share) / whole }))
      return suspectOf(kind, element, chance, faults)
    })
    .filter((s) => s.chance >= WORTH_SAYING)
    .sort((a, b) => b.chance - a.chance)
}

/**
 * Suspects with those that a failed item points to where no fault of the model shows it: what was seen counts for as
 * much as the part of the failed items that it is. Where nothing is known of such an item, every part is one.
 */
function withSymptoms(
  kind: string,
  { bad, unexplained }: Weighing,
  suspects: readonly Suspect[],
  isExplained: boolean,
): Suspect[] {
  // Where no fault explains the whole, what each failed item points to by itself counts as well.
  const seen = isExplained
    ? unexplained
    : [...bad].filter((i) => unexplained.includes(i) || pointsTo(kind, i).length > 0)
  if (seen.length === 0) return [...suspects]
  const elements = apparatusOf(kind)?.elements.map((e) => e.id) ?? []
  const share = seen.length / bad.size
  const told = new Map<string, number>()
  for (const item of seen) {
    const known = pointsTo(kind, item).filter((e) => elements.includes(e))
    const parts = known.length > 0 ? known : elements
    // The first of a list is named first for a reason.
    const worth = (n: number) => (known.length > 0 ? 1 / 2 ** n : 1)
    const whole = parts.reduce((sum, _, n) => sum + worth(n), 0)
    for (const [n, part] of parts.entries())
      told.set(part, (told.get(part) ?? 0) + worth(n) / whole / seen.length)
  }
  const all = new Set([...suspects.map((s) => s.element), ...told.keys()])
  return [...all]
    .map((element): Suspect => {
      const own = suspects.find((s) => s.element === element)
      const model = 1 - share * SYMPTOM_SHARE
      const chance = model * (own?.chance ?? 0) + (1 - model) * (told.get(element) ?? 0)
      return { element, label: labelOf(kind, element), faults: own?.faults ?? [], chance }
    })
    .filter((s) => s.chance >= WORTH_SAYING)
    .sort((a, b) => b.chance - a.chance)
}

function labelOf(kind: string, element: string): string {
  const apparatus = apparatusOf(kind)
  return apparatus ? elementLabel(apparatus, element) : element
}

/** Of an item that was taken again the last reading and the last answer stand. */
const lastOf = ({ readings, answers, failed }: Found): Found => ({
  ...(failed ? { failed } : {}),
  readings: [...new Map(readings.map((r) => [r.item, r])).values()],
  answers: [...new Map(answers.map((a) => [a.item, a])).values()],
})

function suspectsOf(kind: string, causes: readonly Weighed[]): Suspect[] {
  return byPart(causes)
    .map((of) => suspectOf(kind, of[0].cause.element, weightOf(of), of))
    .filter((s) => s.chance >= WORTH_SAYING)
    .sort((a, b) => b.chance - a.chance)
}

/** A part with those of its faults that are worth saying, the likeliest first. */
const suspectOf = (
  kind: string,
  element: string,
  chance: number,
  causes: readonly Pick<Faulty, 'cause' | 'weight'>[],
): Suspect => ({
  element,
  label: labelOf(kind, element),
  chance,
  faults: causes
    .filter(({ weight }) => weight >= WORTH_SAYING)
    .map(({ cause: { fault }, weight }) => ({
      fault,
      title: faultKinds[fault].title,
      chance: weight,
      ...signs[fault],
    }))
    .sort((a, b) => b.chance - a.chance),
})
