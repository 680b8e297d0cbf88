import { describe, expect, it } from 'vitest'
import { fitWithin } from './smallerPicture'

describe('a photograph', () => {
  it('is made smaller by its longest side, its shape kept', () => {
    expect(fitWithin(4000, 3000)).toEqual({ width: 1600, height: 1200 })
    expect(fitWithin(3000, 4000)).toEqual({ width: 1200, height: 1600 })
  })
  it('is never made larger', () => {
    expect(fitWithin(800, 600)).toEqual({ width: 800, height: 600 })
    expect(fitWithin(1, 1)).toEqual({ width: 1, height: 1 })
  })
})
