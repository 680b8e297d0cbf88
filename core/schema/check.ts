import * as yup from 'yup'
import { ExplainedError } from '../errors'

/** One thing wrong with an input: where, and what to do. */
export interface FieldFault {
  /** Dotted path, `steps[2].record.unit`; empty for the whole. */
  readonly path: string
  readonly message: string
}

export class InvalidInput extends ExplainedError {
  constructor(readonly faults: readonly FieldFault[]) {
    const { path = '', message = 'does not fit' } = faults[0] ?? {}
    const more = faults.length > 1 ? ` (and ${faults.length - 1} more)` : ''
    // A message that says what to do has it behind its colon.
    const [what = '', todo] = message.split(/: (?=[a-z])/, 2)
    super(
      'invalid-input',
      `${path ? `“${path}”` : 'This'} ${what}${more}.`,
      todo ? `${todo.charAt(0).toUpperCase()}${todo.slice(1)}.` : 'Change it and send it again.',
    )
  }
}

/** Deeper than anything this application exchanges. */
const DEEPEST = 40
/** Faults that are listed; nobody reads on after these. */
const MOST_FAULTS = 50

/**
 * Checks a value against a schema, without converting anything. Depth and the lengths of lists are
 * looked at before anything in them, so that a small hostile input costs little.
 * @throws InvalidInput listing the faults, at most fifty.
 */
export function check<T>(schema: yup.Schema<T>, value: unknown): T {
  const size = sizeFault(schema, value)
  if (size) throw new InvalidInput([size])
  try {
    return schema.validateSync(value, { strict: true, abortEarly: false })
  } catch (error) {
    // A check across fields meets a value of another kind than it was written for, as an object for a text.
    if (error instanceof TypeError)
      throw new InvalidInput([{ path: '', message: 'has a field of another kind than it takes' }])
    if (!(error instanceof yup.ValidationError)) throw error
    throw new InvalidInput(faultsOf(error).slice(0, MOST_FAULTS))
  }
}

function sizeFault(schema: yup.Schema, value: unknown): FieldFault | null {
  if (tooDeep(value))
    return { path: '', message: `is nested more than ${DEEPEST} deep: flatten it` }
  return listFault(descriptionOf(schema), value, '')
}

/** Level by level, so that a deep value needs no deep stack. */
function tooDeep(value: unknown): boolean {
  let level = [value]
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > DEEPEST) return true
    level = level.flatMap((v) =>
      v && typeof v === 'object'
        ? Object.values(v as object).filter((x) => typeof x === 'object' && x)
        : [],
    )
  }
  return false
}

const descriptions = new WeakMap<yup.Schema, yup.SchemaFieldDescription>()
function descriptionOf(schema: yup.Schema): yup.SchemaFieldDescription {
  const known = descriptions.get(schema) ?? schema.describe()
  descriptions.set(schema, known)
  return known
}

/** The first list that is longer than its schema lets it be. */
function listFault(
  schema: yup.SchemaFieldDescription,
  value: unknown,
  path: string,
): FieldFault | null {
  if ('innerType' in schema && Array.isArray(value)) {
    const most = schema.tests.find((t) => t.name === 'max')?.params?.max
    if (typeof most === 'number' && value.length > most) {
      return { path, message: `has ${value.length} entries: send at most ${most}` }
    }
    const inner = Array.isArray(schema.innerType) ? undefined : schema.innerType
    if (!inner || !('innerType' in inner || 'fields' in inner)) return null
    return first(value, (v, n) => listFault(inner, v, `${path}[${n}]`))
  }
  if (!('fields' in schema) || !value || typeof value !== 'object') return null
  const fields = Object.entries(schema.fields)
  return first(fields, ([name, field]) =>
    listFault(field, (value as Record<string, unknown>)[name], path ? `${path}.${name}` : name),
  )
}

function first<T>(list: readonly T[], look: (v: T, n: number) => FieldFault | null) {
  for (const [n, v] of list.entries()) {
    const fault = look(v, n)
    if (fault) return fault
  }
  return null
}

function faultsOf(error: yup.ValidationError): FieldFault[] {
  const leaves = error.inner.length > 0 ? error.inner : [error]
  return leaves.map((leaf) => ({
    path: leaf.path ?? '',
    message: leaf.message
      .replace(leaf.path ?? '', '')
      .replace(/^this |^ /, '')
      .slice(0, 300),
  }))
}
