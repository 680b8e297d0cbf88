import type { Model, ModelStatic, Transaction } from 'sequelize'
import { notFound, ServiceError } from '../errors'

/**
 * Changes a record only if it still has the version the caller saw.
 * @throws ServiceError not-found, or stale when someone else was faster
 */
export async function changeVersioned(
  table: ModelStatic<Model>,
  what: string,
  id: string,
  version: number,
  fields: object,
  transaction: Transaction,
): Promise<void> {
  const given = Object.fromEntries(Object.entries(fields).filter(([, v]) => v !== undefined))
  const [changed] = await table.update(
    { ...given, version: version + 1 },
    { where: { id, version }, transaction },
  )
  if (changed > 0) return
  if (!(await table.findByPk(id, { transaction }))) throw notFound(what)
  throw new ServiceError(
    'stale',
    `Someone changed this ${what} meanwhile.`,
    'Reload it, look at the change, and enter yours again.',
  )
}
