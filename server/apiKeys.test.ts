import supertest from 'supertest'
import { v7 as uuidv7 } from 'uuid'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { type Agent, codeOf, makeTestApp, populate, serve, signedIn } from './testing/app'

let app: App
let server: ReturnType<typeof serve>
let administrator: Agent
beforeAll(async () => {
  app = await makeTestApp()
  await populate(app)
  server = serve(app)
  administrator = await signedIn(server, 'administrator')
})
const make = async (name: string, scopes: readonly string[] = ['register', 'certificates']) =>
  (await administrator.post('/api/v1/keys').send({ id: uuidv7(), name, scopes }).expect(200)).body
const read = (path: string, secret: string) =>
  supertest(server).get(path).set('Authorization', `Bearer ${secret}`)

describe('a key of another program', () => {
  it('reads what a reviewer reads', async () => {
    const { secret } = await make('Map of the network')
    const { body } = await read('/api/v1/equipment', secret).expect(200)
    expect(body.items.length).toBeGreaterThan(0)
    await read('/api/v1/certificates', secret).expect(200)
    const refused = await read('/api/v1/keys', secret).expect(403)
    expect(codeOf(refused)).toBe('forbidden')
  })
  it('reads what it was made for, people never, and contacts where they were asked for', async () => {
    const { secret } = await make('Certificates alone', ['certificates'])
    await read('/api/v1/certificates', secret).expect(200)
    for (const path of ['equipment', 'visits', 'stock', 'people', 'customers', 'gauges'])
      expect([path, codeOf(await read(`/api/v1/${path}`, secret).expect(403))]).toEqual([
        path,
        'key-scope',
      ])
    const customersBy = async (scopes: string[]) =>
      (await read('/api/v1/customers', (await make('Map', scopes)).secret).expect(200)).body
        .items as {
        contact: string
        phone: string
      }[]
    await app.db.customers.update({ contact: 'Ada Quill', phone: '555 0133' }, { where: {} })
    const known = await customersBy(['register', 'contacts'])
    expect(known.some((c) => c.contact || c.phone)).toBe(true)
    for (const c of await customersBy(['register'])) expect([c.contact, c.phone]).toEqual(['', ''])
  })
  it('is made for something', async () => {
    const asked = await administrator
      .post('/api/v1/keys')
      .send({ id: uuidv7(), name: 'Nothing', scopes: [] })
    expect(asked.status).toBe(422)
  })
  it('changes nothing, whatever it asks for', async () => {
    const { secret } = await make('Writes')
    const asked = await supertest(server)
      .post('/api/v1/customers')
      .set('Authorization', `Bearer ${secret}`)
      .send({ id: uuidv7(), name: 'Nobody' })
    expect([asked.status, asked.body.why]).toEqual([403, 'A key only reads.'])
  })
  it('is in the database as its hash alone, and its secret is said once', async () => {
    const { key, secret } = await make('Once')
    const rows = await app.db.apiKeys.findAll()
    expect(JSON.stringify(rows)).not.toContain(secret)
    const again = await administrator
      .post('/api/v1/keys')
      .send({ id: key.id, name: 'Once', scopes: ['stock'] })
    expect(again.status).toBe(409)
    const { items } = (await administrator.get('/api/v1/keys').expect(200)).body
    expect(JSON.stringify(items)).not.toContain(secret)
  })
  it('counts no more once it is revoked, which is written down', async () => {
    const { key, secret } = await make('Lost')
    await read('/api/v1/equipment', secret).expect(200)
    await administrator.delete(`/api/v1/keys/${key.id}`).expect(204)
    await read('/api/v1/equipment', secret).expect(401)
    await read('/api/v1/equipment', 'uvk_made-up').expect(401)
    const { items } = (await administrator.get('/api/v1/keys')).body
    const row = items.find((k: { id: string }) => k.id === key.id)
    expect(row.revokedAt).not.toBeNull()
    expect(row.lastUsedAt).not.toBeNull()
    const actions = (await administrator.get('/api/v1/audit')).body.items.map(
      (l: { action: string; subject: string }) => `${l.action} ${l.subject}`,
    )
    expect(actions).toContain('revoked a key Lost')
  })
  it('beside somebody who is signed in stands for itself, not for him', async () => {
    const { secret } = await make('Beside')
    const { status } = await administrator
      .get('/api/v1/keys')
      .set('Authorization', `Bearer ${secret}`)
    expect(status).toBe(403)
  })
})
