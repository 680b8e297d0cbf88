import { Op } from 'sequelize'
import type { App } from '../context'

/** Who asked how often is known for as long as the longest window, and no longer. */
export async function forgetOldCounts(app: App): Promise<void> {
  const before = app.now().minus({ minutes: 10 }).toJSDate()
  await app.db.requestCounts.destroy({ where: { since: { [Op.lt]: before } } })
}
