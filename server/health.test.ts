import supertest from 'supertest'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { makeTestApp, populate, serve, signedIn } from './testing/app'

let app: App
let server: ReturnType<typeof serve>
beforeAll(async () => {
  app = await makeTestApp()
  await populate(app)
  server = serve(app)
})

describe('what a monitor asks', () => {
  it('the process answers, and can work, by which library', async () => {
    await supertest(server).get('/healthz').expect(200, 'ok\n')
    const { body } = await supertest(server).get('/readyz').expect(200)
    expect(body).toEqual({ database: true, library: expect.stringMatching(/^[0-9a-f]{12}$/) })
  })
  it('cannot work without its database, and says so', async () => {
    const gone = await makeTestApp()
    const alone = serve(gone)
    await gone.db.sequelize.close()
    await supertest(alone).get('/healthz').expect(200)
    const { body } = await supertest(alone).get('/readyz').expect(503)
    expect(body.database).toBe(false)
  })
  it('figures name the route and nobody’s id, for this machine alone', async () => {
    const agent = await signedIn(server, 'tester')
    const [equipment] = (await agent.get('/api/v1/equipment').expect(200)).body.items
    await agent.get(`/api/v1/equipment/${equipment.id}`).expect(200)
    const { text } = await supertest(server).get('/metrics').expect(200)
    expect(text).toMatch(/uvanta_http_seconds_count\{.*route="\/api\/v1\/equipment\/:id".*\} 1/)
    expect(text).toMatch(/^uvanta_database_up 1$/m)
    expect(text).toMatch(/^uvanta_nodejs_eventloop_lag_p99_seconds /m)
    expect(text).not.toContain(equipment.id)
    await supertest(server).get('/metrics').set('X-Forwarded-For', '203.0.113.5').expect(404)
  })
})

describe('an answer', () => {
  it('has an id to ask after it by, and is kept by nobody', async () => {
    const { headers } = await supertest(server).get('/api/v1/session').expect(200)
    expect(headers['x-request-id']).toMatch(/^[0-9a-f-]{36}$/)
    expect(headers['cache-control']).toBe('no-store')
  })
})

describe('the library', () => {
  it('is sent once: whoever has it is told that it is as it was', async () => {
    const agent = await signedIn(server, 'tester')
    const first = await agent.get('/api/v1/library').expect(200)
    expect(first.body.guides.length).toBe(app.shelf.library.guides.length)
    const { etag = '' } = first.headers
    expect(etag).toMatch(/^"/)
    await agent.get('/api/v1/library').set('If-None-Match', etag).expect(304)
    const plain = await agent.get('/api/v1/library').set('Accept-Encoding', 'identity').expect(200)
    expect(plain.headers['content-encoding']).toBeUndefined()
    expect(plain.body).toEqual(first.body)
  })
  it('is sent as small as the client takes it, what was in force before by itself', async () => {
    const agent = await signedIn(server, 'tester')
    const read = (path: string) => agent.get(path).set('Accept-Encoding', 'gzip, deflate, br')
    const { headers, body } = await read('/api/v1/library').expect(200)
    expect(headers['content-encoding']).toBe('br')
    expect(body.earlier).toBeUndefined()
    const earlier = await read('/api/v1/library/earlier').expect(200)
    expect(earlier.body).toEqual(JSON.parse(JSON.stringify(app.shelf.library.earlier)))
    const { etag = '' } = earlier.headers
    expect(etag).not.toBe(headers.etag)
    await agent.get('/api/v1/library/earlier').set('If-None-Match', etag).expect(304)
  })
})
