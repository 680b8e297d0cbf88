import { describe, expect, expectTypeOf, it } from 'vitest'
import {
  convertValue,
  dimensionNames,
  fromSi,
  inUnit,
  parseDisplayed,
  quantity,
  type Quantity,
  roundTo,
  toSi,
  unitsOf,
  valueToSi,
} from '.'

describe('known conversions', () => {
  it.each([
    ['gaugePressure', 1, 'psi', 'kPa', 6.894757],
    ['differential', 1, 'inH2O', 'kPa', 9.80665 * 0.0254],
    ['torque', 1, 'lbf·in', 'N·m', 0.1129848],
    ['torque', 12, 'lbf·in', 'lbf·ft', 1],
    ['differential', 14, 'kPa', 'mbar', 140],
    ['temperature', 212, '°F', '°C', 100],
    ['temperature', -40, '°C', '°F', -40],
    ['liquidFlow', 1, 'gpm', 'L/min', 3.785412],
    ['length', 1, 'in', 'mm', 25.4],
  ] as const)('%s: %d %s in %s', (dimension, value, from, to, expected) => {
    expect(convertValue(dimension, value, from, to)).toBeCloseTo(expected, 5)
  })

  it('holds the head of water that the trade uses: 27.7 in per psi', () => {
    expect(convertValue('differential', 1, 'psi', 'inH2O')).toBeCloseTo(27.7, 1)
  })

  it('brings a standard cubic foot at 60 °F to 15 °C: about 0.2 % less volume than the geometric one', () => {
    const ratio = valueToSi('gasFlow', 1, 'scfh') / (0.028316846592 / 3600)
    expect(ratio).toBeCloseTo(288.15 / 288.7056, 4)
  })
})

describe('every unit', () => {
  it.each(dimensionNames.flatMap((d) => unitsOf(d).map((u) => [d, u] as const)))(
    '%s %s goes to SI and back',
    (dimension, unit) => {
      for (const value of [-3.25, 0, 0.1, 77]) {
        expect(fromSi(dimension, valueToSi(dimension, value, unit), unit)).toBeCloseTo(value, 9)
      }
    },
  )
})

describe('dimensions do not mix', () => {
  it('refuses a torque unit for a pressure and says which fit', () => {
    expect(() => valueToSi('gaugePressure', 5, 'lbf·in')).toThrow(/gauge pressure.*psi, kPa/)
  })
  it('is refused by the compiler too', () => {
    expectTypeOf<Quantity<'torque'>>().not.toExtend<Quantity<'gaugePressure'>>()
    expectTypeOf<Quantity<'differential'>>().not.toExtend<Quantity<'gaugePressure'>>()
  })
})

describe('what was displayed', () => {
  it('is kept, zeros and all', () => {
    expect(quantity('differential', '5.40', 'psi').value).toBe('5.40')
    expect(toSi(quantity('differential', '5.40', 'psi'))).toBeCloseTo(37.2317, 3)
  })
  it.each(['', 'NaN', '1e9', '12,5', '0x1F', '5.', '--2', 'Infinity', '5 psi'])(
    'refuses %j',
    (text) => {
      expect(() => parseDisplayed(text)).toThrow(/not a reading/)
    },
  )
  it('rounds half away from zero', () => {
    expect(roundTo(2.25, 1)).toBe('2.3')
    expect(roundTo(-2.25, 1)).toBe('-2.3')
    expect(roundTo(-0.04, 1)).toBe('0.0')
    expect(roundTo(1.005, 2)).toBe('1.01')
  })
  it('reads in another unit with the digits usual there', () => {
    expect(inUnit(quantity('differential', '2.0', 'psi'), 'mbar').value).toBe('138')
  })
})
