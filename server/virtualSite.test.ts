import { assemblyKinds, layoutOf } from '@uvanta/core/apparatus/backflow'
import { siteModelOf } from '@uvanta/core/simulate'
import { describe, expect, it } from 'vitest'
import { Seeded } from './demo/random'
import { someFault, specOf, virtualSiteOf, type VirtualSite } from './demo/virtualSite'

const hidden = (kind: string, sizeIn: string, seed: number) =>
  virtualSiteOf(kind, sizeIn, new Seeded(seed)) as VirtualSite
const modelOf = (...about: Parameters<typeof specOf>) =>
  siteModelOf(specOf(...about)) as NonNullable<ReturnType<typeof siteModelOf>>

describe('the hidden condition of a piece of demo equipment', () => {
  it.each(assemblyKinds)('%s: is the same from the same seed, and can be computed', (kind) => {
    for (let seed = 1; seed <= 15; seed++) {
      const site = hidden(kind, '2', seed)
      expect(virtualSiteOf(kind, '2', new Seeded(seed))).toEqual(site)
      const model = modelOf(site, site.faults)
      model.advance(20)
      expect(Number.isFinite(model.pressure('body-2'))).toBe(true)
    }
  })
  it('has springs a few percent from the usual', () => {
    const { springs } = hidden('RP', '1', 3)
    expect(Object.keys(springs).sort()).toEqual(['check-1', 'check-2', 'relief'])
    for (const factor of Object.values(springs)) {
      expect(factor).toBeGreaterThan(0.92)
      expect(factor).toBeLessThan(1.09)
    }
  })
  it('wears by its years: a worn spring holds less', () => {
    const site = { ...hidden('RP', '2', 5), faults: [] }
    const held = (worn: number) => {
      const model = modelOf(site, [], worn)
      model.advance(30)
      return model.pressure('body-1') - model.pressure('zone')
    }
    expect(held(0.9) / held(1)).toBeCloseTo(0.9, 2)
  })
  it('hides faults of parts that are there, and leaves the shutoffs to the technician', () => {
    const random = new Seeded(9)
    for (const kind of assemblyKinds) {
      for (let n = 0; n < 40; n++) {
        const fault = someFault(kind, random)
        const element = layoutOf(kind).elements.find((e) => e.id === fault.element)
        expect(element).toBeDefined()
        expect(element?.role).not.toBe('shutoff')
        expect(fault.severity).toBeGreaterThanOrEqual(0.3)
        expect(fault.severity).toBeLessThanOrEqual(0.8)
      }
    }
  })
})
