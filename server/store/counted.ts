import { QueryTypes, type Sequelize } from 'sequelize'

/**
 * One more of something in a window of time; one that is over begins anew. Counted in the database, and in one
 * statement: however many processes serve, they count together.
 * @returns how many there are, and since when
 */
export async function counted(
  db: Sequelize,
  table: 'wrong_password' | 'request_count',
  name: string,
  now: Date,
  windowMs: number,
): Promise<{ readonly count: number; readonly since: Date }> {
  const [row] = await db.query<{ count: number; since: Date }>(
    `INSERT INTO ${table} (subject, count, since) VALUES (:subject, 1, :now)
     ON DUPLICATE KEY UPDATE count = IF(since < :over, 1, count + 1), since = IF(since < :over, :now, since)
     RETURNING count, since`,
    {
      replacements: {
        // As far as the key of the tables goes.
        subject: name.slice(0, 120),
        now,
        over: new Date(now.getTime() - windowMs),
      },
      type: QueryTypes.SELECT,
    },
  )
  // Taking it for the first one would let everybody in.
  if (!row) throw new Error('the database did not say how many there are')
  return row
}
