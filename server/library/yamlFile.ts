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

/** Reads one YAML file and checks it against a schema. @throws BadLibraryFile with lines */
export function loadYaml<T>(path: string, name: string, schema: yup.Schema<T>): LoadedFile<T> {
  const lines = new LineCounter()
  const document = parseDocument(readFileSync(path, 'utf8'), {
    lineCounter: lines,
    uniqueKeys: true,
  })
  if (document.errors.length > 0) {
    throw new BadLibraryFile(
      name,
      document.errors.map((e) => ({
        line: lines.linePos(e.pos[0]).line,
        message: e.message.split('\n')[0] ?? 'is not YAML',
      })),
    )
  }
  const refuse = (faults: readonly FieldFault[]) =>
    new BadLibraryFile(
      name,
      faults.map((f) => ({
        line: lineOf(document.contents, f.path, lines),
        message: `${f.path ? `${f.path}: ` : ''}${f.message}`,
      })),
    )
  try {
    return { file: name, value: check(schema, document.toJS()), refuse }
  } catch (error) {
    if (error instanceof InvalidInput) throw refuse(error.faults)
    throw error
  }
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
