import { randomBytes, webcrypto } from 'node:crypto'
import { type Device, type DevicePublicKey, type Person, signInText } from '@uvanta/contract'
import { Op } from 'sequelize'
import type { App } from '../../context'
import type { DeviceKeyRow } from '../../store/tables'
import { audited } from '../audit'
import { forbidden, notFound, ServiceError } from '../errors'
import { readPerson } from './people'
import { type Proof, reauthenticate } from './reauthenticate'

const CURVE = { name: 'ECDSA', namedCurve: 'P-256' } as const
const BY = { name: 'ECDSA', hash: 'SHA-256' } as const
/** Devices of one person at once: phone, tablet, and some that were lost and not revoked. */
const MOST = 12

export async function listDevices(app: App, personId: string): Promise<Device[]> {
  const rows = await app.db.deviceKeys.findAll({
    where: { personId },
    order: [['registeredAt', 'DESC']],
  })
  return rows.map(toDevice)
}

/** Registers the key of a device for whoever gives the password. Registering twice does no harm. */
export async function registerDevice(
  app: App,
  actor: Person,
  input: { id: string; label: string; publicKey: DevicePublicKey } & Proof,
  address: string,
): Promise<Device> {
  await reauthenticate(app, actor, input, address)
  const known = await app.db.deviceKeys.findByPk(input.id)
  if (known) {
    if (known.personId !== actor.id) throw forbidden('That device is another’s.', 'Make a new key.')
    return toDevice(known)
  }
  await keyFrom(input.publicKey).catch(() => {
    throw new ServiceError('invalid', 'That is no key of the curve P-256.', 'Make a new one.', {
      code: 'key-malformed',
    })
  })
  const counting = await app.db.deviceKeys.count({
    where: { personId: actor.id, revokedAt: null },
  })
  if (counting >= MOST) {
    throw new ServiceError(
      'refused',
      `You have ${MOST} devices already.`,
      'Revoke those that you no longer use.',
      { code: 'too-many-devices', most: MOST },
    )
  }
  await refuseUsedKey(app, input)
  const { password: _, code: __, ...key } = input
  const row = {
    ...key,
    personId: actor.id,
    registeredAt: app.now().toJSDate(),
    revokedAt: null,
    revokedBy: null,
  }
  await audited(app, actor, 'registered a device', input.label, (transaction) =>
    app.db.deviceKeys.create(row, { transaction }),
  )
  return readDevice(app, input.id)
}

/** One public key belongs to one device of one person, for good: a revoked one does not come back under another id. */
async function refuseUsedKey(
  app: App,
  { id, publicKey }: { id: string; publicKey: DevicePublicKey },
): Promise<void> {
  // Of JSON columns both halves are compared here: there are a few keys to a person, and none has two.
  const known = await app.db.deviceKeys.findAll({ where: { id: { [Op.ne]: id } } })
  const used = known.some(({ publicKey: k }) => k.x === publicKey.x && k.y === publicKey.y)
  if (used)
    throw new ServiceError('refused', 'This key is registered already.', 'Make a new one.', {
      code: 'key-used',
    })
}

/** From now on nothing that the device signs counts; what arrived before stands. */
export async function revokeDevice(app: App, actor: Person, id: string): Promise<void> {
  const row = await app.db.deviceKeys.findByPk(id)
  if (!row) throw notFound('device')
  if (row.personId !== actor.id && !actor.roles.includes('administrator')) {
    throw forbidden('That device is another’s.', 'Ask the administrator to revoke it.')
  }
  if (row.revokedAt) return
  await audited(app, actor, 'revoked a device', row.label, (transaction) =>
    app.db.deviceKeys.update(
      { revokedAt: app.now().toJSDate(), revokedBy: actor.name },
      { where: { id }, transaction },
    ),
  )
}

/** @throws ServiceError refused when the key does not count, is another’s, or did not sign that text */
export async function checkSignature(
  app: App,
  person: Pick<Person, 'id' | 'name'>,
  { device, signature, text }: { device: string; signature: string; text: string },
): Promise<void> {
  const row = await app.db.deviceKeys.findByPk(device)
  if (!row || row.personId !== person.id) {
    throw new ServiceError(
      'refused',
      `The key of this device is not registered for ${person.name}.`,
      'Sign with the password.',
      { code: 'unknown-key' },
    )
  }
  if (row.revokedAt) {
    throw new ServiceError(
      'refused',
      `The key of this device was revoked by ${row.revokedBy ?? 'the office'}.`,
      'Sign with the password.',
      { code: 'revoked-key' },
    )
  }
  if (!(await verified(row.publicKey, signature, text))) {
    throw new ServiceError(
      'refused',
      'The signature of the device is not of the visit as it stands here.',
      'Read the verdict again, then sign once more.',
      { code: 'wrong-signature' },
    )
  }
}

/** Signs the person of a device in. @throws ServiceError not-signed-in, whatever the reason */
export async function signInByKey(
  app: App,
  {
    device,
    signature,
    challenge,
  }: { device: string; signature: string; challenge: string | undefined },
): Promise<Person> {
  const row = await app.db.deviceKeys.findByPk(device)
  const person = row && !row.revokedAt ? await readPerson(app, row.personId) : null
  // Who asked for nothing to sign has nothing to answer.
  const right =
    row && challenge && (await verified(row.publicKey, signature, signInText(challenge)))
  if (person?.active && right) return person
  throw new ServiceError(
    'not-signed-in',
    'The key of this device does not count here.',
    'Sign in with the password.',
  )
}

/** What a device signs to sign in: of no use a second time. */
export const newChallenge = (): string => randomBytes(32).toString('base64url')

const keyFrom = (publicKey: DevicePublicKey) =>
  webcrypto.subtle.importKey('jwk', publicKey, CURVE, false, ['verify'])

async function verified(key: DevicePublicKey, signature: string, text: string): Promise<boolean> {
  const bytes = Buffer.from(signature, 'base64url')
  return webcrypto.subtle.verify(BY, await keyFrom(key), bytes, Buffer.from(text))
}

async function readDevice(app: App, id: string): Promise<Device> {
  const row = await app.db.deviceKeys.findByPk(id)
  if (!row) throw notFound('device')
  return toDevice(row)
}

const toDevice = ({ id, label, registeredAt, revokedAt, revokedBy }: DeviceKeyRow): Device => ({
  id,
  label,
  registeredAt: registeredAt.toISOString(),
  revokedAt: revokedAt?.toISOString() ?? null,
  revokedBy,
})
