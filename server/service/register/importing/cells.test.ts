import { describe, expect, it } from 'vitest'
import { amountOf, BadCell, dateOf, sizeOf } from './cells'

describe('a size', () => {
  it.each([
    ['2', '2'],
    ['2"', '2'],
    ['0,75 in', '0.75'],
    ['3/4', '0.75'],
    ['1 1/2', '1.5'],
    ['1-1/4 in.', '1.25'],
    ['2½″', '2.5'],
    ['½', '0.5'],
  ])('written %s is %s in', (cell, size) => expect(sizeOf(cell)).toBe(size))
  it.each(['DN 50', 'two', '1/0', '', '-2', '1,250'])('is not guessed from “%s”', (cell) =>
    expect(() => sizeOf(cell)).toThrow(BadCell),
  )
})

describe('a date', () => {
  it.each([
    ['2026-11-04', 'month-first', '2026-11-04'],
    ['2026/1/4', 'day-first', '2026-01-04'],
    ['4.11.2026', 'day-first', '2026-11-04'],
    ['04/11/2026', 'day-first', '2026-11-04'],
    ['11/4/2026', 'month-first', '2026-11-04'],
  ] as const)('written %s, %s, is %s', (cell, order, date) =>
    expect(dateOf(cell, order)).toBe(date),
  )
  it.each([
    ['11/04/2026', 'year-first'],
    ['4.11.26', 'day-first'],
    ['November 2026', 'day-first'],
  ] as const)('is not guessed from %s, %s', (cell, order) =>
    expect(() => dateOf(cell, order)).toThrow(BadCell),
  )
})

describe('a figure', () => {
  it.each([
    ['60 psi', 'gaugePressure', '60', 'psi'],
    ['60PSIG', 'gaugePressure', '60', 'psi'],
    ['4,2 bar', 'gaugePressure', '4.2', 'bar'],
    ['14.0 inH₂O', 'gaugePressure', '14.0', 'inH2O'],
    ['7.0 psid', 'differential', '7.0', 'psi'],
    ['5', 'fraction', '5', '%'],
  ] as const)('written %s, a %s, is %s %s', (cell, dimension, value, unit) =>
    expect(amountOf(cell, dimension)).toEqual({ dimension, value, unit }),
  )
  it.each([
    // Against vacuum it would be another pressure, a differential is none, and a comma may mean thousands.
    ['60 psia', 'gaugePressure'],
    ['60 psid', 'gaugePressure'],
    ['60 psig', 'differential'],
    ['1,000 psi', 'gaugePressure'],
    ['60', 'gaugePressure'],
    ['psi', 'gaugePressure'],
  ] as const)('is not guessed from %s, a %s', (cell, dimension) =>
    expect(() => amountOf(cell, dimension)).toThrow(BadCell),
  )
})
