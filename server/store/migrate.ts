import { QueryTypes, type Sequelize } from 'sequelize'
import { SequelizeStorage, Umzug } from 'umzug'
import { ExplainedError } from '@uvanta/core/errors'
import { steps } from './schema'
import type { Step } from './table'

/** Numbered, so that their order is their name. */
const nameOf = ({ name }: Step, index: number) => `${String(index + 1).padStart(3, '0')}-${name}`

function migrator(sequelize: Sequelize, storage: SequelizeStorage) {
  return new Umzug({
    migrations: steps.map((step, index) => ({
      name: nameOf(step, index),
      up: async () => void (await sequelize.query(step.up)),
      down: async () => void (await sequelize.query(step.down)),
    })),
    storage,
    logger: undefined,
  })
}

/** How long a second start waits for the first one to have made the schema, s. */
const WAIT_S = 600

/**
 * Brings the schema up to date. Of several processes that start at once on one database, one does it and the others
 * find it done.
 * @returns the names of the steps that were done here
 * @throws ExplainedError schema-busy when another one has not come to an end in ten minutes, schema-newer when a newer
 *   program has written to this database
 */
export async function bringUpToDate(sequelize: Sequelize): Promise<string[]> {
  // A lock belongs to a connection, and a transaction keeps one to itself.
  return sequelize.transaction(async (transaction) => {
    const ask = (sql: string) =>
      sequelize.query<{ held: number }>(sql, { type: QueryTypes.SELECT, transaction })
    const [got] = await ask(`SELECT GET_LOCK(CONCAT(DATABASE(), '.schema'), ${WAIT_S}) AS held`)
    if (got?.held !== 1)
      throw new ExplainedError(
        'schema-busy',
        'Another process has been changing the schema for ten minutes.',
        'Look whether it still runs, then start again.',
      )
    try {
      const storage = new SequelizeStorage({ sequelize, tableName: 'schema_step' })
      const known = new Set(steps.map(nameOf))
      const strange = (await storage.executed()).find((name) => !known.has(name))
      if (strange)
        throw new ExplainedError(
          'schema-newer',
          `A newer version of Uvanta has written to this database (step ${strange}).`,
          'Start that version, or restore a backup from before the upgrade into another directory.',
        )
      return (await migrator(sequelize, storage).up()).map(({ name }) => name)
    } finally {
      await ask("SELECT RELEASE_LOCK(CONCAT(DATABASE(), '.schema')) AS held")
    }
  })
}
