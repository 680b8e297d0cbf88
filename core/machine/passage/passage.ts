import type { Machine, MachinePart } from '../schema'
import { type Bulk, bulksOf } from './bulk'

/** The two ways along its axis on which a part can move. */
export type Way = 'up' | 'down'

/** A part that stands in the way of a move, and by how much the two do not pass each other, in units of the profile. */
export interface InTheWay {
  readonly part: string
  readonly by: number
}

/** Less than this of metal on metal is a fit, or a line of the drawing. */
const FIT = 0.6
/** Rubber is stretched over a shoulder, a clip is opened, by so much of its inner radius. */
const STRETCH = 0.35
/** Rubber is folded through a bore, a clip is closed, by so much of its outer radius. */
const FOLD = 0.45
/** Kinds that yield in the hand on their way. */
const YIELDING = ['o-ring', 'gasket', 'lip-seal', 'diaphragm', 'clip', 'ring', 'screen', 'spring']

const yields = ({ material, kind, draw }: MachinePart) =>
  material === 'rubber' || YIELDING.includes(kind) || draw.snaps === true

/**
 * Says for each way along its axis what a part meets that moves out that way from its place, with everything that it
 * carries. Where a way meets nothing it is free. The same holds for the way in. Fasteners and washers are in nobody’s
 * way: that they are loosened first is asked for by itself. A part that leaves aside is free. Of several that count as
 * one part each leaves by itself, and none of them is carried: they sit in several parts.
 * @param moving the part, and what moves with it
 * @param standing what is in its place meanwhile
 */
export function waysOut(
  machine: Machine,
  moving: readonly MachinePart[],
  standing: readonly MachinePart[],
): Record<Way, InTheWay[]> {
  const [first, ...carried] = moving
  if (!first || first.draw.aside) return { up: [], down: [] }
  if (!isAlone(first))
    return everyPiece(first, (piece) =>
      waysOut(machine, [{ ...first, count: 1, draw: piece }], standing),
    )
  const { axis } = first.draw
  const movers = [first, ...carried.filter((p) => isSolid(p) && isAlone(p))].map((part) => ({
    bulks: bulksOf(machine, part, axis),
    yields: yields(part),
  }))
  const obstacles = standing
    .filter((part) => isSolid(part) && !isPressedAside(part))
    .map((part) => ({ part, bulks: bulksOf(machine, part, axis) }))
  const meets = (way: Way) =>
    obstacles.flatMap(({ part, bulks }): InTheWay[] => {
      const each = movers.flatMap((mover) =>
        mover.bulks.flatMap((bulk) =>
          bulks.map((there) => barredBy(way, bulk, mover.yields, there)),
        ),
      )
      const by = Math.max(0, ...each)
      return by > 0 ? [{ part: part.id, by }] : []
    })
  return { up: meets('up'), down: meets('down') }
}

/** Of several pieces each leaves by the way that is free for it: what bars one of them both ways bars them all. */
function everyPiece(
  part: MachinePart,
  waysOf: (draw: MachinePart['draw']) => Record<Way, InTheWay[]>,
): Record<Way, InTheWay[]> {
  const { seg = [], rings = [], ...rest } = part.draw
  const pieces = [
    ...seg.map((one) => ({ ...rest, seg: [one] })),
    ...rings.map((one) => ({ ...rest, rings: [one] })),
  ]
  const found = (pieces.length > 0 ? pieces : [part.draw]).map(waysOf)
  return found.find(({ up, down }) => up.length > 0 && down.length > 0) ?? { up: [], down: [] }
}

const isAlone = ({ count = 1 }: MachinePart) => count === 1

/** A seal lies in its groove and gives way to what slides past it. */
const isPressedAside = ({ kind, material }: MachinePart) =>
  material === 'rubber' && ['o-ring', 'lip-seal'].includes(kind)

const isSolid = ({ kind }: MachinePart) =>
  kind !== 'fastener' && kind !== 'washer' && kind !== 'spring' && kind !== 'body'

/**
 * What is brittle and would enter a bore unseen: it stands in its place while the part with the bore is pushed over it.
 * @param moving the part with the bore, and what moves with it
 * @param standing what is in its place meanwhile
 */
export function enteredBlind(
  machine: Machine,
  moving: readonly MachinePart[],
  standing: readonly MachinePart[],
): string[] {
  const axis = moving[0]?.draw.axis
  const bores = moving.flatMap((p) => bulksOf(machine, p, axis)).filter((b) => b.rFrom > 0)
  return standing
    .filter((part) => part.brittle)
    .filter((part) =>
      bulksOf(machine, part, axis).some((ring) =>
        bores.some(
          (bore) =>
            bore.rTo > ring.rTo &&
            Math.abs(bore.rFrom - ring.rTo) <= FIT &&
            Math.min(bore.zTo, ring.zTo) > Math.max(bore.zFrom, ring.zFrom),
        ),
      ),
    )
    .map((part) => part.id)
}

/** Whether a part lies round another in the same place along the axis, as a slide ring over its O-ring. */
export function liesOver(machine: Machine, over: MachinePart, under: MachinePart): boolean {
  const axis = under.draw.axis
  return bulksOf(machine, over, axis).some((o) =>
    bulksOf(machine, under, axis).some(
      (u) =>
        Math.min(o.zTo, u.zTo) > Math.max(o.zFrom, u.zFrom) &&
        (o.rFrom + o.rTo) / 2 > (u.rFrom + u.rTo) / 2,
    ),
  )
}

/** By how much a piece meets another one on its way; 0 where it passes. */
function barredBy(way: Way, mover: Bulk, moverYields: boolean, there: Bulk): number {
  const isAhead =
    way === 'up' ? there.zTo > mover.zTo + FIT / 2 : there.zFrom < mover.zFrom - FIT / 2
  if (!isAhead) return 0
  const common = Math.min(mover.rTo, there.rTo) - Math.max(mover.rFrom, there.rFrom)
  if (common <= FIT) return 0
  if (moverYields) {
    const over = there.rTo <= mover.rFrom * (1 + STRETCH) + FIT
    const through = there.rFrom >= mover.rTo * (1 - FOLD)
    return over || through ? 0 : common
  }
  return common
}

/** What moves with a part: what sits in, on or around it and is still there, and so on; what lies under it stays. */
export function carriedBy(
  parts: readonly MachinePart[],
  ids: readonly string[],
  off: ReadonlySet<string>,
): MachinePart[] {
  const carried = new Set(ids)
  for (let grown = true; grown;) {
    const more = parts.filter(
      (p) =>
        !carried.has(p.id) && !off.has(p.id) && p.of && p.sits !== 'under' && carried.has(p.of),
    )
    for (const p of more) carried.add(p.id)
    grown = more.length > 0
  }
  const first = parts.filter((p) => ids.includes(p.id))
  return [...first, ...parts.filter((p) => carried.has(p.id) && !ids.includes(p.id))]
}

/**
 * Where a part is: the part that is off and with which it came off, or nothing while it is in the machine. What lies in
 * two places is in nobody’s way.
 */
export function placeOf(
  parts: readonly MachinePart[],
  id: string,
  off: ReadonlySet<string>,
): string | undefined {
  let part = parts.find((p) => p.id === id)
  while (part && !off.has(part.id)) {
    const { of, sits } = part
    part = sits === 'under' ? undefined : parts.find((p) => p.id === of)
  }
  return part?.id
}
