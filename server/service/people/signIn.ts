import { createHash } from 'node:crypto'
import { verify } from '@node-rs/argon2'
import type { Person } from '@uvanta/contract'
import type { App } from '../../context'
import type { PersonRow } from '../../store/tables'
import { recordAudit } from '../audit'
import { ServiceError } from '../errors'
import { hashPassword, readPerson } from './people'
import { takeCode } from './takeCode'
import { countAttempt, forgiveAttempt } from './wrongPasswords'

/** Compared against when nobody has the name, so that the answer takes as long. */
const NOBODY = await hashPassword('nobody at all')

export async function signIn(
  app: App,
  username: string,
  password: string,
  address: string,
  code?: string,
): Promise<Person> {
  const row = await app.db.people.findOne({ where: { username } })
  const attempt = { person: row?.id ?? nobodyNamed(username), address }
  await countAttempt(app, attempt)
  const right = await verify(row?.passwordHash ?? NOBODY, password)
  if (!row || !right || !row.active) {
    // Of a name that nobody has, nothing is kept: it may be a password in the wrong field.
    if (row) await recordRefusal(app, row, 'wrong password, or let go')
    throw new ServiceError(
      'not-signed-in',
      'Name or password is wrong.',
      'Check both and try again.',
    )
  }
  if (row.secondFactorSince) await requireCode(app, row, code)
  // Only now: whoever has the password alone tries no more codes than passwords.
  await forgiveAttempt(app, attempt)
  return readPerson(app, row.id)
}

/** A name that nobody has may be a password in the wrong field: it is counted, and not written down. */
const nobodyNamed = (username: string) =>
  `nobody ${createHash('sha256').update(username).digest('hex').slice(0, 32)}`

/** @throws ServiceError with a code of its own, so that a screen asks for what is missing */
async function requireCode(app: App, row: PersonRow, code: string | undefined): Promise<void> {
  if (code !== undefined && (await takeCode(app, row.id, code))) return
  if (code !== undefined) await recordRefusal(app, row, 'wrong code')
  throw new ServiceError(
    'not-signed-in',
    code === undefined ? 'A code is asked for as well.' : 'That is not the code, or it was used.',
    code === undefined
      ? 'Type the 6 digits that your authenticator shows.'
      : 'Wait for the next one, then type it.',
    { code: 'second-factor' },
  )
}

/** Writes down that somebody was not let in under a name, and why. */
const recordRefusal = (
  app: App,
  { id, name }: Pick<Person, 'id' | 'name'>,
  why: string,
): Promise<void> =>
  app.db.sequelize.transaction((transaction) =>
    recordAudit(app, { id, name } as Person, 'signing in refused', why, transaction),
  )
