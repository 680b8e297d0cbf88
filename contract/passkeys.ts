import * as yup from 'yup'
import { line, prose, strictObject } from '@uvanta/core/schema'
import { endpoint } from './endpoint'
import { list } from './fields'
import { personSchema, proof } from './people'

/** The name that an authenticator gave a passkey, base64url. */
const passkeyId = () => line(700).matches(/^[\w-]+$/, 'must be the name of a passkey, in base64url')

const passkeySchema = yup.object({
  id: passkeyId().required(),
  label: line(80).required(),
  createdAt: yup.string().required(),
  /** Null while nobody has signed in with it. */
  lastUsedAt: yup.string().nullable().defined(),
})
/** A key in an authenticator, which signs its person in by itself: who holds it proved himself to it. */
export type Passkey = yup.InferType<typeof passkeySchema>

/** What an authenticator is asked, as WebAuthn words it. */
const asked = yup
  .mixed<object>()
  .required()
  .meta({ jsonSchema: { type: 'object' } })

const BYTES = 8_000
const bytes = () => prose(BYTES).matches(/^[\w-]*$/, 'must be base64url')
/** What an authenticator answered, as WebAuthn words it; what stands in it is checked by its signature. */
const answered = <R extends yup.ObjectShape>(response: R) =>
  strictObject({
    id: passkeyId().required(),
    rawId: passkeyId().required(),
    type: yup
      .string()
      .strict(true)
      .oneOf(['public-key'] as const)
      .required(),
    authenticatorAttachment: line(40),
    clientExtensionResults: yup.object().required(),
    response: yup.object(response).required(),
  })

export const passkeys = {
  list: endpoint({
    method: 'get',
    path: '/api/v1/passkeys',
    summary: 'The own passkeys',
    tag: 'Session',
    access: 'signed-in',
    response: list(passkeySchema),
  }),
  begin: endpoint({
    method: 'post',
    path: '/api/v1/passkeys/begin',
    summary: 'Begin to set up a passkey of the own, with the password',
    tag: 'Session',
    access: 'signed-in',
    body: strictObject(proof),
    response: asked,
  }),
  add: endpoint({
    method: 'post',
    path: '/api/v1/passkeys',
    summary: 'Take up the passkey that an authenticator has made',
    tag: 'Session',
    access: 'signed-in',
    body: strictObject({
      label: line(80).required(),
      answer: answered({
        clientDataJSON: bytes().required(),
        attestationObject: bytes().required(),
        authenticatorData: bytes(),
        transports: yup.array(line(40).required()).max(10),
        publicKeyAlgorithm: yup.number(),
        publicKey: bytes(),
      }).required(),
    }),
    response: list(passkeySchema),
  }),
  remove: endpoint({
    method: 'delete',
    path: '/api/v1/passkeys/{id}',
    summary: 'Take an own passkey off',
    tag: 'Session',
    access: 'signed-in',
    params: strictObject({ id: passkeyId().required() }),
  }),
  challenge: endpoint({
    method: 'post',
    path: '/api/v1/session/passkey/begin',
    summary: 'Ask for what a passkey signs to sign its person in',
    tag: 'Session',
    access: 'public',
    response: asked,
  }),
  signIn: endpoint({
    method: 'post',
    path: '/api/v1/session/passkey',
    summary: 'Sign in with a passkey',
    tag: 'Session',
    access: 'public',
    body: answered({
      clientDataJSON: bytes().required(),
      authenticatorData: bytes().required(),
      signature: bytes().required(),
      userHandle: bytes(),
    }),
    response: personSchema,
  }),
}
