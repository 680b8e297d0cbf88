import { CannotCompute } from '../errors'
import { describe, expect, it } from 'vitest'
import {
  boltPlan,
  compressionSet,
  elastomers,
  type Elastomer,
  glandFit,
  identifyOring,
  type Lubricant,
  lubricantAdvice,
  lubricants,
  type LubricantService,
  lubricantServices,
  oringSizes,
  threadNamed,
  torqueSetting,
} from '.'

const orderOf = (ring: Parameters<typeof boltPlan>[0]) => boltPlan(ring).passes[0]?.order ?? []

describe('a bolt circle', () => {
  it('of four is tightened crosswise', () => {
    expect(orderOf({ count: 4 })).toEqual([1, 3, 2, 4])
  })
  it('of eight halves the circle again and again', () => {
    expect(orderOf({ count: 8 })).toEqual([1, 5, 3, 7, 2, 6, 4, 8])
  })
  it.each(Array.from({ length: 30 }, (_, n) => n + 2))(
    'of %i: every bolt once, from any start',
    (count) => {
      for (const start of [1, Math.ceil(count / 2), count]) {
        const order = orderOf({ count, start })
        expect(order[0]).toBe(start)
        expect(order.toSorted((a, b) => a - b)).toEqual(
          Array.from({ length: count }, (_, n) => n + 1),
        )
      }
    },
  )
  it.each([4, 6, 8, 10, 12, 16, 20, 24])(
    'of %i: after each bolt comes the one opposite',
    (count) => {
      const order = orderOf({ count })
      for (let n = 0; n < count; n += 2) {
        const apart = Math.abs((order[n] as number) - (order[n + 1] as number))
        expect(apart).toBe(count / 2)
      }
    },
  )
  it.each([8, 12, 16, 24, 32])(
    'of %i: the clamped side never leads by more than a bolt or two',
    (count) => {
      let x = 0
      let y = 0
      for (const bolt of orderOf({ count })) {
        x += Math.cos((2 * Math.PI * bolt) / count)
        y += Math.sin((2 * Math.PI * bolt) / count)
        expect(Math.hypot(x, y)).toBeLessThan(1.01)
      }
    },
  )
  it('keeps pairs first, long bolts last, and held-back bolts out', () => {
    const order = orderOf({ count: 8, first: [2, 3], last: [5, 1], holdBack: [7] })
    expect(order.slice(0, 2)).toEqual([2, 3])
    expect(order.slice(-2)).toEqual([5, 1])
    expect(order).not.toContain(7)
    expect(order).toHaveLength(7)
  })
  it('rises in passes to the full torque and then goes round', () => {
    const plan = boltPlan({ count: 6, start: 3 })
    expect(plan.passes.map((p) => p.part)).toEqual([0.3, 0.6, 1])
    expect(plan.untilNoneMoves).toEqual([3, 4, 5, 6, 1, 2])
  })
  it.each([
    [{ count: 1 }, /2 to 96/],
    [{ count: 6, start: 9 }, /no bolt 9/],
    [{ count: 6, first: [2], last: [2] }, /named twice/],
    [{ count: 6, passes: [0.6, 0.3, 1] }, /Passes rise/],
    [{ count: 2, holdBack: [1, 2] }, /none is left/],
  ])('%o is refused', (ring, words) => {
    expect(() => boltPlan(ring)).toThrow(words)
  })
})

describe('a torque', () => {
  const plain = { value: 80, unit: 'N·m', thread: 'M12', statedFor: 'dry', surface: 'dry' } as const
  it('gives the preload F = T/(K·d)', () => {
    expect(torqueSetting(plain).preloadKn).toBeCloseTo(80 / (0.2 * 0.012) / 1000, 6)
  })
  it('stated dry is less on a lubricated thread, at the same preload', () => {
    const lubricated = torqueSetting({ ...plain, surface: 'lubricated' })
    expect(lubricated.settingNm).toBeCloseTo(60, 6)
    expect(lubricated.preloadKn).toBeCloseTo(torqueSetting(plain).preloadKn ?? 0, 6)
  })
  it('through an extension is set lower: T·L/(L+E)', () => {
    const straight = torqueSetting({ ...plain, wrenchM: 0.4, extensionM: 0.1 })
    expect(straight.settingNm).toBeCloseTo(64, 6)
    expect(
      torqueSetting({ ...plain, wrenchM: 0.4, extensionM: 0.1, angleDeg: 90 }).settingNm,
    ).toBeCloseTo(80, 6)
  })
  it.each(['psi', 'lb/in', 'kPa', 'lb/in²'])('asked in %s is refused and explained', (unit) => {
    expect(() => torqueSetting({ ...plain, unit })).toThrow(/not a torque.*is probably meant/)
  })
  it('out of reason for its thread is questioned', () => {
    expect(
      torqueSetting({ ...plain, value: 80, unit: 'lbf·ft', thread: 'M6' }).questions[0],
    ).toMatch(/is the unit right/)
    expect(
      torqueSetting({ ...plain, value: 2, unit: 'lbf·in', thread: 'M16' }).questions[0],
    ).toMatch(/hardly loads/)
    expect(torqueSetting(plain).questions).toEqual([])
  })
  it('knows the stress areas of the standards', () => {
    expect(threadNamed('M10').areaM2 * 1e6).toBeCloseTo(58, 0)
    expect(threadNamed('1/2-13').areaM2 / 0.0254 ** 2).toBeCloseTo(0.1419, 3)
  })
})

describe('the O-ring table', () => {
  const size = (dash: string) => oringSizes.find((s) => s.dash === dash)
  /** Points of the published table, so that a slip in one of its runs is seen. */
  it.each([
    ['006', 0.114, 0.07],
    ['012', 0.364, 0.07],
    ['028', 1.364, 0.07],
    ['050', 5.239, 0.07],
    ['110', 0.362, 0.103],
    ['151', 2.987, 0.103],
    ['178', 9.737, 0.103],
    ['210', 0.734, 0.139],
    ['222', 1.484, 0.139],
    ['258', 5.984, 0.139],
    ['274', 9.984, 0.139],
    ['284', 17.955, 0.139],
    ['325', 1.475, 0.21],
    ['349', 4.475, 0.21],
    ['361', 5.975, 0.21],
    ['377', 9.975, 0.21],
    ['395', 25.94, 0.21],
    ['425', 4.475, 0.275],
    ['437', 5.975, 0.275],
    ['445', 7.975, 0.275],
    ['460', 15.475, 0.275],
    ['475', 25.94, 0.275],
  ])('has -%s with %d in inside and %d in section', (dash, inside, section) => {
    expect((size(dash)?.insideMm ?? 0) / 25.4).toBeCloseTo(inside, 6)
    expect((size(dash)?.sectionMm ?? 0) / 25.4).toBeCloseTo(section, 6)
  })
  it('is complete: every dash number once, growing within its section', () => {
    expect(new Set(oringSizes.map((s) => s.dash)).size).toBe(oringSizes.length)
    expect(oringSizes.length).toBe(50 + 77 + 84 + 87 + 51 + 20)
    for (let n = 1; n < oringSizes.length; n++) {
      const [a, b] = [oringSizes[n - 1], oringSizes[n]]
      if (a?.sectionMm === b?.sectionMm) expect(b?.insideMm).toBeGreaterThan(a?.insideMm ?? 0)
    }
  })
})

describe('identifying a ring', () => {
  it('finds every size from its own measures', () => {
    for (const s of oringSizes) {
      const { matches } = identifyOring({ insideMm: s.insideMm, sectionMm: s.sectionMm })
      expect(matches[0]?.dash).toBe(s.dash)
    }
  })
  it('asks for the section when the inside alone does not tell', () => {
    const { matches, measureNext } = identifyOring({ insideMm: 9.2 })
    expect(new Set(matches.map((m) => m.sectionMm)).size).toBeGreaterThan(1)
    expect(measureNext).toMatch(/Measure the section/)
  })
  it('shows the nearest when nothing fits, and says so', () => {
    const { matches, measureNext } = identifyOring({ insideMm: 40, sectionMm: 9 })
    expect(matches.every((m) => !m.fits)).toBe(true)
    expect(measureNext).toMatch(/No standard size/)
  })
  it('needs a measure', () => {
    expect(() => identifyOring({})).toThrow(/Measure/)
  })
})

describe('a ring in its gland', () => {
  const gland = {
    ring: { insideMm: 34.52, sectionMm: 3.53 },
    depthMm: 2.8,
    widthMm: 4.8,
    floorMm: 35,
    use: 'static',
  } as const
  it('of ordinary design has nothing to say', () => {
    const fit = glandFit(gland)
    expect(fit.squeezePercent).toBeGreaterThan(15)
    expect(fit.squeezePercent).toBeLessThan(25)
    expect(fit.says).toEqual([])
  })
  it('keeps its volume when it is stretched: the section thins', () => {
    const loose = glandFit(gland).squeezePercent
    expect(glandFit({ ...gland, floorMm: 38 }).squeezePercent).toBeLessThan(loose)
    expect(glandFit({ ...gland, floorMm: 38 }).says.join()).toMatch(/Stretch .* over 5 %/)
  })
  it.each([
    [{ depthMm: 3.4 }, /may leak/],
    [{ depthMm: 2 }, /hard to assemble/],
    [{ widthMm: 3.6 }, /no room to swell/],
  ])('%o: is said', (change, words) => {
    expect(glandFit({ ...gland, ...change }).says.join()).toMatch(words)
  })
  it('that has gone flat is renewed, one that has not may stay', () => {
    expect(compressionSet(3.53, 2.8, 3.4)).toMatchObject({ percent: 17.8, keep: true })
    expect(compressionSet(3.53, 2.8, 2.9)).toMatchObject({ keep: false })
    expect(() => compressionSet(3.53, 3.6, 3.5)).toThrow(CannotCompute)
    expect(compressionSet(3.53, 2.8, 4)).toMatchObject({
      keep: false,
      says: expect.stringMatching(/swollen/),
    })
  })
})

describe('a lubricant', () => {
  const advice = (e: Elastomer, l: Lubricant, s: LubricantService) => lubricantAdvice(e, l, s)
  it('of petroleum clashes with EPDM and natural rubber, not with nitrile', () => {
    expect(advice('epdm', 'petrolatum', 'air').verdict).toBe('clash')
    expect(advice('natural', 'mineral', 'air').verdict).toBe('clash')
    expect(advice('nbr', 'mineral', 'air').verdict).toBe('fits')
  })
  it('of silicone clashes with silicone rubber', () => {
    expect(advice('silicone', 'silicone', 'air')).toMatchObject({ verdict: 'clash' })
  })
  it('for drinking water must be listed, for oxygen its own', () => {
    expect(advice('epdm', 'silicone', 'drinking-water').verdict).toBe('clash')
    expect(advice('epdm', 'silicone', 'drinking-water').instead).toContain('silicone-potable')
    expect(advice('fkm', 'silicone', 'oxygen').instead).toEqual(['pfpe'])
  })
  it('never proposes what clashes itself, and always gives a reason', () => {
    for (const e of Object.keys(elastomers) as Elastomer[]) {
      for (const s of Object.keys(lubricantServices) as LubricantService[]) {
        for (const l of Object.keys(lubricants) as Lubricant[]) {
          const given = advice(e, l, s)
          expect(given.reasons.length).toBeGreaterThan(0)
          for (const other of given.instead) expect(advice(e, other, s).verdict).toBe('fits')
        }
      }
    }
  })
})
