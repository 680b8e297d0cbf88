import type { MachinePart } from '../schema'

/** Profiles may touch; this much is drawing, not iron. */
const TOUCH = 0.35

type Solid = readonly [zFrom: number, zTo: number, rFrom: number, rTo: number]

const solidsOf = (part: MachinePart): Solid[] => (part.draw.seg ?? []) as unknown as Solid[]

/** Pairs of parts on one axis whose solids of revolution are in one place. */
export function overlaps(parts: readonly MachinePart[]): [string, string][] {
  return parts.flatMap((a, n) =>
    parts
      .slice(n + 1)
      .filter((b) => a.draw.axis === b.draw.axis)
      .filter((b) => solidsOf(a).some((s) => solidsOf(b).some((t) => inOnePlace(s, t))))
      .map((b): [string, string] => [a.id, b.id]),
  )
}

function inOnePlace(a: Solid, b: Solid): boolean {
  const z = Math.min(a[1], b[1]) - Math.max(a[0], b[0])
  const r = Math.min(a[3], b[3]) - Math.max(a[2], b[2])
  return z > TOUCH && r > TOUCH
}
