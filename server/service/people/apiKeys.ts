import { createHash, randomBytes } from 'node:crypto'
import { type ApiKey, type KeyScope, keyScopes, type Person } from '@uvanta/contract'
import type { Id } from '@uvanta/core/schema'
import type { App } from '../../context'
import type { ApiKeyRow } from '../../store/tables'
import { audited } from '../audit'
import { notFound, ServiceError } from '../errors'

/** So that a secret that got lost somewhere is known for one. */
const MARK = 'uvk_'
const HOUR_MS = 3_600_000

const hashOf = (secret: string) => createHash('sha256').update(secret).digest('hex')

export async function listApiKeys(app: App): Promise<ApiKey[]> {
  const rows = await app.db.apiKeys.findAll({ order: [['createdAt', 'DESC']] })
  return rows.map(toApiKey)
}

/** Makes a key. Its secret, 256 random bits, is answered here and kept nowhere. */
export async function createApiKey(
  app: App,
  actor: Person,
  input: { readonly id: string; readonly name: string; readonly scopes: readonly KeyScope[] },
): Promise<{ key: ApiKey; secret: string }> {
  if (await app.db.apiKeys.findByPk(input.id))
    throw new ServiceError(
      'conflict',
      'This key was made already, and its secret is shown once.',
      'Revoke it and make another.',
      { code: 'key-exists' },
    )
  const secret = `${MARK}${randomBytes(32).toString('base64url')}`
  const row = {
    id: input.id as Id<'apiKey'>,
    name: input.name,
    hash: hashOf(secret),
    createdAt: app.now().toJSDate(),
    createdBy: actor.name,
    lastUsedAt: null,
    revokedAt: null,
    scopes: [...input.scopes],
  }
  await audited(
    app,
    actor,
    'made a key for another program',
    `${input.name}, reads ${input.scopes.join(', ')}`,
    (transaction) => app.db.apiKeys.create(row, { transaction }),
  )
  return { key: toApiKey(row), secret }
}

/** Revokes a key, at once and for good. Revoking twice does no harm. */
export async function revokeApiKey(app: App, actor: Person, id: string): Promise<void> {
  const row = await app.db.apiKeys.findByPk(id)
  if (!row) throw notFound('key')
  if (row.revokedAt) return
  await audited(app, actor, 'revoked a key', row.name, (transaction) =>
    row.update({ revokedAt: app.now().toJSDate() }, { transaction }),
  )
}

/**
 * Who a key stands for: somebody who reads what a reviewer reads, as far as its scopes go, and changes nothing.
 * @throws ServiceError not-signed-in when no key has this secret, or it was revoked
 */
export async function personOfKey(app: App, secret: string): Promise<Person> {
  const row = await app.db.apiKeys.findOne({ where: { hash: hashOf(secret), revokedAt: null } })
  if (!row)
    throw new ServiceError('not-signed-in', 'No key counts with this secret.', 'Ask for a new one.')
  const now = app.now().toJSDate()
  if (now.getTime() - (row.lastUsedAt?.getTime() ?? 0) > HOUR_MS)
    await row.update({ lastUsedAt: now })
  return {
    id: row.id as string as Id<'person'>,
    username: 'key',
    name: `Key: ${row.name}`,
    roles: ['reviewer'],
    active: true,
    version: 1,
    licences: [],
    scopes: scopesOf(row),
  }
}

const scopesOf = ({ scopes }: Pick<ApiKeyRow, 'scopes'>): KeyScope[] => scopes ?? [...keyScopes]

function toApiKey(row: ApiKeyRow): ApiKey {
  const { id, name, createdBy } = row
  return {
    id,
    name,
    scopes: scopesOf(row),
    createdBy,
    createdAt: row.createdAt.toISOString(),
    lastUsedAt: row.lastUsedAt?.toISOString() ?? null,
    revokedAt: row.revokedAt?.toISOString() ?? null,
  }
}
