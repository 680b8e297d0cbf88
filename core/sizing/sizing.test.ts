import { describe, expect, it } from 'vitest'
import { convertValue } from '../quantity'
import { decayLeak, gasFlow, reliefCapacity, seatAllowance, waterFlow } from '.'

const psig = (value: number) => convertValue('gaugePressure', value, 'psi', 'kPa')
const scfh = (sm3h: number) => convertValue('gasFlow', sm3h, 'sm³/h', 'scfh')
/** Natural gas at 60 °F: 520 °R to the usual rounding. */
const gas = { specificGravity: 0.6, gamma: 1.31, temperatureK: 520 / 1.8, z: 1 }
const cv10 = { cv: 10, xT: 0.7 }
const flow = (inletKpa: number, outletKpa: number, valve: object = cv10) =>
  gasFlow({ valve, gas, inletKpa, outletKpa })

describe('gas through a valve', () => {
  it('at choked flow is 1360·Cv·p1·(2/3)·√(Fγ·xT/(G·T)), IEC 60534-2-1 in US units', () => {
    const wanted = 1360 * 10 * 114.696 * (2 / 3) * Math.sqrt(((1.31 / 1.4) * 0.7) / (0.6 * 520))
    const found = flow(psig(100), 0)
    expect(found.choked).toBe(true)
    expect(scfh(found.sm3h) / wanted).toBeCloseTo(1, 2)
  })
  it('under choked flow takes the expansion factor in', () => {
    const x = 20 / 114.696
    const y = 1 - x / (3 * (1.31 / 1.4) * 0.7)
    const wanted = 1360 * 10 * 114.696 * y * Math.sqrt(x / (0.6 * 520))
    const found = flow(psig(100), psig(80))
    expect(found.choked).toBe(false)
    expect(scfh(found.sm3h) / wanted).toBeCloseTo(1, 2)
  })
  it('by Cg at choked flow is √(520/(G·T))·Cg·p1', () => {
    const found = flow(psig(100), 0, { cg: 332, c1: 33.3 })
    expect([found.by, found.choked]).toEqual(['Cg and C1', true])
    expect(scfh(found.sm3h) / (Math.sqrt(1 / 0.6) * 332 * 114.696)).toBeCloseTo(1, 3)
  })
  it('rises with the drop until it chokes, and not beyond', () => {
    const flows = [600, 500, 400, 300, 200, 100, 0].map((p2) => flow(700, p2).sm3h)
    expect(flows).toEqual([...flows].sort((a, b) => a - b))
    expect(flow(700, 0).sm3h).toBe(flow(700, 50).sm3h)
    expect(flow(700, 700).sm3h).toBe(0)
  })
  it('is twice as much through twice the Cv, and less of a heavier gas', () => {
    expect(flow(700, 300, { cv: 20, xT: 0.7 }).sm3h).toBeCloseTo(2 * flow(700, 300).sm3h, 6)
    const heavy = gasFlow({
      valve: cv10,
      gas: { ...gas, specificGravity: 1.5 },
      inletKpa: 700,
      outletKpa: 300,
    })
    expect(heavy.sm3h).toBeLessThan(flow(700, 300).sm3h)
  })
  it('is checked by the other pair of the sheet: C1 of a passage is 39.76·√xT', () => {
    const c1 = 39.76 * Math.sqrt(0.7)
    const fits = flow(700, 0, { ...cv10, cg: 10 * c1, c1 })
    // The two equations part by the ratio of specific heats, which the older one does not know.
    expect(Math.abs(fits.other?.differsPercent ?? 99)).toBeLessThan(4)
    expect(fits.questions).toEqual([])
    const slip = flow(700, 0, { ...cv10, cg: 20 * c1, c1 })
    expect(slip.questions[0]).toMatch(/more by 10\d %/)
  })
  it.each([
    ['an outlet above the inlet', { inletKpa: 100, outletKpa: 200 }, 'flows-backwards'],
    ['an absolute pressure given as gauge', { inletKpa: 100, outletKpa: -120 }, 'below-vacuum'],
    ['half a pair', { valve: { cv: 10, c1: 33 } }, 'coefficients-missing'],
  ])('refuses %s', (_, more, code) => {
    const asked = { valve: cv10, gas, inletKpa: 700, outletKpa: 0, ...more }
    expect(() => gasFlow(asked)).toThrow(expect.objectContaining({ code }))
  })
})

describe('a relief against its regulator', () => {
  const asked = {
    regulator: { cv: 1.2, xT: 0.7 },
    inletMaximumKpa: 700,
    relief: { cv: 12, xT: 0.7, startKpa: 45, fullKpa: 60 },
    limitKpa: 70,
    gas,
  }
  it('balances where as much goes out as comes in, and holds when that is under the limit', () => {
    const found = reliefCapacity(asked)
    const inflow = flow(700, found.balanceKpa, asked.regulator).sm3h
    expect(found.balanceSm3h).toBeCloseTo(inflow, 6)
    expect(found.balanceKpa).toBeGreaterThan(45)
    expect([found.holds, found.marginPercent > 0]).toEqual([true, true])
  })
  it('of too small an orifice does not hold, and says that the orifice limits it', () => {
    const small = reliefCapacity({ ...asked, relief: { ...asked.relief, cv: 3 } })
    expect([small.holds, small.limitedBy]).toEqual([false, 'orifice'])
    expect(small.marginPercent).toBeLessThan(0)
  })
  it('balances higher behind a wider regulator, a higher inlet and a stiffer spring', () => {
    const balance = (more: object) => reliefCapacity({ ...asked, ...more }).balanceKpa
    const usual = balance({})
    expect(balance({ regulator: { cv: 2, xT: 0.7 } })).toBeGreaterThan(usual)
    expect(balance({ inletMaximumKpa: 1000 })).toBeGreaterThan(usual)
    expect(balance({ relief: { ...asked.relief, fullKpa: 90 } })).toBeGreaterThan(usual)
  })
  it('has curves of which one never rises and the other never falls', () => {
    const { curve } = reliefCapacity(asked)
    const rising = (list: number[]) => list.every((v, n) => v >= (list[n - 1] ?? -1) - 1e-9)
    expect(rising(curve.map((p) => p.reliefSm3h))).toBe(true)
    expect(rising(curve.map((p) => p.inflowSm3h).reverse())).toBe(true)
  })
  it('takes a relief that pops: fully lifted where it starts, with its whole capacity at its set pressure', () => {
    const at = (fullKpa: number) =>
      reliefCapacity({ ...asked, limitKpa: 45, relief: { ...asked.relief, fullKpa } })
    const popped = at(45)
    expect(popped.capacitySm3h).toBeGreaterThan(0)
    expect(popped.marginPercent).toBeGreaterThan(-100)
    expect(at(45 * 1.000_01).capacitySm3h).toBeCloseTo(popped.capacitySm3h, 6)
    expect(popped.balanceKpa).toBeLessThanOrEqual(reliefCapacity(asked).balanceKpa)
  })
  it('refuses a relief that is lifted before it starts, and a limit above the inlet', () => {
    const lifted = { ...asked, relief: { ...asked.relief, fullKpa: 44 } }
    expect(() => reliefCapacity(lifted)).toThrow(expect.objectContaining({ code: 'relief-lift' }))
    expect(() => reliefCapacity({ ...asked, limitKpa: 800 })).toThrow(
      expect.objectContaining({ code: 'limit-outside' }),
    )
  })
})

describe('a pressure that falls in a shut-in space', () => {
  const hold = {
    volumeM3: 0.001,
    seconds: 60,
    first: { kpa: 200, kelvin: 288.15 },
    last: { kpa: 190, kelvin: 288.15 },
    pressureU: 0.01,
    temperatureU: 0.01,
    allowedMlMin: 100,
  }
  it('of one litre by 10 kPa in a minute leaks 98.7 mL/min', () => {
    expect(decayLeak(hold)).toMatchObject({ outcome: 'tight' })
    expect(decayLeak(hold).leakMlMin).toBeCloseTo(98.69, 2)
    expect(decayLeak({ ...hold, allowedMlMin: 90 }).outcome).toBe('leaks')
  })
  it('leaks too where it was only held up by warming', () => {
    const warmed = { ...hold, last: { kpa: 200, kelvin: 293.15 } }
    expect(decayLeak(warmed).leakMlMin).toBeGreaterThan(30)
    const cooled = { ...hold, last: { kpa: 200 * (283.15 / 288.15), kelvin: 283.15 } }
    expect(decayLeak(cooled).leakMlMin).toBeCloseTo(0, 9)
  })
  it('that rises instead is fed, and never tight', () => {
    const fed = decayLeak({ ...hold, last: { kpa: 201, kelvin: 288.15 } })
    expect([fed.outcome, fed.leakMlMin < 0]).toEqual(['fed', true])
  })
  it('tells nothing where the uncertainty exceeds the allowance, and more when held longer', () => {
    const short = { ...hold, pressureU: 1, allowedMlMin: 20, last: { kpa: 199.9, kelvin: 288.15 } }
    expect(decayLeak(short).outcome).toBe('too-short-to-tell')
    const long = decayLeak({ ...short, seconds: 3600 })
    expect(long.outcome).toBe('tight')
    expect(long.expandedMlMin).toBeCloseTo(decayLeak(short).expandedMlMin / 60, 6)
  })
  it.each([
    [{ seconds: 0 }, 'hold-without-time'],
    [{ last: { kpa: -5, kelvin: 288 } }, 'not-absolute'],
  ])('refuses %o', (more, code) => {
    expect(() => decayLeak({ ...hold, ...more })).toThrow(expect.objectContaining({ code }))
  })
})

describe('what a seat may leak, IEC 60534-4', () => {
  it('is a part of the rated flow in classes II to IV', () => {
    const of = (leakageClass: 'II' | 'III' | 'IV') =>
      seatAllowance({ leakageClass, ratedMlMin: 10_000 }).mlMin
    expect([of('II'), of('III'), of('IV')]).toEqual([50, 10, 1])
  })
  it('is 5·10⁻⁴ mL/min of water per inch and psi in class V', () => {
    const found = seatAllowance({ leakageClass: 'V', portIn: 2, dropPsi: 100 })
    expect(found).toEqual({ mlMin: 0.1, medium: 'water' })
  })
  it.each([
    [1, 0.15, 1],
    [1.75, 0.3, 2],
    [4, 1.7, 11],
    [8, 6.75, 45],
  ])('of a port of %s in is %s mL/min or %s bubbles in class VI', (portIn, mlMin, bubblesMin) => {
    expect(seatAllowance({ leakageClass: 'VI', portIn })).toEqual({
      mlMin,
      bubblesMin,
      medium: 'air',
    })
  })
  it('names what the class needs, and where its table ends', () => {
    expect(() => seatAllowance({ leakageClass: 'II' })).toThrow(/rated flow/)
    expect(() => seatAllowance({ leakageClass: 'V', portIn: 2 })).toThrow(/drop/)
    expect(() => seatAllowance({ leakageClass: 'VI', portIn: 12 })).toThrow(/1 to 8 in/)
  })
})

describe('water through a valve', () => {
  const asked = { cv: 10, inletKpa: psig(100), outletKpa: psig(75), temperatureK: 293.15 }
  it('of Cv 10 at 25 psi of drop is 50 gpm', () => {
    expect(waterFlow(asked).m3h).toBeCloseTo(convertValue('liquidFlow', 50, 'gpm', 'm³/h'), 9)
  })
  it('knows what boils: 2.34 kPa at 20 °C, 101.3 kPa at 100 °C', () => {
    expect(waterFlow(asked).vapourKpa).toBeCloseTo(2.34, 1)
    expect(waterFlow({ ...asked, temperatureK: 373.15 }).vapourKpa).toBeCloseTo(101.3, 0)
    const hot = { ...asked, inletKpa: 100, outletKpa: -60, temperatureK: 370 }
    expect([waterFlow(hot).flashes, waterFlow(asked).flashes]).toEqual([true, false])
  })
  it('comes nearer to cavitation with more drop and with warmer water', () => {
    const sigma = (more: object) => waterFlow({ ...asked, ...more }).sigma ?? Infinity
    expect(sigma({ outletKpa: 0 })).toBeLessThan(sigma({}))
    expect(sigma({ temperatureK: 353.15 })).toBeLessThan(sigma({}))
    expect(sigma({ outletKpa: 0 })).toBeCloseTo((psig(100) + 101.325 - 2.34) / psig(100), 2)
  })
  it('is held against the index of the sheet, and against none where there is none', () => {
    const of = (sigmaIncipient?: number) =>
      waterFlow({ ...asked, outletKpa: 0, ...(sigmaIncipient ? { sigmaIncipient } : {}) }).cavitates
    expect([of(2), of(1.05), of()]).toEqual([true, false, null])
    expect(waterFlow({ ...asked, outletKpa: psig(100) })).toMatchObject({ m3h: 0, sigma: null })
  })
  it('refuses what flows backwards and what is ice or steam', () => {
    const refused = (more: object) => () => waterFlow({ ...asked, ...more })
    expect(refused({ outletKpa: 800 })).toThrow(
      expect.objectContaining({ code: 'flows-backwards' }),
    )
    expect(refused({ temperatureK: 260 })).toThrow(expect.objectContaining({ code: 'not-liquid' }))
  })
})
