import { partsOf } from '../build'
import type { Machine, MachinePart } from '../schema'
import { type Balloon, balloons } from './balloons'
import { extentOf, onSheet, type Placed, type Point, type Shape, shapesOf } from './shapes'

/** A part on the sheet, under the number that text, tray and kit list share. */
export interface DrawnPart {
  readonly id: string
  readonly title: string
  readonly number: number
  readonly shapes: readonly Shape[]
  readonly balloon: Balloon
  /** The way in which it leaves, one unit long; nothing for what stays. */
  readonly way: Point
}

export interface Sheet {
  readonly from: Point
  readonly size: { readonly width: number; readonly height: number }
  /** In the order in which they are drawn: what lies before the rest comes last. */
  readonly parts: readonly DrawnPart[]
  readonly axes: readonly (readonly [Point, Point])[]
}

export type View = 'closed' | 'apart'

/** Sheet units to one unit of a profile. */
const SCALE = 4
/** Between parts that are pulled apart, and past the ends of an axis. */
const GAP = 3
const BEYOND = 6
/** Between rings of one kind that are off. */
const CLOSE = 1.2
/** Between axes that stand side by side, and how wide a row of them becomes. */
const BESIDE = 14
const ROW = 120
const MARGIN = 8

/** Numbers of the parts of a machine: the same in every build and every view. */
export const numbersOf = ({ parts }: Machine): ReadonlyMap<string, number> =>
  new Map(parts.map((p, n) => [p.id, n + 1]))

/** What is off while the machine stands in the line. */
export interface TakenOff {
  /** Drawn apart, beside where they belong. */
  readonly off?: ReadonlySet<string>
  /** Laid down elsewhere, and not drawn. */
  readonly away?: ReadonlySet<string>
}

/**
 * A machine in section, closed as it stands in the line, or pulled apart: the parts in the order in
 * which they come off, each on its axis. Pulled apart every axis stands, so that it fits a phone.
 */
export function layOut(
  machine: Machine,
  options: readonly string[],
  view: View,
  { off, away }: TakenOff = {},
): Sheet {
  const isOff = (p: MachinePart) =>
    leavesOf(p) !== 'stays' && (view === 'apart' || (off?.has(p.id) ?? false))
  const parts = partsOf(machine, options)
    .filter((p) => !away?.has(p.id))
    .map((p) => (isOff(p) ? bunched(p) : p))
  const numbers = numbersOf(machine)
  const moved = apart(parts, machine, isOff)
  const placed = view === 'apart' ? sideBySide(parts, machine, moved) : asItStands(machine)
  const axisOf = (p: MachinePart) => axisName(p, machine)
  const drawn = parts.map((part) => {
    const axis = placed.get(axisOf(part)) ?? ORIGIN
    const shift = moved.get(part.id) ?? 0
    return {
      part,
      shapes: shapesOf(part, axis, shift).map(scaled),
      way: wayOf(part, axis),
      anchors: anchorsOf(part, axis, shift),
    }
  })
  const axes = machine.axes.flatMap(({ id }): (readonly [Point, Point])[] => {
    const own = parts.filter((p) => axisOf(p) === id)
    const axis = placed.get(id)
    if (own.length === 0 || !axis) return []
    const ends = own.flatMap((p) => {
      const { from, to } = extentOf(p)
      const shift = moved.get(p.id) ?? 0
      return [from + shift, to + shift]
    })
    const end = (z: number) => times(onSheet(axis, 0, z))
    return [[end(Math.min(...ends) - BEYOND), end(Math.max(...ends) + BEYOND)]]
  })
  const box = boundsOf([...drawn.flatMap((d) => d.shapes.flatMap(pointsOf)), ...axes.flat()])
  const { places, from, to } = balloons(
    drawn.map((d) => d.anchors),
    box,
  )
  return {
    from: { x: from.x - MARGIN, y: from.y - MARGIN },
    size: { width: to.x - from.x + 2 * MARGIN, height: to.y - from.y + 2 * MARGIN },
    axes,
    // The body first, then from the inside outwards: what is taken off first lies on top.
    parts: drawn
      .map(({ part, shapes, way }, n) => ({
        id: part.id,
        title: part.title,
        number: numbers.get(part.id) ?? 0,
        shapes,
        way,
        balloon: places[n] as Balloon,
      }))
      .sort(
        (a, b) => Number(stays(b.id, parts)) - Number(stays(a.id, parts)) || b.number - a.number,
      ),
  }
}

const ORIGIN: Placed = { at: { x: 0, y: 0 }, tilt: 0 }
const axisName = (part: MachinePart, machine: Machine) =>
  part.draw.axis ?? machine.axes[0]?.id ?? ''
const stays = (id: string, parts: readonly MachinePart[]) => {
  const part = parts.find((p) => p.id === id)
  return part ? leavesOf(part) === 'stays' : false
}
const leavesOf = (part: MachinePart) => part.draw.leaves ?? (part.kind === 'body' ? 'stays' : 'up')

const asItStands = ({ axes }: Machine): Map<string, Placed> =>
  new Map(
    axes.map(({ id, at, tilt }) => {
      const [x = 0, y = 0] = at
      return [id, { at: { x, y }, tilt }]
    }),
  )

/** Rings that are off lie close together, wherever their grooves were. */
function bunched(part: MachinePart): MachinePart {
  const { rings, seg } = part.draw
  if (rings && rings.length > 1) {
    const close = rings.map(([, r = 0, thick = 0], n) => [n * (thick + CLOSE), r, thick])
    return { ...part, draw: { ...part.draw, rings: close } }
  }
  if (part.kind !== 'ring' || !seg || seg.length < 2) return part
  const close = seg.map(([z0 = 0, z1 = 0, r0 = 0, r1 = 0], n) => {
    const from = n * (z1 - z0 + CLOSE)
    return [from, from + z1 - z0, r0, r1]
  })
  return { ...part, draw: { ...part.draw, seg: close } }
}

/** How far each part that is off is moved along its axis: the first that comes off lies farthest out. */
function apart(
  parts: readonly MachinePart[],
  machine: Machine,
  isOff: (part: MachinePart) => boolean,
): Map<string, number> {
  const moved = new Map<string, number>()
  for (const { id } of machine.axes) {
    const own = parts.filter((p) => axisName(p, machine) === id)
    const still = own.filter((p) => !isOff(p)).map(extentOf)
    let top = Math.max(0, ...still.map((e) => e.to))
    let bottom = Math.min(0, ...still.map((e) => e.from))
    // The last to come off lies next to the body.
    for (const part of own.filter(isOff).reverse()) {
      const { from, to } = extentOf(part)
      if (leavesOf(part) === 'up') {
        moved.set(part.id, top + GAP - from)
        top += GAP + to - from
      }
      if (leavesOf(part) === 'down') {
        moved.set(part.id, bottom - GAP - to)
        bottom -= GAP + to - from
      }
    }
  }
  return moved
}

function wayOf(part: MachinePart, axis: Placed): Point {
  const leaves = leavesOf(part)
  if (leaves === 'stays') return { x: 0, y: 0 }
  const { x, y } = onSheet({ at: { x: 0, y: 0 }, tilt: axis.tilt }, 0, leaves === 'up' ? 1 : -1)
  return { x, y }
}

/** Axes standing beside each other, in rows that a phone can show. */
function sideBySide(
  parts: readonly MachinePart[],
  machine: Machine,
  moved: ReadonlyMap<string, number>,
): Map<string, Placed> {
  const placed = new Map<string, Placed>()
  let [x, y, row] = [0, 0, 0]
  for (const { id } of machine.axes) {
    const own = parts.filter((p) => axisName(p, machine) === id)
    if (own.length === 0) continue
    const extents = own.map((p) => ({ ...extentOf(p), shift: moved.get(p.id) ?? 0 }))
    const wide = Math.max(...extents.map((e) => e.wide))
    const top = Math.max(...extents.map((e) => e.to + e.shift))
    const bottom = Math.min(...extents.map((e) => e.from + e.shift))
    if (x > 0 && x + 2 * wide > ROW) {
      x = 0
      y += row + BESIDE
      row = 0
    }
    placed.set(id, { at: { x: x + wide, y: y + top + BEYOND }, tilt: 0 })
    x += 2 * wide + BESIDE
    row = Math.max(row, top - bottom + 2 * BEYOND)
  }
  return placed
}

/** Where the line of a number may end: on the part, on either side of its axis. */
function anchorsOf(part: MachinePart, axis: Placed, shift: number): readonly [Point, Point] {
  const { r, z } = middleOf(part)
  const at = (side: number) => times(onSheet(axis, side, z + shift))
  // What is no solid of revolution stands on one side only.
  return part.draw.seg || part.draw.rings || part.draw.coil || part.draw.bolts
    ? [at(r), at(-r)]
    : [at(r), at(r)]
}

function middleOf({ draw }: MachinePart): { readonly r: number; readonly z: number } {
  const middle = <T>(list: readonly T[] | undefined) => list?.[Math.floor((list.length - 1) / 2)]
  const seg = middle(draw.seg)
  if (seg) {
    const [z0 = 0, z1 = 0, r0 = 0, r1 = 0] = seg
    return { r: r0 + (r1 - r0) * 0.75, z: (z0 + z1) / 2 }
  }
  const ring = middle(draw.rings)
  if (ring) return { r: ring[1] ?? 0, z: ring[0] ?? 0 }
  if (draw.coil) {
    const [from = 0, to = 0, radius = 0] = draw.coil
    return { r: radius, z: from + (to - from) * 0.6 }
  }
  if (draw.bolts) return { r: draw.bolts[0] ?? 0, z: draw.bolts[2] ?? 0 }
  const [outline = []] = draw.walls ?? []
  const mean = (k: number) =>
    outline.reduce((sum, p) => sum + (p[k] ?? 0), 0) / Math.max(1, outline.length)
  return { r: mean(0), z: mean(1) }
}

const times = ({ x, y }: Point): Point => ({ x: x * SCALE, y: y * SCALE })

function scaled(shape: Shape): Shape {
  if (shape.form === 'dot') return { ...shape, at: times(shape.at), radius: shape.radius * SCALE }
  return { ...shape, points: shape.points.map(times) }
}

const pointsOf = (shape: Shape): readonly Point[] =>
  shape.form === 'dot'
    ? [
        { x: shape.at.x - shape.radius, y: shape.at.y - shape.radius },
        { x: shape.at.x + shape.radius, y: shape.at.y + shape.radius },
      ]
    : shape.points

function boundsOf(points: readonly Point[]): readonly [Point, Point] {
  const xs = points.map((p) => p.x)
  const ys = points.map((p) => p.y)
  return [
    { x: Math.min(...xs), y: Math.min(...ys) },
    { x: Math.max(...xs), y: Math.max(...ys) },
  ]
}
