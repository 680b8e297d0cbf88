import { QueryTypes, type Sequelize } from 'sequelize'
import { SequelizeStorage, Umzug } from 'umzug'
import { steps } from './schema'

/** The schema's steps, numbered so that their order is their name. */
function migrator(sequelize: Sequelize) {
  return new Umzug({
    migrations: steps.map((step, index) => ({
      name: `${String(index + 1).padStart(3, '0')}-${step.name}`,
      up: async () => void (await sequelize.query(step.up)),
      down: async () => void (await sequelize.query(step.down)),
    })),
    storage: new SequelizeStorage({ sequelize, tableName: 'schema_step' }),
    logger: undefined,
  })
}

/** How long a second start waits for the first one to have made the schema, s. */
const WAIT_S = 600

/**
 * Brings the schema up to date. Of several processes that start at once on one database, one does it and the others
 * find it done.
 * @returns the names of the steps that were done here
 * @throws Error when another one has not come to an end in ten minutes
 */
export async function bringUpToDate(sequelize: Sequelize): Promise<string[]> {
  // A lock belongs to a connection, and a transaction keeps one to itself.
  return sequelize.transaction(async (transaction) => {
    const ask = (sql: string) =>
      sequelize.query<{ held: number }>(sql, { type: QueryTypes.SELECT, transaction })
    const [got] = await ask(`SELECT GET_LOCK(CONCAT(DATABASE(), '.schema'), ${WAIT_S}) AS held`)
    if (got?.held !== 1) throw new Error('Another process is changing the schema: start again.')
    try {
      return (await migrator(sequelize).up()).map(({ name }) => name)
    } finally {
      await ask("SELECT RELEASE_LOCK(CONCAT(DATABASE(), '.schema')) AS held")
    }
  })
}
