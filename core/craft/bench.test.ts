import { CannotCompute } from '../errors'
import { describe, expect, it } from 'vitest'
import { countGrooves, throwSymmetry } from '.'

describe('the grooves of a sleeve', () => {
  it('take one ring fewer than there are where one is a vent', () => {
    expect(countGrooves({ grooves: 5, emptyOnPurpose: 1, doubled: 0, rings: 4 })).toMatchObject({
      wanted: 4,
      fits: true,
    })
  })
  it('take two each where a slide ring goes over an O-ring', () => {
    expect(countGrooves({ grooves: 4, emptyOnPurpose: 0, doubled: 4, rings: 8 }).fits).toBe(true)
  })
  it.each([
    [3, /1 missing/],
    [5, /1 too many.*vented groove/],
  ])('with %i rings for four: says so', (rings, words) => {
    const verdict = countGrooves({ grooves: 5, emptyOnPurpose: 1, doubled: 0, rings })
    expect(verdict.fits).toBe(false)
    expect(verdict.says).toMatch(words)
  })
  it('are counted in whole numbers, and no more are empty than there are', () => {
    const given = { grooves: 2, emptyOnPurpose: 3, doubled: 0, rings: 1 }
    expect(() => countGrooves(given)).toThrow(/Count again/)
    expect(() => countGrooves({ ...given, rings: 1.5 })).toThrow(/whole number/)
  })
})

describe('the throws of a shuttle', () => {
  it('are equal within a tenth of the longer one, whichever comes first', () => {
    expect(throwSymmetry({ one: 30, other: 27.5 }).equal).toBe(true)
    for (const [one, other] of [
      [30, 26],
      [26, 30],
    ] as const) {
      expect(throwSymmetry({ one, other })).toMatchObject({ equal: false, difference: 4 })
      expect(throwSymmetry({ one, other }).says).toMatch(/backwards/)
    }
  })
  it('do not depend on the unit', () => {
    const inMm = throwSymmetry({ one: 31, other: 24 }).equal
    expect(throwSymmetry({ one: 31 / 25.4, other: 24 / 25.4 }).equal).toBe(inMm)
  })
  it.each([
    [-1, 3],
    [Number.NaN, 3],
    [0, 0],
  ])('%d and %d are none', (one, other) => {
    expect(() => throwSymmetry({ one, other })).toThrow(CannotCompute)
  })
})
