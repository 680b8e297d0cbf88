import { describe, expect, it } from 'vitest'
import {
  boltPlan,
  compressionSet,
  identifyOring,
  type LubricantService,
  lubricantAdvice,
  oringSizes,
  throwSymmetry,
  torqueSetting,
} from '.'

/** Known answers for what people get wrong at the bench. */
const beside = (a: number, b: number, count: number) =>
  Math.abs(a - b) === 1 || Math.abs(a - b) === count - 1
const orderOf = (count: number, start = 1) =>
  boltPlan({ count, start, passes: [1] }).passes[0]!.order

describe('a bolt circle', () => {
  it.each(Array.from({ length: 92 }, (_, n) => n + 5))(
    'of %d never goes from a bolt to its neighbour',
    (count) => {
      for (const start of [1, Math.ceil(count / 2)]) {
        const order = orderOf(count, start)
        expect([...order].sort((a, b) => a - b)).toEqual(
          Array.from({ length: count }, (_, n) => n + 1),
        )
        expect(order[0]).toBe(start)
        expect(order.filter((b, n) => n > 0 && beside(b, order[n - 1] as number, count))).toEqual(
          [],
        )
      }
    },
  )
  it.each([6, 8, 12, 16, 20, 24])('of %d tightens opposites one after the other', (count) => {
    const order = orderOf(count)
    for (let n = 0; n < count; n += 2) {
      expect(Math.abs((order[n] as number) - (order[n + 1] as number))).toBe(count / 2)
    }
  })
  it('keeps to it behind a pair that comes first', () => {
    const { order } = boltPlan({ count: 8, first: [1, 2], passes: [1] }).passes[0]!
    expect(order.slice(0, 2)).toEqual([1, 2])
    expect(order[2]).not.toBe(3)
  })
  it('is tightened to the full torque in the last pass', () => {
    expect(() => boltPlan({ count: 8, passes: [0.3, 0.6] })).toThrow(/rise from above 0 to 1/)
    expect(() => boltPlan({ count: 8, passes: [] })).toThrow(/rise/)
    expect(boltPlan({ count: 8, passes: [0.5, 1] }).passes).toHaveLength(2)
  })
})

describe('a torque', () => {
  const asked = { value: 40, unit: 'lbf·in', statedFor: 'dry', surface: 'dry' } as const
  it('a twelfth of what it should be is questioned, with the unit that was meant', () => {
    const [question] = torqueSetting({ ...asked, thread: 'M12' }).questions
    expect(question).toMatch(/22\.\d MPa.*In N·m or lbf·ft it would be ordinary/)
    expect(torqueSetting({ ...asked, unit: 'lbf·ft', thread: 'M12' }).questions).toEqual([])
  })
  it('and twelve times it, likewise', () => {
    const [question] = torqueSetting({
      ...asked,
      value: 480,
      unit: 'lbf·ft',
      thread: 'M12',
    }).questions
    expect(question).toMatch(/In lbf·in it would be ordinary/)
  })
  it('of a fine thread is known: stress area of M12×1.25 is 92.1 mm², of 1/2-20 0.1599 in²', () => {
    const areaOf = (thread: string) => {
      const { preloadKn = 0, stressMpa = 1 } = torqueSetting({
        ...asked,
        value: 80,
        unit: 'N·m',
        thread,
      })
      return (preloadKn * 1000) / stressMpa
    }
    expect(areaOf('M12x1.25')).toBeCloseTo(92.1, 0)
    expect(areaOf('M10 × 1')).toBeCloseTo(64.5, 0)
    expect(areaOf('1/2-20') / 645.16).toBeCloseTo(0.1599, 3)
  })
  it('through an extension needs no thread; then nobody looks at its size', () => {
    const { setting, stressMpa, questions } = torqueSetting({
      ...asked,
      value: 100,
      unit: 'N·m',
      wrenchM: 0.4,
      extensionM: 0.1,
    })
    expect(setting).toBeCloseTo(80, 6)
    expect(stressMpa).toBeUndefined()
    expect(questions.join()).toMatch(/Without the thread/)
  })
})

describe('an O-ring', () => {
  it('of a boss seal is known by its own size', () => {
    const size = (dash: string) => oringSizes.find((s) => s.dash === dash)
    expect(size('908')?.insideMm).toBeCloseTo(16.36, 2)
    expect(size('908')?.sectionMm).toBeCloseTo(2.21, 2)
    expect(size('912')?.insideMm).toBeCloseTo(23.47, 2)
    const dashes = (insideMm: number, sectionMm: number) =>
      identifyOring({ insideMm, sectionMm }).matches.map((m) => m.dash)
    expect(dashes(0.239 * 25.4, 0.064 * 25.4)).toContain('902')
    expect(dashes(0.301 * 25.4, 0.064 * 25.4)).toContain('903')
  })
  it('that is the only one left says how sure that is', () => {
    const lone = identifyOring({ insideMm: 20, sectionMm: 2.5 })
    expect(lone.matches.filter((m) => m.fits)).toHaveLength(1)
    expect(lone.sure).toMatch(/metric ring 20 × 2\.5 mm measures the same.*number in the kit/)
    expect(identifyOring({ insideMm: 34.72, sectionMm: 3.53 }).sure ?? '').not.toMatch(
      /measures the same/,
    )
  })
  it('thicker than new has swollen, however little', () => {
    for (const recovered of [3.65, 3.88, 4.2]) {
      const set = compressionSet(3.53, 2.8, recovered)
      expect(set.keep).toBe(false)
      expect(set.says).toMatch(/thicker than new: it has swollen/)
    }
    expect(compressionSet(3.53, 2.8, 3.55).keep).toBe(true)
  })
  it('thinner than it was compressed to was not measured right', () => {
    expect(() => compressionSet(3.53, 2.8, 2.65)).toThrow(/Measure the three thicknesses again/)
  })
  it('is kept up to 40 % set and not beyond', () => {
    expect(compressionSet(3.53, 2.53, 3.13)).toMatchObject({ percent: 40, keep: true })
    expect(compressionSet(3.53, 2.53, 3.12)).toMatchObject({ percent: 41, keep: false })
  })
})

describe('throws', () => {
  it('that differ by exactly a tenth are equal still', () => {
    expect(throwSymmetry({ one: 31, other: 27.9 }).equal).toBe(true)
    expect(throwSymmetry({ one: 0.031, other: 0.0279 }).equal).toBe(true)
    expect(throwSymmetry({ one: 31, other: 27.8 }).equal).toBe(false)
  })
})

describe('a lubricant', () => {
  const verdict = (
    rubber: 'epdm' | 'nbr' | 'fkm',
    grease: 'silicone' | 'mineral' | 'petrolatum',
    service: LubricantService,
  ) => lubricantAdvice(rubber, grease, service)
  it('says of a rubber that has no business in the service', () => {
    const epdm = verdict('epdm', 'silicone', 'fuel')
    expect(epdm.verdict).toBe('clash')
    expect(epdm.reasons.join(' ')).toMatch(/EPDM swells in fuel, whatever the grease/)
    expect(epdm.instead).toEqual([])
    expect(verdict('epdm', 'silicone', 'gas').verdict).toBe('clash')
    expect(verdict('nbr', 'silicone', 'gas').verdict).toBe('fits')
  })
  it('washes out of fuel, gums in air, dries in gas', () => {
    expect(verdict('fkm', 'silicone', 'fuel').verdict).toBe('clash')
    expect(verdict('nbr', 'mineral', 'fuel').verdict).toBe('fits')
    expect(verdict('nbr', 'petrolatum', 'air').verdict).toBe('questionable')
    expect(verdict('nbr', 'mineral', 'gas').verdict).toBe('questionable')
  })
  it('is never offered instead where it would be questioned itself', () => {
    for (const service of ['gas', 'air', 'fuel', 'food'] as const) {
      for (const rubber of ['nbr', 'fkm'] as const) {
        for (const other of lubricantAdvice(rubber, 'silicone-potable', service).instead) {
          expect(lubricantAdvice(rubber, other, service).verdict).toBe('fits')
        }
      }
    }
  })
})
