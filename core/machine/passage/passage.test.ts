import { describe, expect, it } from 'vitest'
import type { Machine, MachinePart } from '../schema'
import { carriedBy, placeOf, waysOut } from './passage'

/** A body with two axes that cross, and what lies on them. */
const machine = {
  axes: [
    { id: 'upright', at: [0, 0], tilt: 0 },
    { id: 'lying', at: [0, 0], tilt: 90 },
  ],
} as unknown as Machine
const part = (id: string, draw: object, more: object = {}) =>
  ({
    id,
    title: id,
    kind: 'piston',
    material: 'steel',
    ...more,
    draw: { axis: 'upright', ...draw },
  }) as unknown as MachinePart
const ways = (moving: MachinePart[], standing: MachinePart[]) => {
  const { up, down } = waysOut(machine, moving, standing)
  return { up: up.map((m) => m.part), down: down.map((m) => m.part) }
}

describe('where a part can move along its axis', () => {
  const piston = part('piston', { seg: [[0, 10, 0, 20]] })
  const narrow = part('narrow', { seg: [[15, 18, 17, 30]] })
  const wide = part('wide', { seg: [[-8, -5, 20.2, 30]] })
  it('is out of a bore that is as wide as itself, and not through one that is narrower', () => {
    expect(ways([piston], [narrow, wide])).toEqual({ up: ['narrow'], down: [] })
    expect(waysOut(machine, [piston], [narrow]).up).toEqual([{ part: 'narrow', by: 3 }])
  })
  it('is the same whichever way the axis points: mirrored, up is down', () => {
    const mirrored = [piston, narrow, wide].map((p) =>
      part(p.id, { seg: p.draw.seg?.map(([a = 0, b = 0, r = 0, s = 0]) => [-b, -a, r, s]) }),
    )
    const [moved, ...rest] = mirrored as [MachinePart, ...MachinePart[]]
    expect(ways([moved], rest)).toEqual({ up: [], down: ['narrow'] })
  })
  it('has nothing in its way that lies behind it, or that it only touches', () => {
    const behind = part('behind', { seg: [[-3, -1, 0, 20]] })
    expect(ways([piston], [behind])).toEqual({ up: [], down: ['behind'] })
    const fits = part('fits', { seg: [[15, 18, 19.6, 30]] })
    expect(ways([piston], [fits]).up).toEqual([])
  })
  it('takes along what it carries: the widest of both decides', () => {
    const bore = part('bore', { seg: [[15, 18, 22, 30]] })
    const flange = part('flange', { seg: [[-2, 0, 0, 25]] })
    expect(ways([piston], [bore]).up).toEqual([])
    expect(ways([piston, flange], [bore]).up).toEqual(['bore'])
  })
  it('stretches rubber over a shoulder, and bends what snaps; steel does neither', () => {
    const ring = (more: object) => part('ring', { rings: [[0, 10, 2]] }, more)
    const shoulder = part('shoulder', { seg: [[5, 8, 0, 11]] })
    expect(ways([ring({ kind: 'ring-of-steel' })], [shoulder]).up).toEqual(['shoulder'])
    expect(ways([ring({ kind: 'o-ring', material: 'rubber' })], [shoulder]).up).toEqual([])
    const seat = (snaps: boolean) => part('seat', { seg: [[0, 4, 15, 22]], snaps })
    const lip = part('lip', { seg: [[6, 8, 18, 30]] })
    expect(ways([seat(false)], [lip]).up).toEqual(['lip'])
    expect(ways([seat(true)], [lip]).up).toEqual([])
    // In its groove it holds: who comes past does not bend it.
    expect(ways([part('shuttle', { seg: [[-9, -5, 0, 19]] })], [seat(true)]).up).toEqual(['seat'])
  })
  it('sees what lies on another axis where it crosses', () => {
    const pin = part('pin', { axis: 'lying', seg: [[-40, 40, 0, 2]] })
    const below = part('below', { seg: [[-20, -10, 0, 6]] })
    const beside = part('beside', { seg: [[-20, -10, 3, 6]], axis: 'lying' })
    expect(ways([below], [pin])).toEqual({ up: ['pin'], down: [] })
    expect(ways([beside], [pin])).toEqual({ up: [], down: [] })
  })
  it('reads a slanted wall as wide as it is at each height', () => {
    // From 10 at the bottom to 30 at the top: a part of 15 passes at the top and not at the bottom.
    const cone = part('cone', {
      walls: [
        [
          [10, 20],
          [30, 24],
          [40, 24],
          [40, 20],
        ],
      ],
    })
    expect(ways([part('thin', { seg: [[0, 10, 0, 9]] })], [cone]).up).toEqual([])
    expect(ways([part('thick', { seg: [[0, 10, 0, 35]] })], [cone]).up).toEqual(['cone'])
  })
  it('says nothing of what leaves another way, and of fasteners, which are loosened first', () => {
    const aside = part('aside', { seg: [[0, 10, 0, 20]], aside: 'Through the cover.' })
    expect(ways([aside], [narrow])).toEqual({ up: [], down: [] })
    const nut = part('nut', { seg: [[15, 18, 0, 6]] }, { kind: 'fastener' })
    expect(ways([piston], [nut]).up).toEqual([])
  })
})

describe('what moves with a part, and where it lies then', () => {
  const stem = part('stem', {}, { sits: 'in', of: 'body' })
  const disc = part('disc', {}, { sits: 'on', of: 'stem' })
  const ring = part('ring', {}, { sits: 'around', of: 'disc' })
  const gasket = part('gasket', {}, { sits: 'under', of: 'stem' })
  const parts = [stem, disc, ring, gasket]
  const ids = (list: readonly MachinePart[]) => list.map((p) => p.id)
  it('is what sits in, on and around it and is there, however deep; not what lies under it', () => {
    expect(ids(carriedBy(parts, ['stem'], new Set()))).toEqual(['stem', 'disc', 'ring'])
    expect(ids(carriedBy(parts, ['stem'], new Set(['disc'])))).toEqual(['stem'])
  })
  it('is with the nearest that is off; what is off itself is its own place', () => {
    expect(placeOf(parts, 'ring', new Set())).toBeUndefined()
    expect(placeOf(parts, 'ring', new Set(['stem']))).toBe('stem')
    expect(placeOf(parts, 'ring', new Set(['stem', 'disc']))).toBe('disc')
    expect(placeOf(parts, 'gasket', new Set(['stem']))).toBeUndefined()
  })
})
