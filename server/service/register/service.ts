import type { Equipment, Person } from '@uvanta/contract'
import { Op } from 'sequelize'
import type { App } from '../../context'
import { audited } from '../audit'
import { ServiceError } from '../errors'
import { readEquipment } from './equipment'
import { changeVersioned } from './versioned'

/**
 * Takes equipment out of service, or puts it back: what is out falls due with nothing, and is not
 * planned. Put back it is due at once, since nobody knows how it stands.
 * @param version of the equipment that was seen
 * @throws ServiceError refused while a visit to it is open, or where it stands so already
 */
export async function changeService(
  app: App,
  actor: Person,
  id: string,
  version: number,
  { inService, why }: { readonly inService: boolean; readonly why: string },
): Promise<Equipment> {
  const { tag, condition } = await readEquipment(app, id)
  if (inService === (condition !== 'out-of-service')) {
    throw new ServiceError(
      'refused',
      `${tag} is ${inService ? 'in' : 'out of'} service already.`,
      'Reload it.',
      { code: 'service-unchanged' },
    )
  }
  const status = inService
    ? { condition: 'not-assessed' as const, dueOn: app.today() }
    : { condition: 'out-of-service' as const, dueOn: null, repairBy: null }
  const action = inService ? `put back into service: ${why}` : `took out of service: ${why}`
  await audited(app, actor, action, tag, async (transaction) => {
    await changeVersioned(app.db.equipment, 'equipment', id, version, {}, transaction)
    const open = await app.db.visits.findOne({
      where: { equipmentId: id, state: { [Op.in]: ['planned', 'under-way'] } },
      attributes: ['plannedOn'],
      transaction,
    })
    if (open) {
      throw new ServiceError(
        'refused',
        `A visit to ${tag} is open, planned for ${open.plannedOn}.`,
        'Stop it first, with the reason.',
        { code: 'visit-open' },
      )
    }
    await app.db.equipmentStatus.update(status, { where: { equipmentId: id }, transaction })
  })
  return readEquipment(app, id)
}
