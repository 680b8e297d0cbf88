import { randomInt } from 'node:crypto'
import type { EndedKeys, NewSecondFactor, Person } from '@uvanta/contract'
import type { Id } from '@uvanta/core/schema'
import { Secret } from 'otpauth'
import type { App } from '../../context'
import { audited } from '../audit'
import { ServiceError } from '../errors'
import { endSessions } from './endSessions'
import { checkPassword, readPerson } from './people'
import { type Proof, reauthenticate } from './reauthenticate'
import { revokeAll } from './revokeAll'
import { hashOf, locked, stepOf, totp } from './takeCode'

/**
 * Codes of an authenticator as a second factor (RFC 6238: SHA-1, 6 digits, 30 s), each taken once, with one step
 * before and after for clocks that differ. Ten recovery codes stand in for a lost device, each once.
 */
const RECOVERY_CODES = 10
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
      { code: 'second-factor-exists' },
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
  from: { readonly session: string; readonly keepDevice?: Id<'device'> | undefined },
): Promise<{ recovery: string[]; ended: EndedKeys }> {
  const recovery = Array.from({ length: RECOVERY_CODES }, newRecoveryCode)
  const ended = await audited(
    app,
    person,
    'set up a second factor',
    person.username,
    async (transaction) => {
      const row = await locked(app, person.id, transaction)
      const step = row && !person.secondFactor ? stepOf(app, row, code) : null
      if (!row || step === null)
        throw new ServiceError(
          'refused',
          'That is not the code.',
          'Wait for the next one, then type it; the clock of the device has to be right.',
          { code: 'code-wrong' },
        )
      await row.update({ lastStep: step, recovery: recovery.map(hashOf) }, { transaction })
      await app.db.people.update(
        { secondFactorSince: app.now().toJSDate() },
        { where: { id: person.id }, transaction },
      )
      // Whoever is signed in elsewhere was never asked for a code.
      await endSessions(app, person.id, transaction, from.session)
      return revokeAll(app, person, person.id, transaction, from.keepDevice)
    },
  )
  return { recovery, ended }
}

/** Removes the own second factor. A code of it is needed: the password alone is not enough. */
export async function removeOwnSecondFactor(
  app: App,
  person: Person,
  proof: Proof,
  address: string,
): Promise<void> {
  await reauthenticate(app, person, proof, address)
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

/** Letters and digits that are not misread for each other. */
const READABLE = '23456789ABCDEFGHJKMNPQRSTVWXYZ'
/** Ten of thirty letters: about 49 bits. */
function newRecoveryCode(): string {
  const letters = Array.from({ length: 10 }, () => READABLE.charAt(randomInt(READABLE.length)))
  return `${letters.slice(0, 5).join('')}-${letters.slice(5).join('')}`
}
