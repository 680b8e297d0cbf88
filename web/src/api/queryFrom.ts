import type { Endpoint } from '@uvanta/contract'
import { ValidationError } from 'yup'

/** A query made of words out of the address bar: what the call would refuse is left out. */
export function queryFrom<P, Q, B, R>(
  { query: schema, path }: Endpoint<P, Q, B, R>,
  given: Readonly<Record<string, string | undefined>>,
): Q {
  if (!schema) throw new Error(`${path} takes no query`)
  const query = Object.fromEntries(
    Object.entries(given).filter(([, v]) => v !== undefined && v !== ''),
  )
  try {
    return schema.validateSync(query, { abortEarly: false })
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    const strange = new Set(error.inner.map((e) => e.path))
    const left = Object.entries(query).filter(([name]) => !strange.has(name))
    return schema.validateSync(Object.fromEntries(left))
  }
}
