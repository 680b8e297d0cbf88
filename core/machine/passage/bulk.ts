import { HEAD, HEAD_TALL, onSheet, type Placed, SHANK, WIRE } from '../layout/shapes'
import type { Machine, MachinePart } from '../schema'

/**
 * A piece of a part as far as it can be in somebody’s way: where it is along an axis, and how near and far from it.
 * In relative units, as profiles are.
 */
export interface Bulk {
  readonly zFrom: number
  readonly zTo: number
  readonly rFrom: number
  readonly rTo: number
}

/** A box in the plane of the section: along an axis, and across it with a sign for the side. */
interface Box {
  readonly z: readonly [from: number, to: number]
  readonly x: readonly [from: number, to: number]
}

/** The pieces of a part on its own axis, on both sides of it. */
function boxesOf({ draw }: MachinePart): Box[] {
  const { seg = [], rings = [], coil, bolts, walls = [] } = draw
  const around = (z0: number, z1: number, r0: number, r1: number): Box[] =>
    r0 <= 0
      ? [{ z: [z0, z1], x: [-r1, r1] }]
      : [
          { z: [z0, z1], x: [r0, r1] },
          { z: [z0, z1], x: [-r1, -r0] },
        ]
  const boxes = [
    ...seg.flatMap(([z0 = 0, z1 = 0, r0 = 0, r1 = 0]) => around(z0, z1, r0, r1)),
    ...rings.flatMap(([z = 0, r = 0, thick = 0]) =>
      around(z - thick / 2, z + thick / 2, r - thick / 2, r + thick / 2),
    ),
    ...walls.flatMap(slabsOf),
  ]
  if (coil) {
    const [from = 0, to = 0, radius = 0] = coil
    boxes.push(...around(from, to, radius - WIRE, radius + WIRE))
  }
  if (bolts) {
    const [radius = 0, point = 0, head = 0] = bolts
    const tall = head > point ? HEAD_TALL : -HEAD_TALL
    boxes.push(
      ...around(Math.min(point, head), Math.max(point, head), radius - SHANK, radius + SHANK),
    )
    boxes.push(
      ...around(
        Math.min(head, head + tall),
        Math.max(head, head + tall),
        radius - HEAD,
        radius + HEAD,
      ),
    )
  }
  return boxes
}

/** A wall cut across into slabs, each as wide as the wall is in its middle. */
function slabsOf(outline: readonly (readonly number[])[]): Box[] {
  const corners = outline.map(([x = 0, z = 0]) => ({ x, z }))
  const zs = [...new Set(corners.map((c) => c.z))].toSorted((a, b) => a - b)
  return zs.slice(1).flatMap((zTo, n) => {
    const zFrom = zs[n] ?? zTo
    const middle = (zFrom + zTo) / 2
    const crossings = corners
      .flatMap((from, k) => {
        const to = corners[(k + 1) % corners.length] ?? from
        if (from.z < middle === to.z < middle) return []
        return [from.x + ((to.x - from.x) * (middle - from.z)) / (to.z - from.z)]
      })
      .toSorted((a, b) => a - b)
    return crossings.flatMap((left, k): Box[] =>
      k % 2 === 0 ? [{ z: [zFrom, zTo], x: [left, crossings[k + 1] ?? left] }] : [],
    )
  })
}

function axisOf(machine: Machine, id: string | undefined): Placed {
  const axis = machine.axes.find((a) => a.id === id) ?? machine.axes[0]
  const [x = 0, y = 0] = axis?.at ?? []
  return { at: { x, y }, tilt: axis?.tilt ?? 0 }
}

const known = new WeakMap<Machine['axes'], WeakMap<MachinePart['draw'], Map<string, Bulk[]>>>()

/**
 * The pieces of a part as they are seen from an axis of the machine; of another axis, the box round each. Worked out
 * once: a prover asks for every part again at every step.
 */
export function bulksOf(machine: Machine, part: MachinePart, axis: string | undefined): Bulk[] {
  const ofMachine =
    known.get(machine.axes) ?? new WeakMap<MachinePart['draw'], Map<string, Bulk[]>>()
  known.set(machine.axes, ofMachine)
  const ofPart = ofMachine.get(part.draw) ?? new Map<string, Bulk[]>()
  ofMachine.set(part.draw, ofPart)
  const bulks = ofPart.get(axis ?? '') ?? seenFrom(machine, part, axis)
  ofPart.set(axis ?? '', bulks)
  return bulks
}

function seenFrom(machine: Machine, part: MachinePart, axis: string | undefined): Bulk[] {
  const from = axisOf(machine, part.draw.axis)
  const seen = axisOf(machine, axis)
  return boxesOf(part).map((box) => {
    const ends = box.z.flatMap((z) => box.x.map((x) => moved(from, seen, z, x)))
    const zs = ends.map((e) => e.z)
    const xs = ends.map((e) => e.x)
    const [left, right] = [Math.min(...xs), Math.max(...xs)]
    return {
      zFrom: Math.min(...zs),
      zTo: Math.max(...zs),
      rFrom: left < 0 && right > 0 ? 0 : Math.min(Math.abs(left), Math.abs(right)),
      rTo: Math.max(Math.abs(left), Math.abs(right)),
    }
  })
}

/** A place of one axis as it is seen from another. */
function moved(from: Placed, to: Placed, z: number, x: number): { z: number; x: number } {
  const place = onSheet(from, x, z)
  const [dx, dy] = [place.x - to.at.x, place.y - to.at.y]
  const a = (to.tilt * Math.PI) / 180
  return {
    z: dx * Math.sin(a) - dy * Math.cos(a),
    x: dx * Math.cos(a) + dy * Math.sin(a),
  }
}
