import { CannotCompute } from '../errors'
/** How a ring of bolts is to be tightened. Bolts are numbered 1 … count round the circle. */
export interface BoltRing {
  readonly count: number
  /** The bolt that comes first; 1 when absent. */
  readonly start?: number
  /** Bolts that come before all others, as the pair beside a locating pin. */
  readonly first?: readonly number[]
  /** Bolts that come after all others, as long ones that let a spring out. */
  readonly last?: readonly number[]
  /** Bolts left part-threaded until zero pressure is proved; they are in no pass. */
  readonly holdBack?: readonly number[]
  /** Parts of the target torque, rising to 1. */
  readonly passes?: readonly number[]
}

export interface BoltPass {
  /** Part of the target torque. */
  readonly part: number
  readonly order: readonly number[]
}

export interface BoltPlan {
  readonly passes: readonly BoltPass[]
  /** Round and round after the last pass until no bolt moves. */
  readonly untilNoneMoves: readonly number[]
}

/** Usual rising passes, as the trade uses them. */
const PASSES = [0.3, 0.6, 1] as const

/**
 * The order of a cross pattern: the circle is halved again and again, and each bolt is followed by
 * the one opposite it, so that the flange is drawn down evenly.
 * @throws CannotCompute for a ring that is none
 */
export function boltPlan(ring: BoltRing): BoltPlan {
  const { count, start = 1, first = [], last = [], holdBack = [], passes = PASSES } = ring
  if (!Number.isInteger(count) || count < 2 || count > 96) {
    throw new CannotCompute('bolt-count', 'A ring has 2 to 96 bolts.', 'Count them again.')
  }
  const named = [start, ...first, ...last, ...holdBack]
  const wrong = named.find((b) => !Number.isInteger(b) || b < 1 || b > count)
  if (wrong !== undefined)
    throw new CannotCompute(
      'bolt-unknown',
      `There is no bolt ${wrong} in a ring of ${count}.`,
      `Name bolts from 1 to ${count}.`,
    )
  const special = [...first, ...last, ...holdBack]
  const twice = special.find((b, n) => special.indexOf(b) !== n)
  if (twice !== undefined)
    throw new CannotCompute('bolt-twice', `Bolt ${twice} is named twice.`, 'Name it once.')
  if (
    passes.at(-1) !== 1 ||
    passes.some((p, n) => !(p > 0 && p <= 1) || p <= (passes[n - 1] ?? 0))
  ) {
    throw new CannotCompute(
      'bolt-passes',
      'Passes rise from above 0 to 1.',
      'Write them as 0.3, 0.6, 1.',
    )
  }
  const middle = crossOrder(count, start, special, first.at(-1))
  const order = [...first, ...middle, ...last]
  if (order.length === 0)
    throw new CannotCompute(
      'bolts-all-held-back',
      'Every bolt is held back: none is left to tighten.',
      'Hold fewer back.',
    )
  const round = order.toSorted((a, b) => a - b)
  const from = Math.max(0, round.indexOf(order[0] as number))
  return {
    passes: passes.map((part) => ({ part, order })),
    untilNoneMoves: [...round.slice(from), ...round.slice(0, from)],
  }
}

/**
 * The bolts that are left in the order of repeated halving from a start bolt, each followed by the one
 * opposite; no bolt follows its neighbour where that can be avoided.
 * @param before the bolt that comes just before, if any
 */
function crossOrder(
  count: number,
  start: number,
  special: readonly number[],
  before: number | undefined,
): number[] {
  const wanted = halvedOrder(count, start)
  const free = wanted.filter((b) => !special.includes(b))
  const half = count % 2 === 0 ? count / 2 : null
  const opposite = (b: number) => ((b - 1 + (half ?? 0)) % count) + 1
  const beside = (a: number, b: number) => {
    const apart = Math.abs(a - b)
    return apart === 1 || apart === count - 1
  }
  const units = half
    ? free
        .filter((b) => !free.includes(opposite(b)) || free.indexOf(b) < free.indexOf(opposite(b)))
        .map((b) => (free.includes(opposite(b)) ? [b, opposite(b)] : [b]))
    : free.map((b) => [b])
  return withoutNeighbours(units, before, beside) ?? star(count, start, special) ?? units.flat()
}

/** Units one after the other, turned round where that helps, so that none begins beside the last. */
function withoutNeighbours(
  units: readonly (readonly number[])[],
  before: number | undefined,
  beside: (a: number, b: number) => boolean,
): number[] | null {
  let tries = 0
  const follow = (
    left: readonly (readonly number[])[],
    last: number | undefined,
  ): number[] | null => {
    if (left.length === 0) return []
    for (const unit of left) {
      for (const way of unit.length > 1 ? [unit, unit.toReversed()] : [unit]) {
        if (++tries > MOST_TRIES) return null
        if (last !== undefined && beside(last, way[0] as number)) continue
        const rest = follow(
          left.filter((u) => u !== unit),
          way.at(-1),
        )
        if (rest) return [...way, ...rest]
      }
    }
    return null
  }
  return follow(units, before)
}
const MOST_TRIES = 20_000

/** An odd ring as a star: each bolt nearly opposite the one before, never beside it from five on. */
function star(count: number, start: number, special: readonly number[]): number[] | null {
  if (count % 2 === 0 || count < 5 || special.length > 0) return null
  const step = (count - 1) / 2
  return Array.from({ length: count }, (_, n) => ((start - 1 + n * step) % count) + 1)
}

/** Bolts 1 … count by repeated halving, from a start bolt. */
function halvedOrder(count: number, start: number): number[] {
  const taken = new Set<number>()
  const order: number[] = []
  const take = (position: number) => {
    taken.add(position)
    order.push(((start - 1 + position) % count) + 1)
  }
  const half = count % 2 === 0 ? count / 2 : null
  for (let n = 0; order.length < count; n++) {
    // Opposites come by themselves: with an even count only half the circle is halved.
    const free = nearestFree(halving(n) * (half ?? count), count, taken)
    if (free === null) break
    take(free)
    if (half !== null) {
      const opposite = (free + half) % count
      if (!taken.has(opposite)) take(opposite)
    }
  }
  return order
}

/** 0, ½, ¼, ¾, ⅛ …: the van der Corput sequence, which halves what is left again and again. */
function halving(n: number): number {
  let value = 0
  let part = 0.5
  for (let left = n; left > 0; left = Math.floor(left / 2)) {
    if (left % 2 === 1) value += part
    part /= 2
  }
  return value
}

function nearestFree(wanted: number, count: number, taken: ReadonlySet<number>): number | null {
  for (let off = 0; off <= count / 2; off++) {
    for (const position of [Math.floor(wanted) + off, Math.floor(wanted) - off]) {
      const place = ((position % count) + count) % count
      if (!taken.has(place)) return place
    }
  }
  return null
}
