import type { Sequelize } from 'sequelize'
import { servingRights } from './schema'

/** Who serves: the owner of the schema is another, and what serves has not the owner's password. */
const SERVES = `'uvanta'@'127.0.0.1'`
/** No such right was given: there is nothing to take away. */
const NOTHING_GIVEN = 1141

/**
 * Gives whoever serves what serving needs, and no more: it changes no table, and no row of those that only grow.
 * An installation from before had every right.
 */
export async function giveRights(owner: Sequelize): Promise<void> {
  await owner.query(`REVOKE ALL PRIVILEGES ON * FROM ${SERVES}`).catch((error: unknown) => {
    if ((error as { original?: { errno?: number } }).original?.errno !== NOTHING_GIVEN) throw error
  })
  for (const [table, rights] of Object.entries(servingRights))
    await owner.query(`GRANT ${rights} ON ${table} TO ${SERVES}`)
}
