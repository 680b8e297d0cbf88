import type { Person } from '@uvanta/contract'
import type { Transaction } from 'sequelize'
import type { App } from '../../context'

/** Revokes every device of a person, and takes the passkeys off. */
export async function revokeAll(
  app: App,
  actor: Pick<Person, 'name'>,
  personId: string,
  transaction: Transaction,
): Promise<void> {
  await app.db.deviceKeys.update(
    { revokedAt: app.now().toJSDate(), revokedBy: actor.name },
    { where: { personId, revokedAt: null }, transaction },
  )
  await app.db.passkeys.destroy({ where: { personId }, transaction })
}
