import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import { openSync } from 'fontkit'
import type { Content } from 'pdfmake/interfaces'

const require = createRequire(import.meta.url)
const homeOf = (name: string) => dirname(require.resolve(`${name}/package.json`))

const atkinson = (family: string, file: string, weight: string) =>
  join(homeOf(`@expo-google-fonts/${family}`), weight, `${file}_${weight}.ttf`)
const dejavu = (file: string) => join(homeOf('dejavu-fonts-ttf'), 'ttf', `${file}.ttf`)

const face = (family: string, file: string) => ({
  normal: atkinson(family, file, '400Regular'),
  bold: atkinson(family, file, '700Bold'),
  italics: atkinson(family, file, '400Regular_Italic'),
  bolditalics: atkinson(family, file, '700Bold_Italic'),
})
const fallbackFace = (file: string) => ({
  normal: dejavu(file),
  bold: dejavu(`${file}-Bold`),
  italics: dejavu(`${file}-Oblique`),
  bolditalics: dejavu(`${file}-BoldOblique`),
})

/** The typefaces of a paper, each with a wider one for the characters that it does not have. */
export const paperFonts = {
  Next: face('atkinson-hyperlegible-next', 'AtkinsonHyperlegibleNext'),
  Mono: face('atkinson-hyperlegible-mono', 'AtkinsonHyperlegibleMono'),
  NextWide: fallbackFace('DejaVuSans'),
  MonoWide: fallbackFace('DejaVuSansMono'),
} as const
type FontName = keyof typeof paperFonts

const WIDER: Readonly<Record<'Next' | 'Mono', FontName>> = { Next: 'NextWide', Mono: 'MonoWide' }

const opened = new Map<FontName, ReturnType<typeof openSync>>()
function has(font: FontName, codePoint: number): boolean {
  const known = opened.get(font) ?? openSync(paperFonts[font].normal)
  opened.set(font, known)
  return 'hasGlyphForCodePoint' in known && known.hasGlyphForCodePoint(codePoint)
}

/** A stretch of text in one typeface. */
export interface Run {
  readonly text: string
  readonly font: FontName
}

const BREAKS = /[\n\r\t]/
/** Spaces and hyphens that only say how a line breaks, as signs that every typeface has. */
const PLAIN: Readonly<Record<string, string>> = { '\u202f': '\u00a0', '\u2011': '-', '\u2212': '–' }

/**
 * Splits a text into stretches that can be printed: in its own typeface, else in the wider one. A character that
 * neither has is written out by its number, so that nothing on a certificate is an empty box.
 */
export function printableRuns(text: string, font: 'Next' | 'Mono'): Run[] {
  const runs: { text: string; font: FontName }[] = []
  for (const read of text.normalize('NFC')) {
    const sign = has(font, read.codePointAt(0) ?? 0) ? read : (PLAIN[read] ?? read)
    const code = sign.codePointAt(0) ?? 0
    const own = BREAKS.test(sign) || has(font, code)
    const wide = !own && has(WIDER[font], code)
    const use = wide ? WIDER[font] : font
    const shown = own || wide ? sign : `[U+${code.toString(16).toUpperCase().padStart(4, '0')}]`
    const last = runs.at(-1)
    if (last?.font === use) last.text += shown
    else runs.push({ text: shown, font: use })
  }
  return runs
}

interface Node {
  readonly text?: unknown
  readonly font?: string
  readonly stack?: readonly unknown[]
  readonly columns?: readonly unknown[]
  readonly table?: { readonly body: readonly (readonly unknown[])[] }
}

/** Puts every text of a definition into typefaces that have its characters. */
export function withGlyphs(content: Content): Content {
  return walk(content, 'Next') as Content
}

function walk(node: unknown, font: 'Next' | 'Mono'): unknown {
  if (typeof node === 'string') return spelled(node, font)
  if (Array.isArray(node)) return node.map((n: unknown) => walk(n, font))
  if (typeof node !== 'object' || node === null) return node
  const of = node as Node
  const own = of.font === 'Mono' ? 'Mono' : font
  if (of.stack) return { ...of, stack: of.stack.map((n) => walk(n, own)) }
  if (of.columns) return { ...of, columns: of.columns.map((n) => walk(n, own)) }
  if (of.table)
    return {
      ...of,
      table: { ...of.table, body: of.table.body.map((r) => r.map((c) => walk(c, own))) },
    }
  if (typeof of.text !== 'string') return of
  const runs = printableRuns(of.text, own)
  return runs.every((r) => r.font === own)
    ? { ...of, text: runs.map((r) => r.text).join('') }
    : { ...of, text: runs }
}

function spelled(text: string, font: 'Next' | 'Mono'): unknown {
  const runs = printableRuns(text, font)
  return runs.every((r) => r.font === font) ? runs.map((r) => r.text).join('') : { text: runs }
}
