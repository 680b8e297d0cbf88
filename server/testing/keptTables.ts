import { QueryTypes, type Sequelize } from 'sequelize'

/**
 * Keeps every row of a database beside it, so that a test that changes anything can put it back: that takes a tenth
 * of the time that a new database with the same world in it takes.
 * @returns puts the rows back
 */
export async function keepTables(sequelize: Sequelize): Promise<() => Promise<void>> {
  const tables = await tablesOf(sequelize)
  for (const table of tables)
    await sequelize.query(`CREATE TABLE kept_${table} AS SELECT * FROM ${table}`)
  return () =>
    sequelize.transaction(async (transaction) => {
      const now = await tablesOf(sequelize)
      for (const text of [
        'SET FOREIGN_KEY_CHECKS = 0',
        ...now.flatMap((t) => [`DELETE FROM ${t}`, `INSERT INTO ${t} SELECT * FROM kept_${t}`]),
        'SET FOREIGN_KEY_CHECKS = 1',
      ])
        await sequelize.query(text, { transaction })
    })
}

async function tablesOf(sequelize: Sequelize): Promise<string[]> {
  const rows = await sequelize.query<{ name: string }>(
    `SELECT table_name AS name FROM information_schema.tables
     WHERE table_schema = DATABASE() AND table_type = 'BASE TABLE' AND table_name NOT LIKE 'kept\\_%'`,
    { type: QueryTypes.SELECT },
  )
  return rows.map((r) => r.name)
}
