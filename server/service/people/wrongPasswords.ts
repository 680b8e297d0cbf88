import { ipKeyGenerator } from 'express-rate-limit'
import { Op } from 'sequelize'
import type { App } from '../../context'
import { counted } from '../../store/counted'
import { ServiceError } from '../errors'

/** Who tries: the person that a name turned out to be, and where from. */
export interface Attempt {
  /** Id of the person, or what stands for a name that nobody has. */
  readonly person: string
  readonly address: string
}

interface Limit {
  readonly subject: string
  readonly most: number
  readonly minutes: number
}

/** A person at one address, an address whoever it names, a person wherever it comes from. */
const limitsOf = ({ person, address }: Attempt): readonly [Limit, Limit] => {
  const network = networkOf(address)
  return [
    { subject: `pair ${person} ${network}`, most: 8, minutes: 10 },
    { subject: `address ${network}`, most: 60, minutes: 10 },
  ]
}
/** One network counts as one place: of IPv6 the /64, of which anybody has more addresses than can be counted. */
const networkOf = (address: string): string => ipKeyGenerator(address, 64)
const everywhere = ({ person }: Attempt): Limit => ({
  subject: `person ${person}`,
  most: 40,
  minutes: 60,
})
const knownAt = ({ person, address }: Attempt) => `known ${person} ${networkOf(address)}`
const KNOWN_DAYS = 60

/**
 * Lets a password be tried, and counts the attempt before it is looked at. Guessing from everywhere
 * stops guessing, but not the person at an address from which the right password came before: nobody
 * is locked out by others. Somebody who is signed in already is counted with the own attempts alone.
 * @throws ServiceError too-many
 */
export async function countAttempt(
  app: App,
  attempt: Attempt,
  { isSignedIn = false } = {},
): Promise<void> {
  const known = await app.db.wrongPasswords.findByPk(knownAt(attempt))
  const oldest = app.now().minus({ days: KNOWN_DAYS }).toMillis()
  const familiar = known !== null && known.since.getTime() > oldest
  const limits =
    familiar || isSignedIn ? limitsOf(attempt) : [...limitsOf(attempt), everywhere(attempt)]
  for (const { subject, minutes, most } of limits) {
    const now = app.now().toJSDate()
    const { count } = await counted(
      app.db.sequelize,
      'wrong_password',
      subject,
      now,
      minutes * 60_000,
    )
    if (count > most) {
      throw new ServiceError(
        'too-many',
        'Too many wrong passwords.',
        `Wait ${minutes} minutes, then try again.`,
      )
    }
  }
}

/** The password was right: the attempt was none, and the address is one of this person’s. */
export async function forgiveAttempt(app: App, attempt: Attempt): Promise<void> {
  const [pair, ofAddress] = limitsOf(attempt)
  await app.db.wrongPasswords.destroy({ where: { subject: pair.subject } })
  for (const { subject } of [ofAddress, everywhere(attempt)]) {
    await app.db.wrongPasswords.decrement('count', { where: { subject } })
  }
  await app.db.wrongPasswords.upsert({
    subject: knownAt(attempt),
    count: 1,
    since: app.now().toJSDate(),
  })
}

/** Addresses are kept for as long as they tell somebody’s own from a stranger’s, and no longer. */
export async function forgetOldAttempts(app: App): Promise<void> {
  const before = app.now().minus({ days: KNOWN_DAYS }).toJSDate()
  await app.db.wrongPasswords.destroy({ where: { since: { [Op.lt]: before } } })
}
