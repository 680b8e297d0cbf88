import { createRequire } from 'node:module'
import type { Content } from 'pdfmake/interfaces'

/*
 * The package says of a file that it is tagged, and writes no tags: whoever listens would hear nothing of it. What
 * is drawn is marked here, line by line, and the tree of it is written behind the last sheet.
 */

/** A place in the tree by which a program reads the paper out. */
interface Mark {
  readonly type: string
  readonly parent?: Mark | undefined
  readonly alt?: string | undefined
  readonly children: Mark[]
  /** What is drawn of it, as it is drawn. */
  readonly drawn: unknown[]
}
const top = (mark: Mark): Mark => (mark.parent ? top(mark.parent) : mark)

interface StructElement {
  add: (child: unknown) => StructElement
  end: () => void
}
interface Paper {
  markStructureContent: (type: string) => unknown
  markContent: (type: string) => void
  endMarkedContent: () => void
  struct: (type: string, options: object) => StructElement
  addStructure: (element: StructElement) => void
}
interface Renderer {
  pdfDocument: Paper
  renderPages: (pages: readonly { items: readonly { item: Drawn }[] }[]) => void
  renderLine: (line: Drawn, x: number, y: number) => void
  renderVector: (vector: Drawn) => void
  renderSVG: (svg: Drawn) => void
}
interface Drawn {
  readonly mark?: Mark
  readonly inlines?: readonly { readonly mark?: Mark }[]
}

const { prototype } = (
  createRequire(import.meta.url)('pdfmake/js/Renderer') as {
    default: { prototype: Renderer }
  }
).default
const { renderPages, renderLine, renderVector, renderSVG } = prototype

const markOf = (of: Drawn): Mark | undefined => of.mark ?? of.inlines?.find((i) => i.mark)?.mark

function drawn(this: Renderer, of: Drawn, draw: () => void): void {
  const mark = markOf(of)
  const paper = this.pdfDocument
  if (mark) mark.drawn.push(paper.markStructureContent(mark.type))
  else paper.markContent('Artifact')
  draw()
  paper.endMarkedContent()
}

prototype.renderLine = function (line, x, y) {
  drawn.call(this, line, () => renderLine.call(this, line, x, y))
}
prototype.renderVector = function (vector) {
  drawn.call(this, vector, () => renderVector.call(this, vector))
}
prototype.renderSVG = function (svg) {
  drawn.call(this, svg, () => renderSVG.call(this, svg))
}
prototype.renderPages = function (pages) {
  renderPages.call(this, pages)
  const [mark] = pages.flatMap((p) => p.items.flatMap(({ item }) => markOf(item) ?? []))
  if (mark) this.pdfDocument.addStructure(written(this.pdfDocument, top(mark)))
}

function written(paper: Paper, mark: Mark): StructElement {
  const element = paper.struct(mark.type, mark.alt ? { alt: mark.alt } : {})
  for (const content of mark.drawn) element.add(content)
  for (const child of mark.children) element.add(written(paper, child))
  element.end()
  return element
}

/** Any piece of a definition, as far as it is looked into here. */
interface Node {
  readonly text?: unknown
  readonly stack?: readonly unknown[]
  readonly columns?: readonly unknown[]
  readonly table?: { readonly headerRows?: number; readonly body: readonly (readonly unknown[])[] }
  readonly svg?: string
  /** What a picture is, for whoever does not see it. */
  readonly alt?: string
  readonly headlineLevel?: number
}

/** A definition whose texts, headings, tables and pictures are marked as what they are, in the order of reading. */
export function withTags(content: readonly Content[]): Content[] {
  const under = (parent: Mark, type: string, alt?: string): Mark => {
    const mark: Mark = { type, parent, alt, children: [], drawn: [] }
    parent.children.push(mark)
    return mark
  }
  const walk = (node: unknown, parent: Mark): unknown => {
    if (typeof node === 'string') return node === '' ? node : marked({ text: node }, parent)
    if (Array.isArray(node)) return node.map((n: unknown) => walk(n, parent))
    const of = node as Node
    if (of.stack) return { ...of, stack: of.stack.map((n) => walk(n, parent)) }
    if (of.columns) return { ...of, columns: of.columns.map((n) => walk(n, parent)) }
    if (of.table) return { ...of, table: { ...of.table, body: rows(of.table, parent) } }
    if (of.svg) return { ...of, mark: under(parent, 'Figure', of.alt) }
    return of.text === undefined || of.text === '' ? of : marked(of, parent)
  }
  const marked = (of: Node, parent: Mark) => {
    const mark = under(parent, of.headlineLevel ? `H${of.headlineLevel}` : 'P')
    // Stretches of one text in several typefaces are one paragraph.
    if (Array.isArray(of.text)) return { ...of, text: of.text.map((t: object) => ({ ...t, mark })) }
    return { ...of, text: [{ text: of.text, mark }] }
  }
  const rows = ({ body, headerRows = 0 }: NonNullable<Node['table']>, parent: Mark) => {
    // A frame around one thing is no table.
    if (body.length === 1 && body[0]?.length === 1)
      return body.map((row) => row.map((n) => walk(n, parent)))
    const table = under(parent, 'Table')
    return body.map((row, n) => {
      const line = under(table, 'TR')
      const type = n < headerRows ? 'TH' : 'TD'
      // Nothing stands where a cell before it is wider.
      return row.map((cell) => (cell === '' ? cell : walk(cell, under(line, type))))
    })
  }
  const paper: Mark = { type: 'Document', children: [], drawn: [] }
  return content.map((n) => walk(n, paper)) as Content[]
}
