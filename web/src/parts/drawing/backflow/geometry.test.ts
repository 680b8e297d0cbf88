import { assemblyKinds, layoutOf } from '@uvanta/core/apparatus/backflow'
import { describe, expect, it } from 'vitest'
import { geometryOf } from './geometry'

describe.each(assemblyKinds)('the sheet of a %s', (kind) => {
  const sheet = geometryOf(kind, true)
  it('has a spot for every element, inside the sheet', () => {
    expect(sheet.elements.map((e) => e.id)).toEqual(layoutOf(kind).elements.map((e) => e.id))
    for (const e of sheet.elements) {
      expect(e.x).toBeGreaterThan(0)
      expect(e.x).toBeLessThan(sheet.width)
      expect(e.y).toBeGreaterThan(0)
      expect(e.y).toBeLessThan(sheet.height)
    }
  })
  it('runs in the direction of flow', () => {
    for (const line of ['main', 'bypass'] as const) {
      const xs = sheet.elements.filter((e) => e.line === line && e.to).map((e) => e.x)
      expect(xs).toEqual(xs.toSorted((a, b) => a - b))
    }
  })
  it('leaves room for a finger between what can be pressed on one line', () => {
    const pressed = sheet.elements.filter(
      (e) => e.line === 'main' && (e.role === 'shutoff' || e.role === 'cock'),
    )
    for (const a of pressed) {
      for (const b of pressed) {
        if (a.id !== b.id) expect(Math.abs(a.x - b.x)).toBeGreaterThanOrEqual(52)
      }
    }
    for (const a of sheet.kit) {
      for (const b of sheet.kit)
        if (a.id !== b.id) expect(Math.abs(a.x - b.x)).toBeGreaterThanOrEqual(52)
    }
  })
  it('fills every place with water of its own, and no two places share any', () => {
    const boxes = sheet.places.flatMap((p) => p.water.map((w) => ({ place: p.id, ...w })))
    for (const place of sheet.places) expect(place.water.length).toBeGreaterThan(0)
    for (const a of boxes) {
      expect(a.width).toBeGreaterThan(0)
      expect(a.height).toBeGreaterThan(0)
      for (const b of boxes) {
        if (a.place === b.place) continue
        const across = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x)
        const down = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y)
        expect(across > 0.01 && down > 0.01).toBe(false)
      }
    }
  })
  it('is lower without the test kit', () => {
    expect(geometryOf(kind, false).height).toBeLessThan(sheet.height)
  })
})
