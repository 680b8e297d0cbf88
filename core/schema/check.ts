import * as yup from 'yup'

/** One thing wrong with an input: where, and what to do. */
export interface FieldFault {
  /** Dotted path, `steps[2].record.unit`; empty for the whole. */
  readonly path: string
  readonly message: string
}

export class InvalidInput extends Error {
  constructor(readonly faults: readonly FieldFault[]) {
    super(faults.map((f) => (f.path ? `${f.path} ${f.message}` : f.message)).join('; '))
    this.name = 'InvalidInput'
  }
}

/**
 * Checks a value against a schema, without converting anything.
 * @throws InvalidInput listing every fault.
 */
export function check<T>(schema: yup.Schema<T>, value: unknown): T {
  try {
    return schema.validateSync(value, { strict: true, abortEarly: false })
  } catch (error) {
    if (!(error instanceof yup.ValidationError)) throw error
    throw new InvalidInput(faultsOf(error))
  }
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
