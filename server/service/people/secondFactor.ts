import { createHash, randomInt } from 'node:crypto'
import type { NewSecondFactor, Person } from '@uvanta/contract'
import { Secret, TOTP } from 'otpauth'
import type { Transaction } from 'sequelize'
import type { App } from '../../context'
import type { SecondFactorRow } from '../../store/tables'
import { audited } from '../audit'
import { ServiceError } from '../errors'
import { endSessions } from './endSessions'
import { checkPassword, readPerson } from './people'

/**
 * Codes of an authenticator as a second factor (RFC 6238: SHA-1, 6 digits, 30 s), each taken once, with one step
 * before and after for clocks that differ. Ten recovery codes stand in for a lost device, each once.
 */
const RECOVERY_CODES = 10
const STEPS_BESIDE = 1
/** 20 bytes, as RFC 4226 recommends. */
const SECRET_BYTES = 20

/** Begins: the secret that an authenticator is to hold. Nothing changes until a code of it has come back. */
export async function beginSecondFactor(
  app: App,
  person: Person,
  password: string,
  address: string,
): Promise<NewSecondFactor> {
  await checkPassword(app, person.id, password, address)
  if (person.secondFactor)
    throw new ServiceError(
      'refused',
      'There is a second factor already.',
      'Take it off first, then set up the new one.',
    )
  const secret = new Secret({ size: SECRET_BYTES })
  await app.db.secondFactors.upsert({
    personId: person.id,
    secret: app.secrets.shut(secret.base32, person.id),
    lastStep: 0,
    recovery: [],
  })
  return { secret: secret.base32, uri: totp(app, person.username, secret).toString() }
}

/** A code has come back: from now on nobody signs in under this name without one. */
export async function confirmSecondFactor(
  app: App,
  person: Person,
  code: string,
  session: string,
): Promise<{ recovery: string[] }> {
  const recovery = Array.from({ length: RECOVERY_CODES }, newRecoveryCode)
  await audited(app, person, 'set up a second factor', person.username, async (transaction) => {
    const row = await locked(app, person.id, transaction)
    const step = row && !person.secondFactor ? stepOf(app, row, code) : null
    if (!row || step === null)
      throw new ServiceError(
        'refused',
        'That is not the code.',
        'Wait for the next one, then type it; the clock of the device has to be right.',
      )
    await row.update({ lastStep: step, recovery: recovery.map(hashOf) }, { transaction })
    await app.db.people.update(
      { secondFactorSince: app.now().toJSDate() },
      { where: { id: person.id }, transaction },
    )
    // Whoever is signed in elsewhere was never asked for a code.
    await endSessions(app, person.id, transaction, session)
  })
  return { recovery }
}

/** Takes the own second factor off. */
export async function removeOwnSecondFactor(
  app: App,
  person: Person,
  password: string,
  address: string,
): Promise<void> {
  await checkPassword(app, person.id, password, address)
  await remove(app, person, person)
}

/** Takes it off somebody who lost the device and the recovery codes; the name signs in by password until anew. */
export async function removeSecondFactor(app: App, actor: Person, id: string): Promise<void> {
  await remove(app, actor, await readPerson(app, id))
}

const remove = (app: App, actor: Person, of: Person) =>
  audited(app, actor, 'took off a second factor', of.username, async (transaction) => {
    await app.db.secondFactors.destroy({ where: { personId: of.id }, transaction })
    await app.db.people.update({ secondFactorSince: null }, { where: { id: of.id }, transaction })
  })

/**
 * Takes a code, or a recovery code, of somebody who signs in.
 * @returns whether it is one, and was not used before
 */
export function takeCode(app: App, personId: string, code: string): Promise<boolean> {
  return app.db.sequelize.transaction(async (transaction) => {
    const row = await locked(app, personId, transaction)
    if (!row) return false
    const step = stepOf(app, row, code)
    if (step !== null) {
      await row.update({ lastStep: step }, { transaction })
      return true
    }
    const left = row.recovery.filter((h) => h !== hashOf(code))
    if (left.length === row.recovery.length) return false
    await row.update({ recovery: left }, { transaction })
    return true
  })
}

const locked = (app: App, personId: string, transaction: Transaction) =>
  app.db.secondFactors.findByPk(personId, { lock: true, transaction })

const totp = (app: App, username: string, secret: Secret) =>
  new TOTP({ issuer: app.config.utility.name, label: username, secret })

/** The time step that a code is of, where it was not taken before; null for any other text. */
function stepOf(app: App, row: SecondFactorRow, code: string): number | null {
  const timestamp = app.now().toMillis()
  const own = totp(app, '', Secret.fromBase32(app.secrets.open(row.secret, row.personId)))
  const delta = own.validate({ token: plain(code), timestamp, window: STEPS_BESIDE })
  if (delta === null) return null
  const step = own.counter({ timestamp }) + delta
  return step > row.lastStep ? step : null
}

/** However it was typed: without spaces and hyphens, in capitals. */
const plain = (code: string) => code.replaceAll(/[\s-]/g, '').toUpperCase()
const hashOf = (code: string) => createHash('sha256').update(plain(code)).digest('hex')

/** Letters and digits that are not misread for each other. */
const READABLE = '23456789ABCDEFGHJKMNPQRSTVWXYZ'
/** Ten of thirty letters: about 49 bits. */
function newRecoveryCode(): string {
  const letters = Array.from({ length: 10 }, () => READABLE.charAt(randomInt(READABLE.length)))
  return `${letters.slice(0, 5).join('')}-${letters.slice(5).join('')}`
}
