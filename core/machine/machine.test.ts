import { describe, expect, it } from 'vitest'
import { shippedLibrary } from '../testing'
import {
  barsLeft,
  BALLOON,
  buildsOf,
  layOut,
  type Machine,
  machineFaults,
  machineSchema,
  numbersOf,
  partsOf,
  type Sheet,
  type View,
} from '.'

const views: readonly View[] = ['closed', 'apart']
const all = shippedLibrary.machines.flatMap((m) =>
  buildsOf(m).map((build) => [`${m.id} ${build.join('+')}`, m, build] as const),
)
const first = shippedLibrary.machines.find((m) => m.id === 'spool-valve')
if (!first) throw new Error('no machine is shipped')
const changed = (change: (parts: Machine['parts']) => Machine['parts']): Machine => ({
  ...first,
  parts: change(first.parts),
})
const messages = (m: Machine) => machineFaults(m).map((f) => f.message)

describe.each(all)('the machine %s', (_, machine, build) => {
  it('is one by its schema, and holds together', () => {
    machineSchema.validateSync(machine, { strict: true, abortEarly: false })
    expect(messages(machine)).toEqual([])
  })
  it('can be taken apart: something always comes off next', () => {
    const parts = partsOf(machine, build)
    const off = new Set<string>()
    for (let round = 0; round < parts.length; round++) {
      const next = parts.find((p) => !off.has(p.id) && barsLeft(parts, p.id, off).size === 0)
      if (next) off.add(next.id)
    }
    expect(parts.filter((p) => !off.has(p.id))).toEqual([])
  })
  it.each(views)('has every part on its sheet, %s, under a number that can be read', (view) => {
    const sheet = layOut(machine, build, view)
    expect(sheet.parts.map((p) => p.id).sort()).toEqual(
      partsOf(machine, build)
        .map((p) => p.id)
        .sort(),
    )
    for (const part of sheet.parts) {
      expect(part.shapes.length, part.id).toBeGreaterThan(0)
      expect(part.number).toBe(numbersOf(machine).get(part.id))
    }
    expect(closestBalloons(sheet)).toBeGreaterThanOrEqual(2 * BALLOON)
    expect(outside(sheet)).toEqual([])
  })
  it('is drawn at every stage of being taken apart: what is off beside it, what is laid down not at all', () => {
    const parts = partsOf(machine, build)
    const leaving = parts.filter((p) => p.kind !== 'body').map((p) => p.id)
    for (const done of [1, Math.floor(leaving.length / 2), leaving.length]) {
      const gone = leaving.slice(0, done)
      const [away, off] = [gone.slice(0, -4), gone.slice(-4)]
      const sheet = layOut(machine, build, 'closed', { off: new Set(off), away: new Set(away) })
      expect(sheet.parts.map((p) => p.id).sort()).toEqual(
        parts.flatMap((p) => (away.includes(p.id) ? [] : [p.id])).sort(),
      )
      expect(closestBalloons(sheet)).toBeGreaterThanOrEqual(2 * BALLOON)
      expect(outside(sheet)).toEqual([])
    }
  })
  it('lies in the same order apart as it comes off', () => {
    const { parts } = layOut(machine, build, 'apart')
    const topOf = (id: string) =>
      Math.min(
        ...(parts.find((p) => p.id === id)?.shapes ?? []).flatMap((s) =>
          s.form === 'dot' ? [s.at.y - s.radius] : s.points.map((p) => p.y),
        ),
      )
    const own = partsOf(machine, build).filter(
      (p) => (p.draw.leaves ?? (p.kind === 'body' ? 'stays' : 'up')) === 'up',
    )
    for (const axis of machine.axes.map((a) => a.id)) {
      const on = own.filter((p) => (p.draw.axis ?? machine.axes[0]?.id) === axis)
      const tops = on.map((p) => topOf(p.id))
      expect(tops).toEqual([...tops].sort((a, b) => a - b))
    }
  })
})

/** How near the two nearest numbers come to each other. */
function closestBalloons({ parts }: Sheet): number {
  const at = parts.map((p) => p.balloon.at)
  const gaps = at.flatMap((a, n) => at.slice(n + 1).map((b) => Math.hypot(a.x - b.x, a.y - b.y)))
  return Math.min(...gaps)
}

function outside({ parts, from, size }: Sheet): string[] {
  const points = parts.flatMap((p) => [
    { id: p.id, ...p.balloon.at },
    ...p.shapes
      .flatMap((s) => (s.form === 'dot' ? [s.at] : s.points))
      .map((q) => ({ id: p.id, ...q })),
  ])
  return points
    .filter(
      (p) =>
        p.x < from.x || p.y < from.y || p.x > from.x + size.width || p.y > from.y + size.height,
    )
    .map((p) => p.id)
}

it('stands behind every family of equipment', () => {
  const without = shippedLibrary.families.filter(
    (f) => !shippedLibrary.machines.some((m) => m.families.includes(f.id)),
  )
  expect(without.map((f) => f.id)).toEqual([])
})

describe('a part with two ways out', () => {
  const machine = shippedLibrary.machines.find((m) => m.id === 'sleeve-regulator')
  if (!machine) throw new Error('no sleeve regulator')
  const left = (options: readonly string[], part: string, ...off: string[]) =>
    [...barsLeft(partsOf(machine, options), part, new Set(off))].sort()
  const cap = ['cap', 'to-close']
  const throughCap = ['pilot-lines', 'indicator', 'cap-screws', 'cap', 'special-screws']
  it('comes off by the one that is open', () => {
    expect(left(cap, 'sleeve', ...throughCap)).toEqual(['spring-seat'])
    expect(left(cap, 'sleeve', ...throughCap, 'spring-seat')).toEqual([])
    // With the trim out on the bench its disc is reached, though both casings stand.
    expect(left(cap, 'disc-screws', ...throughCap, 'spring-seat', 'sleeve')).toEqual([])
  })
  it('does not come off by one that is shut again', () => {
    expect(left(cap, 'spring-seat', 'cap', 'special-screws', 'indicator')).toEqual([
      'cap-screws',
      'pilot-lines',
    ])
  })
  it('has no cap to come through where the casing has none', () => {
    expect(left(['plain', 'to-close'], 'sleeve')).toContain('lower-casing')
  })
})

describe('a machine that is none', () => {
  const [one, ...rest] = first.parts
  if (!one) throw new Error('no part')
  it.each<[string, Machine, RegExp]>([
    ['a part twice', changed((p) => [...p, one]), /is there twice/],
    [
      'a stranger before it',
      changed(() => [{ ...one, behind: ['moon'] }, ...rest]),
      /“moon” is no part/,
    ],
    [
      'an axis of another',
      changed(() => [{ ...one, draw: { ...one.draw, axis: 'moon' } }, ...rest]),
      /“moon” is no axis/,
    ],
    [
      'an option of another',
      changed(() => [{ ...one, only: ['moon'] }, ...rest]),
      /“moon” is no option/,
    ],
    ['no shape', changed(() => [{ ...one, draw: {} }, ...rest]), /has no shape/],
    [
      'a profile inside out',
      changed(() => [{ ...one, draw: { seg: [[5, 1, 0, 2]] } }, ...rest]),
      /from low to high/,
    ],
    [
      'soft without a way to fail',
      changed((p) => p.map((x) => (x.soft ? { ...x, defects: undefined } : x))),
      /say how it fails/,
    ],
    [
      'rubber that is torn, and cleaned',
      changed((p) =>
        p.map((x) => (x.soft ? { ...x, defects: [{ what: 'torn', remedy: 'clean' }] } : x)),
      ),
      /cleaning does not mend it/,
    ],
    [
      'rubber with damage that no list knows, and cleaned',
      changed((p) =>
        p.map((x) => (x.soft ? { ...x, defects: [{ what: 'gummy', remedy: 'clean' }] } : x)),
      ),
      /cleaning does not mend it/,
    ],
    [
      'rubber that is not soft',
      changed((p) => p.map((x) => (x.material === 'rubber' ? { ...x, soft: undefined } : x))),
      /is of rubber/,
    ],
    ['soft and in no kit', { ...first, kits: [] }, /is soft and in no kit/],
    [
      'two that bar each other',
      changed((p) => p.map((x, n) => (n < 2 ? { ...x, behind: [p[1 - n]?.id ?? ''] } : x))),
      /bar each other/,
    ],
    [
      'two in one place',
      changed((p) => [
        ...p,
        {
          id: 'lump',
          title: 'Lump',
          kind: 'plate',
          material: 'steel',
          draw: { axis: 'bore', seg: [[0, 9, 0, 9]] },
        },
      ]),
      /are drawn in one place/,
    ],
  ])('%s', (_, machine, words) => {
    expect(messages(machine).join('\n')).toMatch(words)
  })
  it('has the spring of one build in the other', () => {
    const cylinder = shippedLibrary.machines.find((m) =>
      m.parts.some((p) => p.kind === 'spring' && p.draw.coil && p.only),
    )
    if (!cylinder) throw new Error('no machine has a spring of one build')
    const springs = cylinder.parts.filter((p) => p.kind === 'spring' && p.draw.coil && p.only)
    const other = springs[0]?.only?.[0] ?? ''
    const moved = {
      ...cylinder,
      parts: cylinder.parts.map((p) => (springs.includes(p) ? { ...p, only: [other] } : p)),
    }
    expect(messages(moved).join('\n')).toMatch(/has no spring|drawn in one place/)
  })
})
