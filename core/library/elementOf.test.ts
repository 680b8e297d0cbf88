import { describe, expect, it } from 'vitest'
import { apparatusOf } from '../apparatus'
import { expandGuide } from '../guide'
import { shippedLibrary } from '../testing'
import { elementOf } from '.'

const { machines, families, guides } = shippedLibrary
const kindsOf = (ids: readonly string[]) =>
  families.filter((f) => ids.includes(f.id)).flatMap((f) => f.kinds)

describe('a part of a machine that is an element of the model', () => {
  it.each(machines.map((m) => [m.id, m] as const))('%s: is there in every kind of it', (_, m) => {
    const named = m.parts.flatMap((p) => p.element ?? [])
    expect(named.length).toBeGreaterThan(0)
    for (const kind of kindsOf(m.families)) {
      const known = apparatusOf(kind)?.elements.map((e) => e.id) ?? []
      // One machine has checks of two assemblies: what one of them lacks, it does not renew.
      const own = named.filter((e) => known.includes(e))
      expect(own.length, kind).toBeGreaterThan(0)
    }
    const anywhere = new Set(
      kindsOf(m.families).flatMap((k) => apparatusOf(k)?.elements.map((e) => e.id) ?? []),
    )
    expect(named.filter((e) => !anywhere.has(e))).toEqual([])
  })
  it.each(guides.filter((g) => g.steps.some((s) => s.renew)).map((g) => [g.id, g] as const))(
    '%s: something that it renews is renewed on the site too',
    (_, guide) => {
      const { steps } = expandGuide(guide, shippedLibrary.subGuides)
      const renewed = steps.flatMap((s) => elementOf(shippedLibrary, guide, s.renew) ?? [])
      expect(renewed.length).toBeGreaterThan(0)
    },
  )
  it('is what the guide says, where that says another', () => {
    const detector = guides.find((g) => g.id === 'double-check-detector')
    if (!detector) throw new Error('no detector')
    const bypass = detector.parts.filter((p) => p.element?.startsWith('bypass-check'))
    expect(bypass.map((p) => elementOf(shippedLibrary, detector, p.id))).toEqual([
      'bypass-check-1',
      'bypass-check-2',
    ])
    expect(elementOf(shippedLibrary, detector, 'nobody')).toBeUndefined()
  })
})
