import { type Adjuster, apparatusOf } from '../../apparatus'
import type { Library } from '../../library'
import {
  type AnyQuantity,
  convertValue,
  roundTo,
  toSi,
  unitDefinition,
  unitLabel,
} from '../../quantity'
import { passes } from '../../rules'
import type { VisitState } from '../log/state'
import { planOfVisit } from './pinned'
import { nominalsOf, verdictOf } from './verdicts'

/** What is to be done about an adjuster. */
export type NextOfAdjusting =
  | 'another-first'
  | 'enter-nominal'
  | 'read-first'
  | 'change-spring'
  | 'leave-alone'
  | 'learn-in'
  | 'learn-out'
  | 'turn-in'
  | 'turn-out'
  | 'is-set'

/** What is known of setting something right, and what to do next. */
export interface Adjusting {
  readonly adjuster: Adjuster
  /** What was read last, and what is wanted, in the unit of the reading. */
  readonly shows?: number
  readonly wanted?: number
  readonly unit?: string
  /** What a turn inwards adds, from the turns made so far; absent until one was made and read. */
  readonly perTurn?: number
  /** Turns inwards that are left to make; outwards negative. */
  readonly turns?: number
  readonly next: NextOfAdjusting
  /** One sentence: which way, and how much. */
  readonly says: string
}

/** A first turn to learn by: a quarter is felt and does no harm. */
const FIRST_TURN = '¼'
/** A zero that is nearer than this, percent of travel, is set. */
const SET_WITHIN_PERCENT = 0.5
/** Closer than this nobody turns an adjuster. */
const SMALLEST_TURN = 0.05

/** Every adjuster of the equipment, with which way and how much, from the slope seen so far. */
export function adjustingOf(state: VisitState, library: Library): Adjusting[] {
  const adjusters = apparatusOf(state.plan?.equipment.kind ?? '')?.adjusters ?? []
  const each = adjusters.map((a) => adjustingBy(a, state, library))
  return each.map((a) => {
    const first = each.find((b) => b.adjuster.id === a.adjuster.after)
    const off = Math.abs((first?.wanted ?? 0) - (first?.shows ?? 0))
    return first && off > SET_WITHIN_PERCENT
      ? {
          adjuster: a.adjuster,
          next: 'another-first',
          says: `${first.adjuster.label} comes first.`,
        }
      : a
  })
}

function adjustingBy(adjuster: Adjuster, state: VisitState, library: Library): Adjusting {
  const { item, wanted } = adjuster.reads
  const nominals = nominalsOf(state)
  const target: AnyQuantity | undefined = typeof wanted === 'string' ? nominals[wanted] : wanted
  const seen = takenOf(state, item)
  const last = seen.at(-1)
  if (!target) {
    const says = 'What it is to be set to is not on the equipment’s page.'
    return { adjuster, next: 'enter-nominal', says }
  }
  if (!last) return { adjuster, next: 'read-first', says: 'Read first what it is set to.' }
  const { dimension, unit } = last
  const inUnit = (q: AnyQuantity) => convertValue(dimension, Number(q.value), q.unit, unit)
  const shows = Number(last.value)
  const goal = inUnit(target)
  const perTurn = slopeOf(adjuster.id, state, seen)
  const turns = perTurn ? (goal - shows) / perTurn : undefined
  const known = {
    adjuster,
    shows,
    wanted: goal,
    unit,
    ...(perTurn === undefined ? {} : { perTurn }),
    ...(turns === undefined ? {} : { turns }),
  }
  const words = (v: number) =>
    `${roundTo(v, unitDefinition(dimension, unit).digits)} ${unitLabel(dimension, unit)}`
  const reads = `Reads ${words(shows)}, wanted ${words(goal)}.`
  const spring = springSays(adjuster, nominals, target)
  if (spring) return { ...known, next: 'change-spring', says: `${reads} ${spring}` }
  const left = leftAlone(item, state, library)
  if (left) return { ...known, next: 'leave-alone', says: `${reads} ${left}` }
  const way = goal > shows ? 'in' : 'out'
  if (turns === undefined) {
    return {
      ...known,
      next: `learn-${way}`,
      says: `${reads} Turn ${way} by ${FIRST_TURN} and read again: what a turn does is not known yet.`,
    }
  }
  if (Math.abs(turns) < SMALLEST_TURN)
    return { ...known, next: 'is-set', says: `${reads} It is set.` }
  const slope = `A turn in changes it by ${words(perTurn ?? 0)}`
  const says = `${reads} ${slope}: about ${roundTo(Math.abs(turns), 2)} turns ${way}.`
  return { ...known, next: `turn-${way}`, says }
}

interface Taken extends AnyQuantity {
  readonly at: string
}

/** Every reading of an item, as found and as left, in the order they were taken. */
const takenOf = (state: VisitState, item: string): Taken[] =>
  (['as-found', 'as-left'] as const)
    .flatMap((run) => state.runs[run]?.readings ?? [])
    .filter((r) => r.item === item)
    .map(({ dimension, value, unit, recordedAt: at }) => ({ dimension, value, unit, at }))

/** What a turn inwards added between the last two readings with turns between them. */
function slopeOf(adjuster: string, state: VisitState, seen: readonly Taken[]): number | undefined {
  for (let n = seen.length - 1; n > 0; n--) {
    const [before, after] = [seen[n - 1] as Taken, seen[n] as Taken]
    const between = state.adjusted.filter(
      (a) => a.recordedAt > before.at && a.recordedAt <= after.at,
    )
    // Two screws turned between two readings: neither can be told from the other.
    if (between.some((a) => a.adjuster !== adjuster)) continue
    const turned = between.reduce((sum, a) => sum + Number(a.turns) * (a.way === 'in' ? 1 : -1), 0)
    if (turned === 0) continue
    const was = convertValue(after.dimension, Number(before.value), before.unit, after.unit)
    const slope = (Number(after.value) - was) / turned
    return slope === 0 ? undefined : slope
  }
  return undefined
}

/** A pressure outside the spring’s range wants another spring. */
function springSays(
  { range }: Adjuster,
  nominals: Readonly<Record<string, AnyQuantity>>,
  target: AnyQuantity,
): string | null {
  const [low, high] = (range ?? []).map((name) => nominals[name])
  if (!low || !high) return null
  if (toSi(target) >= toSi(low) && toSi(target) <= toSi(high)) return null
  return `That lies outside the spring’s range, ${low.value} to ${high.value} ${unitLabel(high.dimension, high.unit)}: change the spring.`
}

/** Under the school that leaves alone what is within tolerance, nothing is turned. */
function leftAlone(item: string, state: VisitState, library: Library): string | null {
  const run = state.runs['as-left'] ? 'as-left' : 'as-found'
  if (planOfVisit(state, library, run)?.pack.setting !== 'leave-within-tolerance') return null
  const judged = verdictOf(state, run, library)?.items.find((i) => i.id === item)
  return passes(judged?.outcome) ? 'Within tolerance: by the rule pack it is left alone.' : null
}
