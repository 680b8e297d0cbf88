import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { dimensionNames, unitLabel, unitsOf } from '@uvanta/core/quantity'
import { openSync } from 'fontkit'
import { describe, expect, it } from 'vitest'
import { paperFonts, printableRuns } from './pdfGlyphs'

const root = join(import.meta.dirname, '../../..')

/** Every text file of a folder. */
function textsOf(folder: string): string[] {
  return readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.(yaml|ts)$/.test(name) && !name.includes('node_modules'))
    .map((name) => readFileSync(join(root, folder, name), 'utf8'))
}

const fonts = Object.fromEntries(
  Object.entries(paperFonts).map(([name, face]) => [
    name,
    Object.values(face).map((f) => openSync(f)),
  ]),
)

/** Whether every typeface of a font, bold and slanted ones too, has a glyph for a sign. */
const hasEverywhere = (font: string, sign: string): boolean =>
  (fonts[font] ?? []).every(
    (f) => 'hasGlyphForCodePoint' in f && f.hasGlyphForCodePoint(sign.codePointAt(0) ?? 0),
  )

describe('what is printed on a certificate', () => {
  const signs = [
    ...new Set(
      [
        ...textsOf('library'),
        ...textsOf('core/rules'),
        ...textsOf('core/certificate'),
        ...textsOf('server/service/certificate'),
        ...textsOf('server/demo'),
        ...dimensionNames.flatMap((d) => unitsOf(d).map((u) => unitLabel(d, u))),
        'ŁódźÅngströmДмитрийΑθήνα½²³',
      ].join(''),
    ),
  ].filter((s) => !/[\n\r\t]/.test(s))
  it.each(['Next', 'Mono'] as const)(
    'has a glyph in the fonts that go with %s, by their own tables',
    (font) => {
      for (const sign of signs) {
        const runs = printableRuns(sign, font)
        for (const run of runs)
          for (const printed of run.text)
            expect(hasEverywhere(run.font, printed), `${printed} in ${run.font}`).toBe(true)
        expect(runs.map((r) => r.text).join('')).not.toMatch(/^\[U\+/)
      }
    },
  )
  it('keeps the subscript of an inch of water', () => {
    expect(printableRuns('14.5 inH₂O', 'Mono')).toEqual([
      { text: '14.5 inH', font: 'Mono' },
      { text: '₂', font: 'MonoWide' },
      { text: 'O', font: 'Mono' },
    ])
  })
  it('writes a sign that no font has by its number', () => {
    expect(printableRuns('a\u{10ffff}', 'Next')).toEqual([{ text: 'a[U+10FFFF]', font: 'Next' }])
  })
})
