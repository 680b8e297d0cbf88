import * as yup from 'yup'
import { licenceKinds } from '@uvanta/core/catalogue'
import { line, localDate, slug, strictObject, unitField, uuid } from '@uvanta/core/schema'
import { keyScopes } from './apiKeys'
import { endpoint, type Role, roles } from './endpoint'
import { idParams, list, password, personName, version } from './fields'

const username = () =>
  yup
    .string()
    .strict(true)
    .typeError('must be text')
    .matches(
      /^[a-z][a-z0-9.-]{1,39}$/,
      'must be 2 to 40 lower-case letters, digits, points or hyphens',
    )

/** Long enough to resist guessing, short enough to hash quickly. */
const newPassword = () =>
  yup
    .string()
    .strict(true)
    .typeError('must be text')
    .min(12, 'must have at least 12 characters')
    .max(200, 'must have at most 200 characters')

const roleList = () =>
  yup
    .array(yup.string<Role>().strict(true).oneOf(roles).required())
    .strict(true)
    .min(1, 'choose at least one role')
    .max(roles.length)

const houseUnitsSchema = yup.object({
  gaugePressure: unitField('gaugePressure').required(),
  differential: unitField('differential').required(),
})
/** Units that somebody reads and writes pressures in. */
export type HouseUnits = yup.InferType<typeof houseUnitsSchema>
/** What somebody has chosen instead of the units of the house. */
const ownUnits = () =>
  strictObject({
    gaugePressure: unitField('gaugePressure'),
    differential: unitField('differential'),
  })

export type OwnUnits = yup.InferType<ReturnType<typeof ownUnits>>

export const licenceSchema = yup.object({
  id: uuid<'licence'>().required(),
  kind: slug().required(),
  number: line(40).required(),
  issuedOn: localDate().required(),
  expiresOn: localDate().required(),
  version: version(),
})
export type Licence = yup.InferType<typeof licenceSchema>

export const personSchema = yup.object({
  id: uuid<'person'>().required(),
  username: username().required(),
  name: line(120).required(),
  roles: roleList().required(),
  active: yup.boolean().required(),
  version: version(),
  licences: yup.array(licenceSchema.required()).required(),
  /** The password is one that somebody else chose: nothing goes on until it is changed. */
  mustChangePassword: yup.boolean(),
  /** A code of an authenticator is asked for at sign-in. */
  secondFactor: yup.boolean(),
  /** There has to be a second factor, and there is none yet: nothing goes on until it is set up. */
  mustSetSecondFactor: yup.boolean(),
  /** Units of his own. */
  units: ownUnits().default(undefined).optional(),
  /** Of the key of another program: what it may read. */
  scopes: yup.array(yup.string().oneOf(keyScopes).required()).default(undefined).optional(),
})
export type Person = yup.InferType<typeof personSchema>

export const newPersonSchema = strictObject({
  id: uuid<'person'>().required(),
  username: username().required(),
  name: personName().required(),
  roles: roleList().required(),
  password: newPassword().required(),
})

/** A code of an authenticator or a recovery code, spaces and hyphens as typed. */
const code = () =>
  yup
    .string()
    .strict(true)
    .typeError('must be text')
    .matches(
      /^[0-9A-Za-z][0-9A-Za-z -]{4,18}[0-9A-Za-z]$/,
      'must be the 6 digits, or a recovery code',
    )

/** What a person types before a new way in is made, or one is removed; the code where there is a second factor. */
export const proof = { password: password().required(), code: code() }

const endedKeys = yup.object({
  devices: yup.array(yup.string().required()).required(),
  passkeys: yup.array(yup.string().required()).required(),
})
/** Device keys and passkeys that sign nobody in any longer, by their labels. */
export type EndedKeys = yup.InferType<typeof endedKeys>

const newSecondFactor = yup.object({
  /** What the authenticator holds, base 32. */
  secret: yup.string().required(),
  /** The same for a camera, otpauth://totp/… */
  uri: yup.string().required(),
})
/** What a new second factor is set up with. */
export type NewSecondFactor = yup.InferType<typeof newSecondFactor>

/** Licences that the register knows. */
const inOrder = (message: string, from: string, to: string) =>
  [
    'in-order',
    message,
    (v: Record<string, unknown> | undefined) => {
      const [a, b] = [v?.[from], v?.[to]]
      return typeof a !== 'string' || typeof b !== 'string' || a <= b
    },
  ] as const

const sessionLine = yup.object({
  /** What it is called; it signs nobody in. */
  id: yup.string().required(),
  begunAt: yup.string().required(),
  usedAt: yup.string().required(),
  /** Browser and system, in words. */
  device: yup.string().required(),
  /** It is the one that asks. */
  here: yup.boolean().required(),
})
/** Where somebody is signed in. */
export type SessionLine = yup.InferType<typeof sessionLine>

export const session = {
  signIn: endpoint({
    method: 'post',
    path: '/api/v1/session',
    summary: 'Sign in',
    tag: 'Session',
    access: 'public',
    body: strictObject({
      username: username().required(),
      password: password().required(),
      code: code(),
    }),
    response: personSchema,
  }),
  signOut: endpoint({
    method: 'delete',
    path: '/api/v1/session',
    summary: 'Sign out',
    tag: 'Session',
    access: 'public',
  }),
  me: endpoint({
    method: 'get',
    path: '/api/v1/session',
    summary: 'Who is signed in, if anyone',
    tag: 'Session',
    access: 'public',
    response: yup.object({
      person: personSchema.nullable().default(null),
      /** Legal date of the utility. */
      today: localDate().required(),
      /** Units of whoever is signed in: his own, else those of the house. */
      units: houseUnitsSchema.required(),
      house: houseUnitsSchema.required(),
      /** The utility, as it stands on certificates. */
      utility: yup.string().defined(),
      /** Whether certificates can be issued: every setting of the utility is made. */
      isSetUp: yup.boolean().required(),
    }),
  }),
  changePassword: endpoint({
    method: 'post',
    path: '/api/v1/session/password',
    summary: 'Change the own password',
    tag: 'Session',
    access: 'signed-in',
    body: strictObject({
      current: password().required(),
      next: newPassword().required(),
      keepDevice: uuid<'device'>(),
    }),
    response: yup.object({ ended: endedKeys.required() }),
  }),
  setUnits: endpoint({
    method: 'put',
    path: '/api/v1/session/units',
    summary: 'Choose the own units; what is left away is as in the house',
    tag: 'Session',
    access: 'signed-in',
    body: ownUnits(),
    response: personSchema,
  }),
  beginSecondFactor: endpoint({
    method: 'post',
    path: '/api/v1/session/second-factor',
    summary: 'Begin to set up a second factor of the own',
    tag: 'Session',
    access: 'signed-in',
    body: strictObject({ password: password().required() }),
    response: newSecondFactor,
  }),
  confirmSecondFactor: endpoint({
    method: 'post',
    path: '/api/v1/session/second-factor/confirm',
    summary: 'Confirm the own second factor by a code of it; answers recovery codes, once',
    tag: 'Session',
    access: 'signed-in',
    body: strictObject({ code: code().required(), keepDevice: uuid<'device'>() }),
    response: yup.object({
      recovery: yup.array(yup.string().required()).required(),
      ended: endedKeys.required(),
    }),
  }),
  removeSecondFactor: endpoint({
    method: 'post',
    path: '/api/v1/session/second-factor/remove',
    summary: 'Remove the own second factor, by the password and a code of it',
    tag: 'Session',
    access: 'signed-in',
    body: strictObject(proof),
  }),
  list: endpoint({
    method: 'get',
    path: '/api/v1/sessions',
    summary: 'Where the own name is signed in',
    tag: 'Session',
    access: 'signed-in',
    response: list(sessionLine),
  }),
  end: endpoint({
    method: 'delete',
    path: '/api/v1/sessions/{id}',
    summary: 'Sign the own name out somewhere',
    tag: 'Session',
    access: 'signed-in',
    params: strictObject({
      id: yup
        .string()
        .strict(true)
        .matches(/^[0-9a-f]{64}$/, 'must be the name of a session')
        .required(),
    }),
  }),
  endOthers: endpoint({
    method: 'delete',
    path: '/api/v1/sessions',
    summary: 'Sign the own name out everywhere but here, and end its device keys and passkeys',
    tag: 'Session',
    access: 'signed-in',
    query: strictObject({ keepDevice: uuid<'device'>() }),
    response: yup.object({ ended: endedKeys.required() }),
  }),
}

const adminOnly = ['administrator'] as const

export const people = {
  list: endpoint({
    method: 'get',
    path: '/api/v1/people',
    summary: 'People with their licences',
    tag: 'People',
    access: ['administrator', 'planner', 'reviewer'],
    response: list(personSchema),
  }),
  create: endpoint({
    method: 'post',
    path: '/api/v1/people',
    summary: 'Add a person',
    tag: 'People',
    access: adminOnly,
    body: newPersonSchema,
    response: personSchema,
  }),
  change: endpoint({
    method: 'patch',
    path: '/api/v1/people/{id}',
    summary: 'Change a person',
    tag: 'People',
    access: adminOnly,
    versioned: true,
    params: idParams<'person'>(),
    body: strictObject({
      name: personName(),
      roles: roleList(),
      active: yup.boolean().strict(true),
      password: newPassword(),
    }),
    response: personSchema,
  }),
  removeSecondFactor: endpoint({
    method: 'delete',
    path: '/api/v1/people/{id}/second-factor',
    summary: 'Take the second factor off somebody who lost it',
    tag: 'People',
    access: adminOnly,
    params: idParams<'person'>(),
  }),
  addLicence: endpoint({
    method: 'post',
    path: '/api/v1/people/{id}/licences',
    summary: 'Enter a licence',
    tag: 'People',
    access: adminOnly,
    params: idParams<'person'>(),
    body: strictObject({
      id: uuid<'licence'>().required(),
      kind: yup
        .string()
        .strict(true)
        .oneOf(Object.keys(licenceKinds) as (keyof typeof licenceKinds)[])
        .required(),
      number: line(40).required(),
      issuedOn: localDate().required(),
      expiresOn: localDate().required(),
    }).test(
      ...inOrder(
        'the licence expires before it is issued: check both dates',
        'issuedOn',
        'expiresOn',
      ),
    ),
    response: personSchema,
  }),
  changeLicence: endpoint({
    method: 'patch',
    path: '/api/v1/licences/{id}',
    summary: 'Change a licence, as its renewal',
    tag: 'People',
    access: adminOnly,
    versioned: true,
    params: idParams<'licence'>(),
    body: strictObject({ number: line(40), issuedOn: localDate(), expiresOn: localDate() }).test(
      ...inOrder(
        'the licence expires before it is issued: check both dates',
        'issuedOn',
        'expiresOn',
      ),
    ),
    response: personSchema,
  }),
}

export { licenceKinds }
