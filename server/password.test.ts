import supertest from 'supertest'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { makeAdministrator } from './service/people/people'
import { type Agent, makeTestApp, PASSWORD, populate, serve, signedIn, codeOf } from './testing/app'
import { draft, SIGNATURE } from './testing/visit'

let app: App
let server: ReturnType<typeof serve>
beforeAll(async () => {
  app = await makeTestApp()
  await populate(app)
  server = serve(app)
})

const me = async (agent: Agent) => (await agent.get('/api/v1/session')).body.person?.username

describe('a new password', () => {
  it.each([
    'aaaaaaaaaaaa',
    'password1234',
    'larkhaven-demo',
    '            ',
    'qwertyuiop12',
    'testertester1',
  ])('“%s” is refused, with what to do', async (next) => {
    const agent = await signedIn(server, 'tester')
    const { body } = await agent
      .post('/api/v1/session/password')
      .send({ current: PASSWORD, next })
      .expect(422)
    expect(codeOf({ body })).toBe('password-weak')
    const administrator = await signedIn(server, 'administrator')
    const person = {
      id: crypto.randomUUID(),
      username: 'newcomer',
      name: 'New',
      roles: ['trainee'],
    }
    await administrator
      .post('/api/v1/people')
      .send({ ...person, password: next })
      .expect(422)
  })
  it('makes an administrator from the machine itself, or helps one who forgot it', async () => {
    expect(await makeAdministrator(app, 'first', 'four unlike words stand here')).toBe(true)
    const first = supertest.agent(server)
    const signIn = (password: string) =>
      first.post('/api/v1/session').send({ username: 'first', password })
    expect((await signIn('four unlike words stand here').expect(200)).body.roles).toEqual([
      'administrator',
    ])
    // Chosen at the machine itself, it is nobody else's.
    await first.get('/api/v1/people').expect(200)
    expect(await makeAdministrator(app, 'first', 'and now there are others')).toBe(false)
    expect(await me(first)).toBeUndefined()
    await signIn('and now there are others').expect(200)
    await first.get('/api/v1/people').expect(200)
  })
})

describe('a password that somebody else chose', () => {
  it('opens nothing until it is changed, and again once the office has set another', async () => {
    const administrator = await signedIn(server, 'administrator')
    const given = 'seven kettles under ground'
    const person = {
      id: crypto.randomUUID(),
      username: 'given',
      name: 'Given',
      roles: ['technician'],
      password: given,
    }
    await administrator.post('/api/v1/people').send(person).expect(200)
    const agent = supertest.agent(server)
    const enter = (password: string) =>
      agent.post('/api/v1/session').send({ username: 'given', password }).expect(200)
    expect((await enter(given)).body.mustChangePassword).toBe(true)
    for (const path of ['/api/v1/library', '/api/v1/visits', '/api/v1/certificates']) {
      expect(codeOf(await agent.get(path).expect(403))).toBe('password-to-change')
    }
    const own = 'nobody knows these four words'
    await agent.post('/api/v1/session/password').send({ current: given, next: own }).expect(200)
    await agent.get('/api/v1/visits').expect(200)
    await administrator
      .patch(`/api/v1/people/${person.id}`)
      .set('If-Match', '"1"')
      .send({ password: given })
      .expect(200)
    await enter(given)
    await agent.get('/api/v1/visits').expect(403)
  })
})

describe('the password', () => {
  it('is kept as argon2id makes it, with 19 MiB and 2 passes, and differently for each', async () => {
    const kept = (await app.db.people.findAll()).map((row) => row.passwordHash)
    for (const hash of kept) expect(hash).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/)
    expect(new Set(kept).size).toBe(kept.length)
  })
  it('is changed with the present one, and the old one ends', async () => {
    const agent = await signedIn(server, 'other')
    const change = (current: string, next: string) =>
      agent.post('/api/v1/session/password').send({ current, next })
    expect((await change('wrong', 'a new long password')).status).toBe(409)
    expect(codeOf(await change(PASSWORD, 'short'))).toBe('invalid-input')
    await change(PASSWORD, 'a new long password').expect(200)
    await supertest(server)
      .post('/api/v1/session')
      .send({ username: 'other', password: PASSWORD })
      .expect(401)
    await supertest(server)
      .post('/api/v1/session')
      .send({ username: 'other', password: 'a new long password' })
      .expect(200)
  })
})

describe('a password that is asked for in a session', () => {
  it('is throttled like one that begins it', async () => {
    const agent = await signedIn(server, 'tester')
    const change = () =>
      agent.post('/api/v1/session/password').send({ current: 'wrong', next: 'a new long password' })
    for (let n = 0; n < 8; n++) expect((await change()).status).toBe(409)
    expect((await change()).status).toBe(429)
    const sign = agent.post(`/api/v1/visits/018f0000-0000-7000-8000-000000000000/sign`).send({
      expected: 1,
      password: PASSWORD,
      event: draft('signed', { signature: SIGNATURE, name: 'The tester', outcome: 'pass' }),
    })
    expect((await sign).status).toBe(429)
    await app.db.wrongPasswords.destroy({ where: {} })
  })
})
