/** How often a transaction that met another one is tried. */
const TRIES = 4
/** A deadlock, and a lock that was waited for too long: the database undid everything, so nothing is done twice. */
const MET_ANOTHER = [1213, 1205]

/** Whether the database gave a transaction up because of another one. */
export const metAnother = (error: unknown): boolean =>
  MET_ANOTHER.includes((error as { original?: { errno?: number } }).original?.errno ?? 0)

/** Does a whole transaction, and does it anew where it met another one. */
export async function triedAgain<T>(transaction: () => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await transaction()
    } catch (error) {
      if (attempt >= TRIES || !metAnother(error)) throw error
    }
  }
}
