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

describe('the administrators', () => {
  it('do not take the rights from each other at the same moment, so that nobody is left', async () => {
    const root = await signedIn(server, 'administrator')
    const { body } = await root.get('/api/v1/people').expect(200)
    const people = body.items as { id: string; username: string; version: number }[]
    const mine = people.find((p) => p.username === 'administrator')!
    const second = crypto.randomUUID()
    const made = { id: second, username: 'second', name: 'Second', roles: ['administrator'] }
    const password = 'lanterns over the quiet sea'
    await root
      .post('/api/v1/people')
      .send({ ...made, password })
      .expect(200)
    await app.db.people.update({ mustChange: false }, { where: { id: second } })
    const other = supertest.agent(server)
    await other.post('/api/v1/session').send({ username: 'second', password }).expect(200)
    const statuses = await Promise.all([
      root
        .patch(`/api/v1/people/${second}`)
        .set('If-Match', '"1"')
        .send({ roles: ['planner'] }),
      other
        .patch(`/api/v1/people/${mine.id}`)
        .set('If-Match', `"${mine.version}"`)
        .send({ roles: ['planner'] }),
    ])
    const [done, refused] = statuses.map((s) => s.status).sort()
    expect(done).toBe(200)
    // Whoever comes so late that he is administrator no more is told that instead.
    expect([403, 409]).toContain(refused)
    const left = await app.db.people.findAll({ where: { active: true } })
    expect(left.filter((p) => p.roles.includes('administrator'))).toHaveLength(1)
    await app.db.people.update({ roles: ['administrator'] }, { where: { id: mine.id } })
  })
})

describe('who may do what', () => {
  it.each([
    ['tester', 'get', '/api/v1/people'],
    ['tester', 'get', '/api/v1/audit'],
    ['trainee', 'post', '/api/v1/equipment'],
    ['reviewer', 'post', '/api/v1/gauges'],
    ['administrator', 'post', '/api/v1/certificates/018f0000-0000-7000-8000-000000000000/void'],
  ] as const)('%s may not %s %s', async (who, method, path) => {
    const agent = await signedIn(server, who)
    const response = await agent[method](path).send({})
    expect(response.status).toBe(403)
    expect(response.body.detail).toMatch(/This is for the/)
  })
  it('an inactive person is out at once', async () => {
    const agent = await signedIn(server, 'trainee')
    await app.db.people.update({ active: false }, { where: { username: 'trainee' } })
    await agent.get('/api/v1/gauges').expect(401)
  })
})
