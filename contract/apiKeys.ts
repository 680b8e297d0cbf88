import * as yup from 'yup'
import { line, strictObject, uuid } from '@uvanta/core/schema'
import { endpoint } from './endpoint'
import { idParams, list } from './fields'

const adminOnly = ['administrator'] as const

/** What a key may read, each by itself. */
export const keyScopes = ['register', 'visits', 'certificates', 'stock', 'contacts'] as const
export type KeyScope = (typeof keyScopes)[number]
const scopeList = () =>
  yup.array(yup.string().strict(true).oneOf(keyScopes).required()).strict(true)

const apiKeySchema = yup.object({
  id: uuid<'apiKey'>().required(),
  /** What it is for. */
  name: line(80).required(),
  scopes: scopeList().required(),
  createdAt: yup.string().required(),
  createdBy: yup.string().required(),
  /** To the hour; null as long as nobody has used it. */
  lastUsedAt: yup.string().nullable().defined(),
  revokedAt: yup.string().nullable().defined(),
})
/** A key with which another program reads. */
export type ApiKey = yup.InferType<typeof apiKeySchema>

export const apiKeys = {
  list: endpoint({
    method: 'get',
    path: '/api/v1/keys',
    summary: 'Keys with which other programs read',
    tag: 'Keys',
    access: adminOnly,
    response: list(apiKeySchema),
  }),
  create: endpoint({
    method: 'post',
    path: '/api/v1/keys',
    summary: 'Make a key; its secret is answered once',
    tag: 'Keys',
    access: adminOnly,
    body: strictObject({
      id: uuid<'apiKey'>().required(),
      name: line(80).required(),
      scopes: scopeList().min(1, 'must name what the key may read').required(),
    }),
    response: yup.object({
      key: apiKeySchema.required(),
      /** Sent as `Authorization: Bearer …`. */
      secret: yup.string().required(),
    }),
  }),
  revoke: endpoint({
    method: 'delete',
    path: '/api/v1/keys/{id}',
    summary: 'Revoke a key',
    tag: 'Keys',
    access: adminOnly,
    params: idParams<'apiKey'>(),
  }),
}
