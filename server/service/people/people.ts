import type { Id } from '@uvanta/core/schema'
import { hash, verify } from '@node-rs/argon2'
import type { EndedKeys, Licence, OwnUnits, Person, Role } from '@uvanta/contract'
import { QueryTypes, type Transaction } from 'sequelize'
import type { App } from '../../context'
import type { LicenceRow, PersonRow } from '../../store/tables'
import { audited } from '../audit'
import { notFound, ServiceError } from '../errors'
import { madeOnce } from '../madeOnce'
import { changedFields, changedValues } from '../register/changedFields'
import { changeVersioned } from '../register/versioned'
import { endSessions } from './endSessions'
import { revokeAll } from './revokeAll'
import { refuseWeak } from './weakPassword'
import { countAttempt, forgiveAttempt } from './wrongPasswords'

/** OWASP's recommendation for argon2id: 19 MiB, 2 passes. */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 }

export const hashPassword = (password: string) => hash(password, COST)

export async function checkPassword(
  app: App,
  personId: Id<'person'>,
  password: string,
  address: string,
): Promise<void> {
  const attempt = { person: personId, address }
  // Asked of somebody whose session lives: what strangers guess elsewhere keeps nobody from signing.
  await countAttempt(app, attempt, { isSignedIn: true })
  const row = await app.db.people.findByPk(personId)
  if (!row || !(await verify(row.passwordHash, password))) {
    throw new ServiceError('refused', 'That is not your password.', 'Type it again.', {
      code: 'password-wrong',
    })
  }
  await forgiveAttempt(app, attempt)
}

export async function changePassword(
  app: App,
  person: Person,
  current: string,
  next: string,
  from: {
    readonly address: string
    readonly session: string
    readonly keepDevice?: Id<'device'> | undefined
  },
): Promise<{ ended: EndedKeys }> {
  await checkPassword(app, person.id, current, from.address)
  refuseWeak(next, person.username, person.name)
  const passwordHash = await hashPassword(next)
  const ended = await audited(
    app,
    person,
    'changed the own password',
    person.username,
    async (transaction) => {
      await app.db.people.update(
        { passwordHash, mustChange: false },
        { where: { id: person.id }, transaction },
      )
      await endSessions(app, person.id, transaction, from.session)
      return revokeAll(app, person, person.id, transaction, from.keepDevice)
    },
  )
  return { ended }
}

/** The own units; nothing of anybody else changes by them. */
export async function setUnits(app: App, { id }: Person, units: OwnUnits): Promise<Person> {
  const chosen = Object.keys(units).length > 0 ? units : null
  await app.db.people.update({ units: chosen }, { where: { id } })
  return readPerson(app, id)
}

export async function readPerson(app: App, id: string): Promise<Person> {
  const [person] = await people(app, 'WHERE p.id = ?', [id])
  if (!person) throw notFound('person')
  return person
}

export const listPeople = (app: App): Promise<Person[]> => people(app, 'ORDER BY p.name', [])

export type AskedPerson = Pick<
  PersonRow,
  'id' | 'username' | 'name' | 'roles' | 'active' | 'version' | 'mustChange' | 'units'
> & {
  readonly secondFactor: 0 | 1
  /** Null where there is none. */
  readonly licences: Licence[] | null
}

/** A person `p` with the licences, those that expire last before the others, as a statement asks for it. */
export const PERSON_SQL = `p.id, p.username, p.name, p.roles, p.active, p.version, p.must_change AS mustChange, p.units,
  p.second_factor_since IS NOT NULL AS secondFactor,
  (SELECT JSON_ARRAYAGG(JSON_OBJECT('id', l.id, 'kind', l.kind, 'number', l.number,
     'issuedOn', l.issued_on, 'expiresOn', l.expires_on, 'version', l.version) ORDER BY l.expires_on DESC)
   FROM licence l WHERE l.person_id = p.id) AS licences`

async function people(app: App, which: string, values: readonly string[]): Promise<Person[]> {
  const rows = await app.db.sequelize.query<AskedPerson>(
    `SELECT ${PERSON_SQL} FROM person p ${which}`,
    { replacements: [...values], type: QueryTypes.SELECT },
  )
  return rows.map((row) => toPerson(app, row))
}

/** Roles that see and change what is not their own. */
const OFFICE: readonly Role[] = ['planner', 'reviewer', 'administrator']

export function toPerson(app: App, row: AskedPerson): Person {
  const { id, username, name, roles, active, version, mustChange, secondFactor, units } = row
  const needs = app.config.officeNeedsSecondFactor && roles.some((r) => OFFICE.includes(r))
  return {
    id,
    username,
    name,
    roles,
    active: Boolean(active),
    version,
    licences: row.licences ?? [],
    ...(mustChange ? { mustChangePassword: true } : {}),
    ...(secondFactor ? { secondFactor: true } : {}),
    ...(needs && !secondFactor ? { mustSetSecondFactor: true } : {}),
    ...(units ? { units } : {}),
  }
}

/** As the office adds somebody: with a password that nobody guesses, and that is changed at once. */
export function addPerson(
  app: App,
  actor: Person,
  input: Parameters<typeof createPerson>[2],
): Promise<Person> {
  refuseWeak(input.password, input.username, input.name)
  return createPerson(app, actor, input, true)
}

export async function createPerson(
  app: App,
  actor: Person,
  input: { id: string; username: string; name: string; roles: Role[]; password: string },
  mustChange = false,
): Promise<Person> {
  await madeOnce(app.db.people, input.id, () => insertPerson(app, actor, input, mustChange))
  return readPerson(app, input.id)
}

async function insertPerson(
  app: App,
  actor: Person,
  { password, ...input }: Parameters<typeof createPerson>[2],
  mustChange: boolean,
): Promise<void> {
  if (await app.db.people.findOne({ where: { username: input.username } })) {
    throw new ServiceError(
      'conflict',
      `The sign-in name ${input.username} is taken.`,
      'Choose another.',
      { code: 'username-taken' },
    )
  }
  const row = {
    ...input,
    passwordHash: await hashPassword(password),
    active: true,
    version: 1,
    mustChange,
    secondFactorSince: null,
    units: null,
  }
  await audited(app, actor, 'added a person', input.username, (transaction) =>
    app.db.people.create(row, { transaction }),
  )
}

export async function changePerson(
  app: App,
  actor: Person,
  id: string,
  version: number,
  input: {
    name?: string | undefined
    roles?: Role[] | undefined
    active?: boolean | undefined
    password?: string | undefined
  },
): Promise<Person> {
  const { password, ...rest } = input
  const leavesOffice =
    rest.active === false || (rest.roles && !rest.roles.includes('administrator'))
  if (id === actor.id && leavesOffice) {
    throw new ServiceError(
      'refused',
      'You cannot take the administrator’s rights from yourself.',
      'Ask another administrator.',
      { code: 'own-administrator' },
    )
  }
  const before = await readPerson(app, id)
  const gains = (rest.roles ?? []).filter((role) => !before.roles.includes(role))
  if (id === actor.id && gains.length > 0) {
    throw new ServiceError(
      'refused',
      `You cannot make yourself ${gains.join(' and ')}.`,
      'Ask another administrator.',
      { code: 'own-roles' },
    )
  }
  if (password) refuseWeak(password, before.username, before.name)
  const fields = password
    ? { ...rest, passwordHash: await hashPassword(password), mustChange: id !== actor.id }
    : rest
  const action = `changed ${changedFields(before, input)} of a person`
  const subject = `${before.name}, ${changedValues(before, rest)}`
  await audited(app, actor, action, subject, async (transaction) => {
    if (leavesOffice) await refuseLastAdministrator(app, id, transaction)
    await changeVersioned(app.db.people, 'person', id, version, fields, transaction)
    // Whoever is given a new password, or is let go, may have lost a device.
    if (password || rest.active === false) {
      await revokeAll(app, actor, id, transaction)
      await endSessions(app, id, transaction)
    }
  })
  return readPerson(app, id)
}

/**
 * Two who take the rights from each other at the same moment would leave nobody: the rows of all
 * administrators are held until the change is written.
 */
async function refuseLastAdministrator(
  app: App,
  leaving: string,
  transaction: Transaction,
): Promise<void> {
  const rows = await app.db.people.findAll({
    where: { active: true },
    attributes: ['id', 'roles'],
    order: [['id', 'ASC']],
    lock: true,
    transaction,
  })
  const others = rows.filter((r) => r.id !== leaving && r.roles.includes('administrator'))
  if (others.length > 0) return
  throw new ServiceError(
    'refused',
    'There would be no administrator left.',
    'Make somebody else administrator first.',
    { code: 'last-administrator' },
  )
}

export async function addLicence(
  app: App,
  actor: Person,
  personId: Id<'person'>,
  input: Omit<LicenceRow, 'personId' | 'version'>,
): Promise<Person> {
  const { name } = await readPerson(app, personId)
  const row = { ...input, personId, version: 1 }
  await madeOnce(app.db.licences, input.id, () =>
    audited(app, actor, `entered licence ${input.number}`, name, (transaction) =>
      app.db.licences.create(row, { transaction }),
    ),
  )
  return readPerson(app, personId)
}

export async function changeLicence(
  app: App,
  actor: Person,
  id: string,
  version: number,
  input: {
    number?: string | undefined
    issuedOn?: string | undefined
    expiresOn?: string | undefined
  },
): Promise<Person> {
  const licence = await app.db.licences.findByPk(id)
  if (!licence) throw notFound('licence')
  if ((input.issuedOn ?? licence.issuedOn) > (input.expiresOn ?? licence.expiresOn)) {
    throw new ServiceError(
      'invalid',
      'The licence would expire before it is issued.',
      'Check both dates.',
      { code: 'dates-reversed' },
    )
  }
  const { name } = await readPerson(app, licence.personId)
  const subject = `${name}, ${changedValues(licence.get({ plain: true }), input)}`
  await audited(app, actor, `changed licence ${licence.number}`, subject, (transaction) =>
    changeVersioned(app.db.licences, 'licence', id, version, input, transaction),
  )
  return readPerson(app, licence.personId)
}

/**
 * Makes somebody administrator from the machine itself: the first one, or one who forgot the password.
 * @returns whether the person is new
 */
export async function makeAdministrator(
  app: App,
  username: string,
  password: string,
): Promise<boolean> {
  const machine = { id: app.newId(), name: 'The machine’s own console' } as Person
  const known = await app.db.people.findOne({ where: { username } })
  if (known) {
    const roles = [...new Set<Role>([...known.roles, 'administrator'])]
    await changePerson(app, machine, known.id, known.version, { roles, active: true, password })
  } else {
    const roles: Role[] = ['administrator']
    await addPerson(app, machine, { id: app.newId(), username, name: username, roles, password })
  }
  // Who stands at the machine has chosen it there, and nobody else; an authenticator may be lost.
  await app.db.secondFactors.destroy({ where: { personId: known?.id ?? '' } })
  await app.db.people.update(
    { mustChange: false, secondFactorSince: null },
    { where: { username } },
  )
  return !known
}
