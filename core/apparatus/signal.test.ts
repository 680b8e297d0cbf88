import { describe, expect, it } from 'vitest'
import { type Nominal, signalAt } from '.'

const electric: Nominal[] = [
  { name: 'signal-low', value: { dimension: 'current', value: '4', unit: 'mA' } },
  { name: 'signal-high', value: { dimension: 'current', value: '20', unit: 'mA' } },
]
const air: Nominal[] = [
  { name: 'air-signal-low', value: { dimension: 'gaugePressure', value: '3', unit: 'psi' } },
  { name: 'air-signal-high', value: { dimension: 'gaugePressure', value: '15', unit: 'psi' } },
]

describe('what a calibrator is set to', () => {
  it.each([
    [0, '4.00'],
    [0.25, '8.00'],
    [0.5, '12.00'],
    [1, '20.00'],
  ])('part %d of 4–20 mA is %s mA', (part, value) => {
    expect(signalAt(electric, part)).toEqual({ dimension: 'current', value, unit: 'mA' })
  })
  it('is air where the positioner takes air', () => {
    expect(Number(signalAt(air, 0.5)?.value)).toBe(9)
    expect(signalAt(air, 0.5)?.unit).toBe('psi')
  })
  it('takes a range that runs the other way', () => {
    const turned = electric.map((n) => ({
      ...n,
      name: n.name === 'signal-low' ? ('signal-high' as const) : ('signal-low' as const),
    }))
    expect(signalAt(turned, 0.25)?.value).toBe('16.00')
  })
  it('is not known without both ends', () => {
    expect(signalAt(electric.slice(0, 1), 0.5)).toBeNull()
    expect(signalAt([], 0.5)).toBeNull()
  })
})
