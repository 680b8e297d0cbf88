import { grouped } from './grouped'
import type { Expected, Found } from './likeness'
import { type Weighed, weightOf } from './weigh'

/** A check that was not made yet, and how much it would tell. */
export interface Telling {
  readonly item: string
  /** Bits by which not knowing the part becomes less, on average. */
  readonly bits: number
  /** What it would come to for the likeliest part that answers so; no part stands for sound equipment. */
  readonly outcomes: readonly {
    readonly element: string | null
    readonly answer?: string
    /** In the SI unit of its dimension. */
    readonly si?: number
  }[]
}

/** Bits from which on a check is worth making. */
const WORTH_MAKING = 0.05
/** Readings that a person would take for different ones lie this many spreads apart. */
const APART = 3
/** So many outcomes are told. */
const TOLD = 3

/** Not knowing which part it is: the entropy over parts, in bits. */
function doubt(causes: readonly Weighed[]): number {
  const whole = weightOf(causes)
  const parts = grouped(causes, (c) => c.cause?.element ?? '').map((of) => weightOf(of) / whole)
  return parts.reduce((bits, p) => (p > 0 ? bits - p * Math.log2(p) : bits), 0)
}

/** What is expected of an item, told apart as a person would. */
function seenAs(expected: Expected, item: string, spread: number): string {
  const reading = expected.reading(item)
  return (
    expected.answer(item) ??
    (reading === undefined ? '' : String(Math.round(reading / (APART * spread))))
  )
}

/** Checks that were not made, the most telling first: those whose outcome separates the parts best. */
export function tellingOf(
  found: Found,
  causes: readonly Weighed[],
  spread: (item: string) => number,
): Telling[] {
  const known = new Set([...found.readings, ...found.answers].map((f) => f.item))
  const items = new Set(causes.flatMap((c) => c.best.items))
  const before = doubt(causes)
  return [...items]
    .filter((item) => !known.has(item))
    .map((item) => {
      const groups = grouped(causes, (c) => seenAs(c.best, item, spread(item)))
      const after = groups.reduce((bits, g) => bits + weightOf(g) * doubt(g), 0)
      const outcomes = groups.slice(0, TOLD).map(([likeliest]) => {
        const [answer, si] = [likeliest.best.answer(item), likeliest.best.reading(item)]
        return {
          element: likeliest.cause?.element ?? null,
          ...(answer === undefined ? {} : { answer }),
          ...(si === undefined ? {} : { si }),
        }
      })
      return { item, bits: before - after, outcomes }
    })
    .filter((t) => t.bits >= WORTH_MAKING)
    .sort((a, b) => b.bits - a.bits)
}
