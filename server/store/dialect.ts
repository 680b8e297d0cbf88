import * as mariadb from 'mariadb'

/** How long the database is left alone after it did not answer, ms: then one asks whether it is back. */
const LEFT_ALONE_MS = 2_000

/** The database gave no answer in time, or has not for a moment: the code by which the connector says so as well. */
class DoesNotAnswer extends Error {
  readonly code = 'ETIMEDOUT'
  constructor() {
    super('The database does not answer.')
  }
}

/** Asks a database that does not answer no more until a moment has passed, and then by one statement alone. */
class Breaker {
  private shutUntil = 0
  private isAsked = false

  async around<T>(patienceMs: number, ask: () => Promise<T>, giveUp: () => void): Promise<T> {
    const isShut = this.shutUntil > 0
    if (isShut && (this.isAsked || Date.now() < this.shutUntil)) throw new DoesNotAnswer()
    if (isShut) this.isAsked = true
    let timer: NodeJS.Timeout | undefined
    const late = new Promise<never>((_, reject) => {
      timer = setTimeout(() => {
        this.shutUntil = Date.now() + LEFT_ALONE_MS
        giveUp()
        reject(new DoesNotAnswer())
      }, patienceMs)
    })
    try {
      const answer = await Promise.race([ask(), late])
      this.shutUntil = 0
      return answer
    } finally {
      clearTimeout(timer)
      if (isShut) this.isAsked = false
    }
  }
}

/**
 * The connector as Sequelize wants it. It marks `rows.meta` as fixed, and Sequelize 6 deletes it: connections made here
 * return rows whose `meta` can be deleted.
 * @param patienceMs how long a statement may take; as long as it wants when absent
 */
export function dialectModule(patienceMs?: number) {
  const breaker = new Breaker()
  return {
    ...mariadb,
    async createConnection(options: mariadb.ConnectionConfig) {
      const connection = await mariadb.createConnection(options)
      const query = connection.query.bind(connection)
      connection.query = async (...args: Parameters<typeof query>) => {
        const ask = (): Promise<unknown> => query(...args)
        const rows = patienceMs
          ? await breaker.around(patienceMs, ask, () => connection.destroy())
          : await ask()
        if (!Array.isArray(rows) || !('meta' in rows)) return rows as never
        const copy = rows.slice() as unknown[] & { meta?: unknown }
        copy.meta = rows.meta
        return copy as never
      }
      return connection
    },
  }
}
