import type { Material, MachinePart } from '../schema'

export interface Point {
  readonly x: number
  readonly y: number
}

/** One piece of line-work on the sheet. */
export type Shape =
  | { readonly form: 'solid'; readonly points: readonly Point[]; readonly material: Material }
  | {
      readonly form: 'dot'
      readonly at: Point
      readonly radius: number
      readonly material: Material
    }
  | { readonly form: 'wire'; readonly points: readonly Point[] }

/** An axis as it lies on a sheet: where z is nothing, and how it leans. */
export interface Placed {
  readonly at: Point
  readonly tilt: number
}

/** Width of a shank and of a head against each other, and how tall a head is. */
export const SHANK = 1.2
export const HEAD = 2.6
export const HEAD_TALL = 2.4
export const WIRE = 1.2

/** From the axis: r to its side, z along it. */
export function onSheet({ at, tilt }: Placed, r: number, z: number): Point {
  const a = (tilt * Math.PI) / 180
  return {
    x: at.x + r * Math.cos(a) + z * Math.sin(a),
    y: at.y + r * Math.sin(a) - z * Math.cos(a),
  }
}

/** A part in section: its profile on both sides of its axis, moved along it. */
export function shapesOf({ draw, material }: MachinePart, axis: Placed, moved: number): Shape[] {
  const p = (r: number, z: number) => onSheet(axis, r, z + moved)
  const box = (r0: number, r1: number, z0: number, z1: number, of: Material = material): Shape => ({
    form: 'solid',
    points: [p(r0, z0), p(r1, z0), p(r1, z1), p(r0, z1)],
    material: of,
  })
  const solids = (draw.seg ?? []).flatMap(([z0 = 0, z1 = 0, r0 = 0, r1 = 0]) =>
    r0 === 0 ? [box(-r1, r1, z0, z1)] : [box(r0, r1, z0, z1), box(-r1, -r0, z0, z1)],
  )
  const walls = (draw.walls ?? []).map((outline): Shape => ({
    form: 'solid',
    points: outline.map(([x = 0, z = 0]) => p(x, z)),
    material,
  }))
  const rings = (draw.rings ?? []).flatMap(([z = 0, r = 0, thick = 1]) =>
    [r, -r].map((at): Shape => ({ form: 'dot', at: p(at, z), radius: thick / 2, material })),
  )
  return [...walls, ...solids, ...rings, ...coil(draw.coil, p), ...bolts(draw.bolts, box)]
}

function coil(spring: readonly number[] | undefined, p: (r: number, z: number) => Point): Shape[] {
  if (!spring) return []
  const [from = 0, to = 0, radius = 0, turns = 1] = spring
  const pitch = (to - from) / turns
  const left = Array.from({ length: turns + 1 }, (_, n) => p(-radius, from + pitch * n))
  const right = Array.from({ length: turns }, (_, n) => p(radius, from + pitch * (n + 0.5)))
  const wires = right.map((point, n): Shape => ({
    form: 'wire',
    points: [left[n] as Point, point],
  }))
  const dots = [...left, ...right].map((at): Shape => ({
    form: 'dot',
    at,
    radius: WIRE,
    material: 'steel',
  }))
  return [...wires, ...dots]
}

function bolts(
  set: readonly number[] | undefined,
  box: (r0: number, r1: number, z0: number, z1: number) => Shape,
): Shape[] {
  if (!set) return []
  const [radius = 0, point = 0, head = 0] = set
  const tall = head > point ? HEAD_TALL : -HEAD_TALL
  return [radius, -radius].flatMap((r) => [
    box(r - SHANK, r + SHANK, Math.min(point, head), Math.max(point, head)),
    box(r - HEAD, r + HEAD, Math.min(head, head + tall), Math.max(head, head + tall)),
  ])
}

/** How far a part reaches along its axis and from it. */
export function extentOf({ draw }: MachinePart): {
  readonly from: number
  readonly to: number
  readonly wide: number
} {
  const zs: number[] = []
  const rs: number[] = []
  for (const [z0 = 0, z1 = 0, , r1 = 0] of draw.seg ?? []) {
    zs.push(z0, z1)
    rs.push(r1)
  }
  for (const [z = 0, r = 0, thick = 0] of draw.rings ?? []) {
    zs.push(z - thick / 2, z + thick / 2)
    rs.push(r + thick / 2)
  }
  for (const outline of draw.walls ?? []) {
    for (const [x = 0, z = 0] of outline) {
      zs.push(z)
      rs.push(Math.abs(x))
    }
  }
  if (draw.coil) {
    const [from = 0, to = 0, radius = 0] = draw.coil
    zs.push(from - WIRE, to + WIRE)
    rs.push(radius + WIRE)
  }
  if (draw.bolts) {
    const [radius = 0, point = 0, head = 0] = draw.bolts
    const end = head + (head > point ? HEAD_TALL : -HEAD_TALL)
    zs.push(point, head, end)
    rs.push(radius + HEAD)
  }
  return { from: Math.min(...zs), to: Math.max(...zs), wide: Math.max(...rs) }
}
