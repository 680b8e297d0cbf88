import { apparatusOf, elementLabel, type FaultKind, faultKinds } from '../apparatus'
import { grouped } from './grouped'
import type { Prediction } from './hypotheses'
import type { Found } from './likeness'
import { type Sign, signs } from './signs'
import { type Telling, tellingOf } from './telling'
import { weigh, type Weighed, weightOf } from './weigh'

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
  /** That nothing is wrong with it, 0 … 1. */
  readonly sound: number
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
  const { causes, spread } = weigh(last, predictions)
  return {
    explained: causes[0]?.agrees ?? false,
    sound: causes.find((c) => c.cause === null)?.weight ?? 0,
    suspects: suspectsOf(kind, causes),
    next: tellingOf(last, causes, spread),
  }
}

/** Of an item that was taken again the last reading and the last answer stand. */
const lastOf = ({ readings, answers }: Found): Found => ({
  readings: [...new Map(readings.map((r) => [r.item, r])).values()],
  answers: [...new Map(answers.map((a) => [a.item, a])).values()],
})

function suspectsOf(kind: string, causes: readonly Weighed[]): Suspect[] {
  const apparatus = apparatusOf(kind)
  const faulty = causes.flatMap(({ cause, weight }) => (cause ? { ...cause, weight } : []))
  return grouped(faulty, (f) => f.element)
    .map((of) => {
      const element = of[0]?.element ?? ''
      return {
        element,
        label: apparatus ? elementLabel(apparatus, element) : element,
        chance: weightOf(of),
        faults: of
          .filter((f) => f.weight >= WORTH_SAYING)
          .map(({ fault, weight }) => ({
            fault,
            title: faultKinds[fault].title,
            chance: weight,
            ...signs[fault],
          })),
      }
    })
    .filter((s) => s.faults.length > 0)
    .sort((a, b) => b.chance - a.chance)
}
