import { readFileSync } from 'node:fs'
import { ExplainedError } from '@uvanta/core/errors'
import { check, type FieldFault, InvalidInput } from '@uvanta/core/schema'
import { isMap, isNode, isSeq, LineCounter, type Node, parseDocument } from 'yaml'
import type * as yup from 'yup'

/** A file of the library that cannot be used: where, and how to mend it. */
export class BadLibraryFile extends ExplainedError {
  constructor(
    readonly file: string,
    readonly places: readonly { readonly line: number; readonly message: string }[],
  ) {
    super(
      'bad-library-file',
      places.map((p) => `${file}:${p.line} ${p.message}`).join('\n'),
      '\nMend it; until then the last good library stays.',
    )
  }
}

/** A checked entry together with a way to say where something in it stands. */
export interface LoadedFile<T> {
  readonly file: string
  readonly value: T
  readonly refuse: (faults: readonly FieldFault[]) => BadLibraryFile
}

/** What was read of each schema by name: most files are as they were when the library is read again. */
const known = new WeakMap<yup.Schema<unknown>, Map<string, { text: string; value: unknown }>>()

/**
 * Reads one YAML file and checks it against a schema. Whoever reads the same text again gets the same
 * value, which nobody changes.
 * @throws BadLibraryFile with lines
 */
export function loadYaml<T>(path: string, name: string, schema: yup.Schema<T>): LoadedFile<T> {
  const text = readFileSync(path, 'utf8')
  const read = known.get(schema) ?? new Map<string, { text: string; value: unknown }>()
  known.set(schema, read)
  const before = read.get(name)
  const value = before?.text === text ? (before.value as T) : parsed(text, name, schema)
  read.set(name, { text, value })
  return { file: name, value, refuse: (faults) => refused(text, name, faults) }
}

const parse = (text: string, lines: LineCounter) =>
  parseDocument(text, { lineCounter: lines, uniqueKeys: true })

function parsed<T>(text: string, name: string, schema: yup.Schema<T>): T {
  const lines = new LineCounter()
  const document = parse(text, lines)
  if (document.errors.length > 0) {
    throw new BadLibraryFile(
      name,
      document.errors.map((e) => ({
        line: lines.linePos(e.pos[0]).line,
        message: e.message.split('\n')[0] ?? 'is not YAML',
      })),
    )
  }
  try {
    return check(schema, document.toJS())
  } catch (error) {
    if (error instanceof InvalidInput) throw refused(text, name, error.faults)
    throw error
  }
}

/** The text is read once more for its lines, which nobody needs while it is right. */
function refused(text: string, name: string, faults: readonly FieldFault[]): BadLibraryFile {
  const lines = new LineCounter()
  const { contents } = parse(text, lines)
  return new BadLibraryFile(
    name,
    faults.map((f) => ({
      line: lineOf(contents, f.path, lines),
      message: `${f.path ? `${f.path}: ` : ''}${f.message}`,
    })),
  )
}

/** The line of the nearest thing that exists on the way to a path such as `steps[2].record.unit`. */
function lineOf(root: Node | null, path: string, lines: LineCounter): number {
  let node: unknown = root
  let nearest = root
  for (const key of path.split(/[.[\]]+/).filter(Boolean)) {
    if (!isMap(node) && !isSeq(node)) break
    node = node.get(isSeq(node) ? Number(key) : key, true)
    if (!isNode(node)) break
    nearest = node
  }
  return lines.linePos(nearest?.range?.[0] ?? 0).line
}
