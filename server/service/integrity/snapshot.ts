import { Transaction } from 'sequelize'
import type { App } from '../../context'

/** Reads that all see the database as it stood at the first of them, while others go on writing. */
export const inSnapshot = <T>(
  app: Pick<App, 'db'>,
  read: (transaction: Transaction) => Promise<T>,
): Promise<T> =>
  app.db.sequelize.transaction(
    { isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ },
    read,
  )

/**
 * Goes through a table page by page, each page in a snapshot of its own: what is in memory is one page,
 * however large the table is.
 * @param read the page behind an id, and the id of its last row; null at the end
 */
export async function pageByPage(
  app: Pick<App, 'db'>,
  read: (after: string, transaction: Transaction) => Promise<string | null>,
): Promise<void> {
  let after: string | null = ''
  while (after !== null) {
    const from: string = after
    after = await inSnapshot(app, (transaction) => read(from, transaction))
  }
}
