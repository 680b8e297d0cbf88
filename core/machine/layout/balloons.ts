import type { Point } from './shapes'

/** A number in its circle, and the point of the part that its line leads to. */
export interface Balloon {
  readonly at: Point
  readonly to: Point
}

/** Radius of the circle of a number. */
export const BALLOON = 14
/** From one number to the next, and from the drawing to its numbers. */
const APART = 2 * BALLOON + 3
const CLEAR = 18

/**
 * Numbers beside a drawing, so that no circle lies on another and no line crosses its neighbour: on
 * both sides of a tall one, above and below a wide one.
 */
export function balloons(
  anchors: readonly (readonly [Point, Point])[],
  [from, to]: readonly [Point, Point],
): { readonly places: Balloon[]; readonly from: Point; readonly to: Point } {
  const tall = to.y - from.y >= to.x - from.x
  // On a wide drawing the sheet is turned, placed, and turned back.
  const turned = (p: Point): Point => (tall ? p : { x: p.y, y: p.x })
  const [low, high] = [turned(from), turned(to)]
  const wanted = anchors
    .map(([a, b], n) => ({ n, ends: [turned(a), turned(b)] as const }))
    .sort((a, b) => a.ends[0].y - b.ends[0].y)
  const places: Balloon[] = []
  const middle = (low.x + high.x) / 2
  const aside = (high.x - low.x) / 6
  let even = 1
  const sided = wanted.map((w) => {
    const off = (w.ends[0].x + w.ends[1].x) / 2 - middle
    if (Math.abs(off) > aside) return { ...w, side: off < 0 ? 0 : 1 }
    even = 1 - even
    return { ...w, side: even }
  })
  /** What stands to one side has its number there; of the rest every other one, at the end that lies there. */
  const put = (side: 0 | 1, x: number): number[] => {
    const own = sided
      .filter((w) => w.side === side)
      .map(({ n, ends: [a, b] }) => ({ n, to: (side === 0 ? a.x <= b.x : a.x >= b.x) ? a : b }))
      .sort((a, b) => a.to.y - b.to.y)
    const ys = spread(own.map((w) => w.to.y))
    own.forEach((w, k) => {
      places[w.n] = { at: turned({ x, y: ys[k] ?? 0 }), to: turned(w.to) }
    })
    return ys
  }
  const ys = [...put(0, low.x - CLEAR - BALLOON), ...put(1, high.x + CLEAR + BALLOON)]
  const ends = [
    { x: low.x - CLEAR - 2 * BALLOON, y: Math.min(low.y, ...ys.map((y) => y - BALLOON)) },
    { x: high.x + CLEAR + 2 * BALLOON, y: Math.max(high.y, ...ys.map((y) => y + BALLOON)) },
  ].map(turned)
  return { places, from: ends[0] as Point, to: ends[1] as Point }
}

/** Places in order, each as near to where it is wanted as the others leave it room. */
function spread(wanted: readonly number[]): number[] {
  const ys = [...wanted]
  for (let round = 0; round < 200; round++) {
    let worst = 0
    for (let n = 1; n < ys.length; n++) {
      const short = APART - ((ys[n] as number) - (ys[n - 1] as number))
      if (short <= 0.01) continue
      worst = Math.max(worst, short)
      ys[n - 1] = (ys[n - 1] as number) - short / 2
      ys[n] = (ys[n] as number) + short / 2
    }
    if (worst === 0) break
  }
  return ys
}
