import type { Person, UtilityFields, UtilityState } from '@uvanta/contract'
import type { App } from '../../context'
import { audited } from '../audit'
import { ServiceError } from '../errors'
import { changedValues } from '../register/changedFields'
import { changeVersioned } from '../register/versioned'
import { ID } from './keptUtility'

/** What an administrator sees, as it is now. */
export async function readSettings({ utility }: App): Promise<UtilityState> {
  await utility.refresh()
  return utility.state
}

/**
 * Says what the utility is. Certificates from now on carry it; those that were issued stay as they are.
 * @throws ServiceError stale when somebody else was faster, demo-settings in the demo
 */
export async function changeSettings(
  app: App,
  actor: Pick<Person, 'id' | 'name'>,
  version: number,
  input: UtilityFields,
): Promise<UtilityState> {
  if (app.config.isDemo)
    throw new ServiceError(
      'refused',
      'The demo is Larkhaven’s.',
      'Start your own in another directory: ./uvanta --data DIRECTORY start --empty',
      { code: 'demo-settings' },
    )
  const before = await readSettings(app)
  await audited(
    app,
    actor,
    'changed the settings of the utility',
    changedValues(before, input),
    (transaction) =>
      changeVersioned(app.db.utility, 'utility', String(ID), version, input, transaction),
  )
  return readSettings(app)
}
