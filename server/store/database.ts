import { Sequelize } from 'sequelize'
import { dialectModule } from './dialect'
import { defineModels, type Models } from './models'

export interface DatabaseSettings {
  readonly host: string
  readonly port: number
  readonly user: string
  readonly password: string
  readonly database: string
  /** How long a statement may take, ms; as long as it wants when absent. */
  readonly patienceMs?: number
}

export interface Database extends Models {
  readonly sequelize: Sequelize
}

/**
 * Connects to MariaDB. DECIMAL arrives as text and keeps its digits; times are UTC; a transaction reads what
 * others have committed.
 */
export function openDatabase(settings: DatabaseSettings): Database {
  const sequelize = new Sequelize({
    dialect: 'mariadb',
    dialectModule: dialectModule(settings.patienceMs),
    host: settings.host,
    port: settings.port,
    username: settings.user,
    password: settings.password,
    database: settings.database,
    logging: false,
    timezone: '+00:00',
    pool: { max: 12, min: 1, acquire: 20_000, idle: 60_000 },
    define: { underscored: true, timestamps: false },
    dialectOptions: {
      supportBigNumbers: false,
      insertIdAsNumber: true,
      bigIntAsNumber: true,
      checkNumberRange: true,
      connectTimeout: 5_000,
      // Said once a connection, not before every transaction.
      sessionVariables: { tx_isolation: 'READ-COMMITTED' },
    },
  })
  return { sequelize, ...defineModels(sequelize) }
}
