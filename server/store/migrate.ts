import { type Sequelize } from 'sequelize'
import { SequelizeStorage, Umzug } from 'umzug'
import { steps } from './schema'

/** The schema's steps, numbered so that their order is their name. */
export function migrator(sequelize: Sequelize) {
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
