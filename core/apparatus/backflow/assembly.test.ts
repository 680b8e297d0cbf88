import { describe, expect, it } from 'vitest'
import { randomNumbers } from '../../testing/random'
import { type AssemblyKind, assemblyKinds, layoutOf, SiteModel } from '.'
import { type Condition, faultsAfter, possibleFaults } from '../condition'
import type { Fault } from '../faults'
import { fineGauge, GaugeResponse } from '../../instrument'

const PSI = 6.894757293168
const site = (
  kind: AssemblyKind,
  faults: Fault[] = [],
  more: Partial<Condition> = {},
  sizeIn = 2,
) => new SiteModel({ kind, sizeIn, condition: { faults, supplyKpa: 450, ...more } })

/** Both hoses on and bled, so that the gauge reads across check 1. */
function acrossCheck1(s: SiteModel): SiteModel {
  s.connect('high', 'cock-2')
  s.connect('low', 'cock-3')
  s.move('low-bleed', 'open')
  s.move('cock-3', 'open')
  s.advance(3)
  s.move('cock-2', 'open')
  s.move('high-bleed', 'open')
  s.advance(6)
  s.move('high-bleed', 'shut')
  s.advance(1)
  s.move('low-bleed', 'shut')
  s.advance(20)
  return s
}
const psid = (s: SiteModel) => s.atInstrument() / PSI
const fault = (element: string, kind: Fault['fault'], severity = 0.5): Fault => ({
  element,
  fault: kind,
  severity,
})

/** Lowers the differential slowly until the relief discharges; what the gauge shows then. */
function reliefOpening(s: SiteModel): number {
  s.move('high-control', 'open')
  s.move('low-control', 'crack')
  for (let n = 0; n < 2400; n++) {
    const before = psid(s)
    s.advance(0.1)
    if (s.seen().running.includes('relief')) return before
  }
  return 0
}

describe('a healthy assembly', () => {
  it.each([0.5, 0.75, 1, 2, 4, 10])('RP of %d in reads its springs, at any supply', (sizeIn) => {
    for (const supplyKpa of [250, 450, 900]) {
      const s = acrossCheck1(site('RP', [], { supplyKpa }, sizeIn))
      s.move('shutoff-2', 'shut')
      s.advance(20)
      expect(psid(s)).toBeGreaterThan(7.55)
      expect(psid(s)).toBeLessThan(7.7)
      expect(s.seen().running).toEqual([])
    }
  })
  it.each([1, 2, 6])('RP of %d in opens its relief at the spring', (sizeIn) => {
    const s = acrossCheck1(site('RP', [], {}, sizeIn))
    s.move('shutoff-2', 'shut')
    expect(reliefOpening(s)).toBeGreaterThan(2.7)
    expect(reliefOpening(s)).toBeLessThan(2.9)
  })
  it('of every kind stands at rest, dry, with pressures falling in flow direction', () => {
    for (const kind of assemblyKinds) {
      const s = site(kind)
      s.advance(60)
      expect(s.seen().running).toEqual([])
      expect(s.pressure('inlet')).toBeGreaterThanOrEqual(s.pressure('body-2'))
    }
  })
  it('draws a small flow through the bypass meter and a large one through the main as well', () => {
    const s = site('DCDA', [], {}, 6)
    s.setDemand(5)
    s.advance(30)
    expect(s.seen().turning).toEqual(['bypass-meter'])
    expect(Math.abs(s.flow('check-2'))).toBeLessThan(1e-6)
    s.setDemand(900)
    s.advance(30)
    expect(s.flow('check-2')).toBeGreaterThan(1)
  })
})

describe('what the trade knows by its signature', () => {
  it('a fouled check 1 lets the zone rise until the relief drips at rest', () => {
    const s = acrossCheck1(site('RP', [fault('check-1', 'fouled')]))
    expect(psid(s)).toBeLessThan(5)
    expect(s.seen().running).toContain('relief')
  })
  it('a weak check 1 spring reads low, and the relief stays dry', () => {
    const s = acrossCheck1(site('RP', [fault('check-1', 'spring-weak', 0.6)]))
    expect(psid(s)).toBeLessThan(5)
    expect(s.seen().running).toEqual([])
  })
  it('a leaking check 2 shows only against back-pressure', () => {
    const s = acrossCheck1(site('RP', [fault('check-2', 'disc-cut')]))
    s.move('shutoff-2', 'shut')
    s.advance(10)
    expect(s.seen().running).toEqual([])
    s.connect('bypass', 'cock-4')
    s.move('cock-4', 'open')
    s.move('high-control', 'open')
    s.move('bypass-control', 'open')
    s.advance(30)
    expect(s.seen().running).toContain('relief')
  })
  it.each([
    fault('relief', 'fouled'),
    fault('relief', 'diaphragm-torn'),
    fault('relief', 'passage-blocked', 0.95),
  ])('relief drips with both checks good: %o', (f) => {
    expect(acrossCheck1(site('RP', [f])).seen().running).toContain('relief')
  })
  it('a weak relief spring opens late, a stiff one early', () => {
    expect(reliefOpening(acrossCheck1(site('RP', [fault('relief', 'spring-weak')])))).toBeLessThan(
      2,
    )
    expect(
      reliefOpening(acrossCheck1(site('RP', [fault('relief', 'spring-stiff')]))),
    ).toBeGreaterThan(4)
  })
  it('a leaking shutoff 2 with water drawn downstream makes check 1 read high', () => {
    const read = (faults: Fault[]) => {
      const s = acrossCheck1(site('RP', faults, { demandLMin: 10 }, 1))
      s.move('shutoff-2', 'shut')
      s.advance(30)
      return psid(s)
    }
    const tight = read([])
    const leaking = read([fault('shutoff-2', 'leaking', 1)])
    expect(tight).toBeCloseTo(7.6, 1)
    expect(leaking - tight).toBeGreaterThan(0.05)
  })
  it('and with back-pressure behind it makes check 1 read low', () => {
    const s = acrossCheck1(
      site('RP', [fault('check-2', 'fouled'), fault('shutoff-2', 'leaking', 1)]),
    )
    s.move('shutoff-2', 'shut')
    s.connect('bypass', 'cock-4')
    s.move('cock-4', 'open')
    s.move('high-control', 'open')
    s.move('bypass-control', 'open')
    s.advance(30)
    expect(psid(s)).toBeLessThan(7)
  })
  it('a stuck meter does not turn', () => {
    const s = site('DCDA', [fault('bypass-meter', 'stuck')], {}, 6)
    s.setDemand(4)
    s.advance(30)
    expect(s.seen().turning).toEqual([])
  })
  it.each(assemblyKinds)('every fault of a %s can be computed, at any severity', (kind) => {
    for (const { element, fault: f } of possibleFaults(layoutOf(kind))) {
      for (const severity of [0.05, 0.5, 1]) {
        const s = site(kind, [{ element: element.id, fault: f, severity }])
        s.advance(30)
        expect(Number.isFinite(s.pressure('body-2'))).toBe(true)
      }
    }
  })
})

describe('a service does away with what it can', () => {
  const faults = [
    fault('check-1', 'fouled'),
    fault('check-1', 'disc-cut'),
    fault('relief', 'fouled'),
  ]
  it('cleaning takes dirt, not damage, of that part only', () => {
    expect(faultsAfter(faults, 'check-1', 'cleaned')).toEqual(faults.slice(1))
  })
  it('renewing takes both', () => {
    expect(faultsAfter(faults, 'check-1', 'renewed')).toEqual(faults.slice(2))
  })
})

describe('hoses and gauge', () => {
  it('a gauge held above the port with the low side open to air reads low by the column', () => {
    const s = site('DC')
    s.connect('high', 'cock-2')
    s.move('cock-2', 'open')
    s.move('shutoff-1', 'shut')
    s.move('shutoff-2', 'shut')
    s.move('cock-3', 'open')
    s.advance(40)
    const level = s.atInstrument()
    s.gaugeAbovePortM = 0.703
    expect(level - s.atInstrument()).toBeCloseTo(PSI, 1)
  })
  it('refuses a valve and a port that the assembly does not have', () => {
    expect(() => site('DC').move('relief', 'open')).toThrow(/relief/)
    expect(() => site('PVB').connect('high', 'cock-4')).toThrow(/cock-4/)
  })
  it('takes up valves and hoses where they stand, as after a reload', () => {
    const before = acrossCheck1(site('RP'))
    before.move('shutoff-2', 'shut')
    before.advance(20)
    const after = site('RP')
    after.restore({
      openings: { 'shutoff-2': 'shut', 'cock-2': 'open', 'cock-3': 'open' },
      hoses: { high: 'cock-2', low: 'cock-3' },
    })
    after.advance(60)
    expect(after.atInstrument()).toBeCloseTo(before.atInstrument(), 1)
  })
  it('the needle answers slowly and bounces until the hoses are bled', () => {
    const settled = (bledKg: number) => {
      const response = new GaugeResponse(fineGauge, randomNumbers(4))
      for (let n = 0; n < 30; n++) response.sample(0.1, 0, bledKg)
      const shown = Array.from({ length: 60 }, () => response.sample(0.1, 50, bledKg))
      const rest = shown.slice(40)
      const mean = rest.reduce((a, b) => a + b) / rest.length
      return {
        afterHalfSecond: shown[5] as number,
        spread: Math.sqrt(rest.reduce((a, b) => a + (b - mean) ** 2, 0) / rest.length),
      }
    }
    const air = settled(0)
    const solid = settled(0.5)
    expect(solid.afterHalfSecond).toBeGreaterThan(45)
    expect(air.afterHalfSecond).toBeLessThan(35)
    expect(air.spread).toBeGreaterThan(2 * solid.spread)
  })
})
