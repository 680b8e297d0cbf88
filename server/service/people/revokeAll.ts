import type { EndedKeys, Person } from '@uvanta/contract'
import type { Id } from '@uvanta/core/schema'
import { Op, type Transaction } from 'sequelize'
import type { App } from '../../context'

/**
 * Ends every other way in of a person than the password: revokes the keys of devices and removes the passkeys, so that
 * whoever had the old password keeps nothing.
 * @param keepDevice the device on which the person does this; its key goes on
 * @returns what was ended, by its label
 */
export async function revokeAll(
  app: App,
  actor: Pick<Person, 'name'>,
  personId: string,
  transaction: Transaction,
  keepDevice?: Id<'device'>,
): Promise<EndedKeys> {
  const where = {
    personId,
    revokedAt: null,
    ...(keepDevice ? { id: { [Op.ne]: keepDevice } } : {}),
  }
  const [devices, passkeys] = await Promise.all([
    app.db.deviceKeys.findAll({ where, transaction }),
    app.db.passkeys.findAll({ where: { personId }, transaction }),
  ])
  await app.db.deviceKeys.update(
    { revokedAt: app.now().toJSDate(), revokedBy: actor.name },
    { where, transaction },
  )
  await app.db.passkeys.destroy({ where: { personId }, transaction })
  return { devices: devices.map((d) => d.label), passkeys: passkeys.map((p) => p.label) }
}
