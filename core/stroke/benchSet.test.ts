import { describe, expect, it } from 'vitest'
import { CannotCompute } from '../errors'
import { benchSet } from '.'

describe('bench set', () => {
  const spring = { low: 40, high: 200 }
  const read = (friction: number, shift = 0) => ({
    firstUpKpa: spring.low + shift + friction,
    fullUpKpa: spring.high + shift + friction,
    firstDownKpa: spring.high + shift - friction,
    fullDownKpa: spring.low + shift - friction,
  })
  it.each([0, 4, 12])('finds the spring whatever the friction: %d kPa', (friction) => {
    const found = benchSet(read(friction))
    expect(found.lowKpa).toBeCloseTo(40, 9)
    expect(found.highKpa).toBeCloseTo(200, 9)
    expect(found.frictionKpa).toBeCloseTo(friction, 9)
    expect(found.frictionPercent).toBeCloseTo((friction / 160) * 100, 9)
  })
  it('tells friction at the start from friction at full travel', () => {
    const found = benchSet({ firstUpKpa: 44, fullUpKpa: 210, firstDownKpa: 190, fullDownKpa: 36 })
    expect(found).toMatchObject({ frictionStartKpa: 4, frictionFullKpa: 10, frictionKpa: 7 })
  })
  it('says how far it is set from its plate', () => {
    const found = benchSet({ ...read(5, 7), plateLowKpa: 40, plateHighKpa: 200 })
    expect(found.shiftKpa).toBeCloseTo(7, 9)
    expect(benchSet(read(5)).shiftKpa).toBeNull()
  })
  it.each([
    [{ ...read(5), fullUpKpa: 30 }, /more pressure than first movement/],
    [{ ...read(5), firstDownKpa: 240 }, /cannot come back at a higher pressure/],
  ])('does not believe what contradicts itself', (given, words) => {
    expect(() => benchSet(given)).toThrow(CannotCompute)
    expect(() => benchSet(given)).toThrow(words)
  })
})
