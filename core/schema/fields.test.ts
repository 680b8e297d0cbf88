import { describe, expect, it } from 'vitest'
import { line, prose } from './fields'

const UNSEEN = [
  ['a letter order turned around', 'RP\u202e111'],
  ['a space of no width', 'Dale\u200b Inn'],
  ['a mark of byte order', '\ufeffBath'],
  ['a hyphen that is not shown', 'Glass\u00adworks'],
  ['half a letter', 'Bath \ud83d'],
] as const

describe('text', () => {
  it.each(UNSEEN)('with %s is refused', (_, text) => {
    expect(() => line().validateSync(text)).toThrow(/cannot be seen/)
    expect(() => prose().validateSync(text)).toThrow(/cannot be seen/)
  })
  it('with a character that ends it elsewhere is refused', () => {
    expect(() => line().validateSync('Bath\u0000')).toThrow(/plain text on one line/)
    expect(() => prose().validateSync('Bath\u0000')).toThrow(/plain text/)
  })
  it.each(['Ångström & Söhne', 'Привет', 'שלום', '水道', '🚰 👨‍🔧', 'a – b “c”'])(
    'of any language is taken: %s',
    (text) => {
      expect(line().validateSync(text)).toBe(text)
      expect(prose().validateSync(text)).toBe(text)
    },
  )
  it('of several lines is prose, and no line', () => {
    expect(prose().validateSync('one\n\ttwo\r\n')).toBe('one\n\ttwo\r\n')
    expect(() => line().validateSync('one\ntwo')).toThrow(/one line/)
  })
})
