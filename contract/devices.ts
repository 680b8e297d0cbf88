import * as yup from 'yup'
import { line, strictObject, uuid } from '@uvanta/core/schema'
import { endpoint } from './endpoint'
import { idParams, list } from './fields'
import { personSchema, proof } from './people'

/** A key of one person on one device: it signs visits and signs in where there is no line for a password. */
const deviceSchema = yup.object({
  id: uuid<'device'>().required(),
  label: line(80).required(),
  registeredAt: yup.string().required(),
  /** When and by whom it was revoked; null while it counts. */
  revokedAt: yup.string().nullable().defined(),
  revokedBy: yup.string().nullable().defined(),
})
export type Device = yup.InferType<typeof deviceSchema>

/** A public key for ECDSA over P-256, as JSON Web Key. */
const publicKeySchema = strictObject({
  kty: yup
    .string()
    .strict(true)
    .oneOf(['EC'] as const)
    .required(),
  crv: yup
    .string()
    .strict(true)
    .oneOf(['P-256'] as const)
    .required(),
  x: line(60)
    .matches(/^[\w-]{43}$/, 'must be a coordinate in base64url')
    .required(),
  y: line(60)
    .matches(/^[\w-]{43}$/, 'must be a coordinate in base64url')
    .required(),
})
export type DevicePublicKey = yup.InferType<typeof publicKeySchema>

const signature = () => line(120).matches(/^[\w-]{86}$/, 'must be a signature')

export const devices = {
  list: endpoint({
    method: 'get',
    path: '/api/v1/devices',
    summary: 'The own devices that may sign without a line',
    tag: 'Devices',
    access: 'signed-in',
    response: list(deviceSchema),
  }),
  ofPerson: endpoint({
    method: 'get',
    path: '/api/v1/people/{id}/devices',
    summary: 'The devices of a person',
    tag: 'Devices',
    access: ['administrator'],
    params: idParams<'person'>(),
    response: list(deviceSchema),
  }),
  register: endpoint({
    method: 'post',
    path: '/api/v1/devices',
    summary: 'Register the public key of a device, with the password',
    tag: 'Devices',
    access: 'signed-in',
    body: strictObject({
      id: uuid<'device'>().required(),
      label: line(80).required(),
      publicKey: publicKeySchema.required(),
      ...proof,
    }),
    response: deviceSchema,
  }),
  revoke: endpoint({
    method: 'delete',
    path: '/api/v1/devices/{id}',
    summary: 'Revoke a device: an own one, or anybody’s by the administrator',
    tag: 'Devices',
    access: 'signed-in',
    params: idParams<'device'>(),
  }),
  challenge: endpoint({
    method: 'post',
    path: '/api/v1/session/challenge',
    summary: 'Ask for what a device signs to sign its person in',
    tag: 'Session',
    access: 'public',
    response: yup.object({ challenge: yup.string().required() }),
  }),
  signIn: endpoint({
    method: 'post',
    path: '/api/v1/session/key',
    summary: 'Sign in with the key of a device',
    tag: 'Session',
    access: 'public',
    body: strictObject({ device: uuid<'device'>().required(), signature: signature().required() }),
    response: personSchema,
  }),
}
