import type { Transaction } from 'sequelize'
import type { App } from '../../context'

/**
 * Ends what a person is signed in to, in the transaction of the change that asks for it.
 * @param besides the session that goes on: whoever changes the own password stays
 */
export async function endSessions(
  app: App,
  personId: string,
  transaction: Transaction,
  besides = '',
): Promise<void> {
  await app.db.sequelize.query(
    "DELETE FROM session WHERE JSON_VALUE(data, '$.personId') = :personId AND sid <> :besides",
    { replacements: { personId, besides }, transaction },
  )
}
