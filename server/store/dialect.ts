import * as mariadb from 'mariadb'

/**
 * The connector marks `rows.meta` as fixed, and Sequelize 6 deletes it. Connections made here
 * return rows whose `meta` can be deleted.
 */
export const dialectModule = {
  ...mariadb,
  async createConnection(options: mariadb.ConnectionConfig) {
    const connection = await mariadb.createConnection(options)
    const query = connection.query.bind(connection)
    connection.query = async (...args: Parameters<typeof query>) => {
      const rows: unknown = await query(...args)
      if (!Array.isArray(rows) || !('meta' in rows)) return rows as never
      const copy = rows.slice() as unknown[] & { meta?: unknown }
      copy.meta = rows.meta
      return copy as never
    }
    return connection
  },
}
