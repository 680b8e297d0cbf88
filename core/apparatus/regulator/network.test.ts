import { describe, expect, it } from 'vitest'
import { type RegulatorKind, regulatorKinds } from './kinds'
import { opensBelow } from './network'

describe('the inlet', () => {
  const asked = (kind: RegulatorKind, inletKpa: number) =>
    opensBelow(
      {
        kind,
        sizeIn: 1,
        condition: { faults: [], supplyKpa: 700 },
        nominals: { 'set-point': 345 },
      },
      inletKpa,
      0,
    )
  const rise = (kind: RegulatorKind) => asked(kind, 500) - asked(kind, 700)
  it.each(regulatorKinds)('raises the outlet of a %s as it falls, by little', (kind) => {
    expect(rise(kind)).toBeGreaterThan(0)
    expect(rise(kind)).toBeLessThan(0.01 * 345)
  })
  it('moves a pilot less than a direct spring', () => {
    expect(rise('pilot regulator')).toBeLessThan(rise('spring regulator') / 2)
  })
})
