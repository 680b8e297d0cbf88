import { describe, expect, it } from 'vitest'
import { boltSpots } from './boltSpots'

describe.each(['circle', 'rectangle', 'oblong'] as const)('bolts of a %s', (layout) => {
  it.each([4, 6, 8, 10, 12])('stand opposite each other, %i of them, none on another', (count) => {
    const spots = boltSpots(count, layout)
    const half = count / 2
    for (const [n, s] of spots.slice(0, half).entries()) {
      const across = spots[n + half]
      expect(s.x + (across?.x ?? 0)).toBeCloseTo(240, 6)
      expect(s.y + (across?.y ?? 0)).toBeCloseTo(240, 6)
    }
    const gaps = spots.flatMap((a, n) =>
      spots.slice(n + 1).map((b) => Math.hypot(a.x - b.x, a.y - b.y)),
    )
    expect(Math.min(...gaps)).toBeGreaterThan(30)
  })
})

it('the pair of an oblong that comes first stands in the middle of its long sides', () => {
  const spots = boltSpots(10, 'oblong')
  expect(spots[0]).toMatchObject({ x: 120, y: 72 })
  expect(spots[5]).toMatchObject({ x: 120, y: 168 })
})
