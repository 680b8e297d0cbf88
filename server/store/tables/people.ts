import type { DevicePublicKey, KeyScope, OwnUnits, Role } from '@uvanta/contract'
import {
  belongsTo,
  day,
  flag,
  hash,
  int,
  json,
  key,
  moment,
  nullable,
  since,
  text,
  unique,
  uuid,
  version,
  withDefault,
} from '../column'
import { type RowOf, table } from '../table'

export const person = table('person', {
  id: key(uuid<'person'>()),
  username: unique(text(40)),
  name: text(120),
  roles: json<Role[]>(),
  passwordHash: text(255),
  active: withDefault(flag(), true),
  version: version(),
  /** The password was chosen by somebody else. */
  mustChange: since('person-must-change', withDefault(flag(), false)),
  /** Since when a code is asked for at sign-in. */
  secondFactorSince: since('person-second-factor', nullable(moment())),
  /** Units instead of those of the house. */
  units: since('person-units', nullable(json<OwnUnits>())),
})
export type PersonRow = RowOf<typeof person>

/** What codes of an authenticator are checked by. */
export const secondFactor = table('second_factor', {
  personId: belongsTo(key(uuid<'person'>()), 'person', 'person', 'secondFactor'),
  /** In a box that the database alone does not open. */
  secret: text(255),
  /** Time step of the last code that was taken: none is taken twice. */
  lastStep: int(),
  /** Hashes of the recovery codes that are left. */
  recovery: json<string[]>(),
})
export type SecondFactorRow = RowOf<typeof secondFactor>

export const licence = table('licence', {
  id: key(uuid<'licence'>()),
  personId: belongsTo(uuid<'person'>(), 'person', 'person', 'licences'),
  kind: text(80),
  number: text(40),
  issuedOn: day(),
  expiresOn: day(),
  version: version(),
})
export type LicenceRow = RowOf<typeof licence>

/** Public keys of devices: what they signed is checked by them, revoked or not. */
export const deviceKey = table(
  'device_key',
  {
    id: key(uuid<'device'>()),
    personId: belongsTo(uuid<'person'>(), 'person', 'person', 'devices'),
    label: text(80),
    publicKey: json<DevicePublicKey>(),
    registeredAt: moment(),
    revokedAt: nullable(moment()),
    revokedBy: nullable(text(120)),
  },
  { keys: ['INDEX (person_id)'] },
)
export type DeviceKeyRow = RowOf<typeof deviceKey>

/** Public keys of authenticators, which sign their person in. */
export const passkey = table(
  'passkey',
  {
    /** As the authenticator calls it, base64url. */
    id: key(text(700)),
    personId: belongsTo(uuid<'person'>(), 'person', 'person', 'passkeys'),
    label: text(80),
    /** COSE, in base64url. */
    publicKey: text(2_000),
    /** How often it has signed, where it counts. */
    counter: int(),
    createdAt: moment(),
    lastUsedAt: nullable(moment()),
  },
  { keys: ['INDEX (person_id)'] },
)
export type PasskeyRow = RowOf<typeof passkey>

/** Keys with which other programs read; of the secret there is the hash alone. */
export const apiKey = table('api_key', {
  id: key(uuid<'apiKey'>()),
  name: text(80),
  hash: unique(hash()),
  createdAt: moment(),
  createdBy: text(120),
  lastUsedAt: nullable(moment()),
  revokedAt: nullable(moment()),
  /** What it may read; null for a key from before there were scopes, which reads all of them. */
  scopes: since('api_key-scopes', nullable(json<KeyScope[]>())),
})
export type ApiKeyRow = RowOf<typeof apiKey>

/** How often, since when: a window of time for whoever is counted. */
const counter = { subject: key(text(120)), count: int(), since: moment() }
/** Under a person, an address, or both together. */
export const wrongPassword = table('wrong_password', counter)
/** Under what is asked for, and who or whence asks. */
export const requestCount = table('request_count', counter)
