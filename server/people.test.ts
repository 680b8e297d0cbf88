import supertest from 'supertest'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { codeOf, makeTestApp, populate, serve, signedIn } from './testing/app'

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
    expect(codeOf(response)).toBe('forbidden')
  })
  it('an inactive person is out at once', async () => {
    const agent = await signedIn(server, 'trainee')
    await app.db.people.update({ active: false }, { where: { username: 'trainee' } })
    await agent.get('/api/v1/gauges').expect(401)
  })
})

describe('what an administrator may not do', () => {
  it('give a role to oneself', async () => {
    const root = await signedIn(server, 'administrator')
    const { body } = await root.get('/api/v1/people').expect(200)
    const people = body.items as {
      id: string
      username: string
      version: number
      roles: string[]
    }[]
    const mine = people.find((p) => p.username === 'administrator')!
    const answer = await root
      .patch(`/api/v1/people/${mine.id}`)
      .set('If-Match', `"${mine.version}"`)
      .send({ roles: [...mine.roles, 'technician'] })
    expect([answer.status, codeOf(answer)]).toEqual([409, 'own-roles'])
  })
  it.each([
    ['a Cyrillic О at its head', '\u041Edda Marrin', 422],
    ['a Greek ο in it', 'Petra H\u03BFlm', 422],
    ['one alphabet, with accents', 'Zoë Åkerlund', 200],
    ['another alphabet alone', 'Мария Иванова', 200],
  ])('call somebody by a name of %s', async (_, name, status) => {
    const root = await signedIn(server, 'administrator')
    const id = crypto.randomUUID()
    const person = { id, username: `p${id.slice(0, 8)}`, name, roles: ['trainee'] }
    const answer = await root
      .post('/api/v1/people')
      .send({ ...person, password: 'lanterns over the quiet sea' })
    expect(answer.status).toBe(status)
  })
})

describe('the audit', () => {
  it('says of gauges and customers what was and what is', async () => {
    const root = await signedIn(server, 'administrator')
    const gauges = await root.get('/api/v1/gauges').expect(200)
    const gauge = gauges.body.items[0] as { id: string; version: number; serial: string }
    await root
      .patch(`/api/v1/gauges/${gauge.id}`)
      .set('If-Match', `"${gauge.version}"`)
      .send({ active: false })
      .expect(200)
    const { body } = await root.get('/api/v1/audit').expect(200)
    const line = (body.items as { action: string; subject: string }[]).find((l) =>
      l.action.includes('of a gauge'),
    )
    expect(line?.subject).toMatch(/active: true → false/)
  })
})
