import type { Passkey, Person } from '@uvanta/contract'
import {
  type AuthenticationResponseJSON,
  generateAuthenticationOptions,
  generateRegistrationOptions,
  type PublicKeyCredentialCreationOptionsJSON,
  type PublicKeyCredentialRequestOptionsJSON,
  type RegistrationResponseJSON,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
} from '@simplewebauthn/server'
import { isIP } from 'node:net'
import type { App } from '../../context'
import type { PasskeyRow } from '../../store/tables'
import { audited } from '../audit'
import { notFound, ServiceError } from '../errors'
import { readPerson } from './people'
import { type Proof, reauthenticate } from './reauthenticate'

/**
 * Passkeys (WebAuthn): an authenticator that asked its person for a finger, a face or a PIN signs a challenge. That is
 * two factors in one, so no code is asked for beside it; name and password stay as the other way.
 */
const MOST = 12

/** Whose passkeys they are: the name that people type as the address. @throws ServiceError where that is a number */
function house(app: App): { rpID: string; origin: string } {
  const { hostname, port, origin } = new URL(app.config.publicUrl)
  // This machine goes by its name as well, so that the demo can be tried with passkeys.
  if (hostname === '127.0.0.1') return { rpID: 'localhost', origin: `http://localhost:${port}` }
  if (isIP(hostname.replace(/^\[|\]$/g, '')))
    throw new ServiceError(
      'refused',
      'Passkeys belong to an address with a name, and this one is a number.',
      'Ask the administrator for an address with a name.',
      { code: 'address-without-name' },
    )
  return { rpID: hostname, origin }
}

export async function listPasskeys(app: App, personId: string): Promise<Passkey[]> {
  const rows = await app.db.passkeys.findAll({
    where: { personId },
    order: [['createdAt', 'DESC']],
  })
  return rows.map(({ id, label, createdAt, lastUsedAt }) => ({
    id,
    label,
    createdAt: createdAt.toISOString(),
    lastUsedAt: lastUsedAt?.toISOString() ?? null,
  }))
}

/** What the authenticator of somebody who gives the password is asked to make a passkey from. */
export async function beginPasskey(
  app: App,
  person: Person,
  proof: Proof,
  address: string,
): Promise<PublicKeyCredentialCreationOptionsJSON> {
  const { rpID } = house(app)
  await reauthenticate(app, person, proof, address)
  const known = await app.db.passkeys.findAll({ where: { personId: person.id } })
  if (known.length >= MOST)
    throw new ServiceError(
      'refused',
      `You have ${MOST} passkeys already.`,
      'Take those off that you no longer use.',
      { code: 'too-many-passkeys' },
    )
  return generateRegistrationOptions({
    rpID,
    rpName: app.utility.current.name,
    userName: person.username,
    userDisplayName: person.name,
    userID: new TextEncoder().encode(person.id),
    attestationType: 'none',
    excludeCredentials: known.map(({ id }) => ({ id })),
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
  })
}

/** @param challenge what was asked, once @throws ServiceError refused when the answer is not to that */
export async function addPasskey(
  app: App,
  person: Person,
  label: string,
  answer: RegistrationResponseJSON,
  challenge: string | undefined,
): Promise<Passkey[]> {
  const { rpID, origin } = house(app)
  const made = await verifyRegistrationResponse({
    response: answer,
    expectedChallenge: challenge ?? '',
    expectedOrigin: origin,
    expectedRPID: rpID,
    requireUserVerification: true,
  }).catch(() => null)
  const credential = made?.verified && challenge ? made.registrationInfo.credential : null
  if (!credential)
    throw new ServiceError(
      'refused',
      'That is no answer to what was asked.',
      'Set the passkey up once more.',
      { code: 'passkey-answer-wrong' },
    )
  await audited(app, person, 'set up a passkey', label, (transaction) =>
    app.db.passkeys.create(
      {
        id: credential.id,
        personId: person.id,
        label,
        publicKey: Buffer.from(credential.publicKey).toString('base64url'),
        counter: credential.counter,
        createdAt: app.now().toJSDate(),
        lastUsedAt: null,
      },
      { transaction },
    ),
  )
  return listPasskeys(app, person.id)
}

export async function removePasskey(app: App, person: Person, id: string): Promise<void> {
  const row = await app.db.passkeys.findOne({ where: { id, personId: person.id } })
  if (!row) throw notFound('passkey')
  await audited(app, person, 'took off a passkey', row.label, (transaction) =>
    row.destroy({ transaction }),
  )
}

/** What any passkey of this house signs to sign its person in. */
export const passkeyChallenge = async (app: App): Promise<PublicKeyCredentialRequestOptionsJSON> =>
  generateAuthenticationOptions({ rpID: house(app).rpID, userVerification: 'required' })

/** @param challenge what was asked, once @throws ServiceError not-signed-in, whatever the reason */
export async function signInByPasskey(
  app: App,
  answer: AuthenticationResponseJSON,
  challenge: string | undefined,
): Promise<Person> {
  const row = await app.db.passkeys.findByPk(answer.id)
  const counter =
    row?.id === answer.id && challenge ? await newCounter(app, row, answer, challenge) : null
  const person = row && counter !== null ? await readPerson(app, row.personId) : null
  if (!row || counter === null || !person?.active)
    throw new ServiceError(
      'not-signed-in',
      'This passkey signs nobody in.',
      'Sign in with name and password.',
    )
  await row.update({ counter, lastUsedAt: app.now().toJSDate() })
  return person
}

/** How often the authenticator has signed, as it says; null where it did not sign this. */
async function newCounter(
  app: App,
  row: PasskeyRow,
  answer: AuthenticationResponseJSON,
  challenge: string,
): Promise<number | null> {
  const { rpID, origin } = house(app)
  // A counter that goes back is of a copy: the package refuses it.
  const proved = await verifyAuthenticationResponse({
    response: answer,
    expectedChallenge: challenge,
    expectedOrigin: origin,
    expectedRPID: rpID,
    requireUserVerification: true,
    credential: {
      id: row.id,
      publicKey: new Uint8Array(Buffer.from(row.publicKey, 'base64url')),
      counter: row.counter,
    },
  }).catch(() => null)
  return proved?.verified ? proved.authenticationInfo.newCounter : null
}
