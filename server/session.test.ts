import { QueryTypes } from 'sequelize'
import supertest from 'supertest'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { openApp } from './app'
import { makeAdministrator } from './service/people/people'
import { deviceWords } from './service/people/sessions'
import { forgetOldAttempts } from './service/people/wrongPasswords'
import { type Agent, makeTestApp, PASSWORD, populate, serve, signedIn } from './testing/app'
import { draft, SIGNATURE } from './testing/visit'

let app: App
let server: ReturnType<typeof serve>
beforeAll(async () => {
  app = await makeTestApp()
  await populate(app)
  server = serve(app)
})

const me = async (agent: Agent) => (await agent.get('/api/v1/session')).body.person?.username

describe('a session', () => {
  const rows = () =>
    app.db.sequelize.query<{ sid: string; expires: Date }>('SELECT sid, expires FROM session', {
      type: QueryTypes.SELECT,
    })
  it('that has run out is none, though nobody has swept it away', async () => {
    const agent = await signedIn(server, 'trainee')
    expect(await me(agent)).toBe('trainee')
    await app.db.sequelize.query("UPDATE session SET expires = '2020-01-01'")
    expect(await me(agent)).toBeUndefined()
  })
  it('ends a day after it began, however busy it was', async () => {
    const agent = await signedIn(server, 'trainee')
    const now = app.now
    Object.assign(app, { now: () => now().plus({ hours: 23 }) })
    expect(await me(agent)).toBe('trainee')
    Object.assign(app, { now: () => now().plus({ hours: 25 }) })
    expect(await me(agent)).toBeUndefined()
    Object.assign(app, { now })
  })
  it('is not written anew for every look', async () => {
    const agent = await signedIn(server, 'trainee')
    await me(agent)
    const before = await rows()
    for (let n = 0; n < 5; n++) await me(agent)
    expect(await rows()).toEqual(before)
  })
  it('says the units of the person, else those of the house', async () => {
    const [agent, other] = [await signedIn(server, 'trainee'), await signedIn(server, 'other')]
    const units = async (of: Agent) => (await of.get('/api/v1/session')).body.units
    const set = (body: object) => agent.put('/api/v1/session/units').send(body)
    await set({ gaugePressure: 'kPa' }).expect(200)
    expect(await units(agent)).toEqual({ gaugePressure: 'kPa', differential: 'psi' })
    expect(await units(other)).toEqual({ gaugePressure: 'psi', differential: 'psi' })
    await set({ gaugePressure: 'furlong' }).expect(422)
    await set({}).expect(200)
    expect(await units(agent)).toEqual({ gaugePressure: 'psi', differential: 'psi' })
  })
  it('ends with a new password, but not for whoever chose it', async () => {
    const [here, elsewhere] = [await signedIn(server, 'other'), await signedIn(server, 'other')]
    const next = 'another long password'
    await here.post('/api/v1/session/password').send({ current: PASSWORD, next }).expect(204)
    expect(await me(here)).toBe('other')
    expect(await me(elsewhere)).toBeUndefined()
    const back = { current: next, next: PASSWORD }
    await here.post('/api/v1/session/password').send(back).expect(204)
  })
  it('ends when its person is given a password, or let go, and does not come back', async () => {
    const administrator = await signedIn(server, 'administrator')
    const people = (await administrator.get('/api/v1/people').expect(200)).body.items
    const { id } = people.find((p: { username: string }) => p.username === 'trainee')
    const change = async (fields: object) => {
      const { version } = (await administrator.get('/api/v1/people')).body.items.find(
        (p: { id: string }) => p.id === id,
      )
      await administrator
        .patch(`/api/v1/people/${id}`)
        .set('If-Match', `"${version}"`)
        .send(fields)
        .expect(200)
    }
    const first = await signedIn(server, 'trainee')
    await change({ password: `${PASSWORD} too` })
    expect(await me(first)).toBeUndefined()
    await change({ password: PASSWORD })
    const second = await signedIn(server, 'trainee')
    await change({ active: false })
    await change({ active: true })
    expect(await me(second)).toBeUndefined()
  })
})

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
    expect(body.detail).toMatch(/easily guessed.*Choose another/)
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
      const { body } = await agent.get(path).expect(403)
      expect(body.detail).toMatch(/chosen by somebody else.*Change it first/)
    }
    const own = 'nobody knows these four words'
    await agent.post('/api/v1/session/password').send({ current: given, next: own }).expect(204)
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

describe('the administrators', () => {
  it('do not take the rights from each other at the same moment, so that nobody is left', async () => {
    const root = await signedIn(server, 'administrator')
    const { body } = await root.get('/api/v1/people').expect(200)
    const people = body.items as { id: string; username: string; version: number }[]
    const mine = people.find((p) => p.username === 'administrator')!
    // The machine's own, of a test before, stays aside.
    await app.db.people.update({ active: false }, { where: { username: 'first' } })
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

describe('where somebody is signed in', () => {
  it('is listed, without what signs in, and ended from anywhere', async () => {
    const here = await signedIn(server, 'reviewer')
    const there = await signedIn(server, 'reviewer')
    const list = async () => (await here.get('/api/v1/sessions').expect(200)).body.items
    const lines = (await list()) as { id: string; here: boolean; device: string }[]
    expect(lines.filter((l) => l.here)).toHaveLength(1)
    const rowsInside = await app.db.sequelize.query<{ sid: string }>('SELECT sid FROM session', {
      type: QueryTypes.SELECT,
    })
    for (const { sid } of rowsInside) expect(JSON.stringify(lines)).not.toContain(sid)
    const [elsewhere] = lines.filter((l) => !l.here)
    // Nobody ends what is another's.
    const stranger = await signedIn(server, 'planner')
    await stranger.delete(`/api/v1/sessions/${elsewhere!.id}`).expect(404)
    await here.delete(`/api/v1/sessions/${elsewhere!.id}`).expect(204)
    expect(await me(there)).toBeUndefined()
    const third = await signedIn(server, 'reviewer')
    await here.delete('/api/v1/sessions').expect(204)
    expect(await me(third)).toBeUndefined()
    expect(await me(here)).toBe('reviewer')
  })
  it('says a browser and a system, and nothing finer', () => {
    const chromium =
      'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.1 Safari/537.36'
    expect(deviceWords(chromium)).toBe('Chromium on Linux')
    expect(
      deviceWords('Mozilla/5.0 (Android 16; Mobile; rv:150.0) Gecko/150.0 Firefox/150.0'),
    ).toBe('Firefox on Android')
    expect(deviceWords('curl/8')).toBe('another program')
    expect(deviceWords(undefined)).toBe('another program')
  })
})

describe('signing in', () => {
  it('stands in the audit trail, as does a wrong password, and never the name that nobody has', async () => {
    const agent = await signedIn(server, 'other')
    await agent.delete('/api/v1/session').expect(204)
    const wrong = (username: string) =>
      supertest(server).post('/api/v1/session').send({ username, password: 'not this one at all' })
    await wrong('other').expect(401)
    await wrong('my-secret-word').expect(401)
    const administrator = await signedIn(server, 'administrator')
    const { body } = await administrator.get('/api/v1/audit').expect(200)
    const lines = body.items as { person: string; action: string }[]
    const of = (person: string) => lines.filter((l) => l.person === person).map((l) => l.action)
    expect(of('The other').slice(0, 3)).toEqual(['signing in refused', 'signed out', 'signed in'])
    expect(JSON.stringify(body)).not.toContain('my-secret-word')
  })
  it('does not happen where it cannot be written down', async () => {
    const keys: App['keys'] = {
      ...app.keys,
      seal: () => {
        throw new Error('the key is gone')
      },
    }
    const silent = serve({ ...app, keys })
    const begun = () =>
      app.db.sequelize.query("SELECT sid FROM session WHERE JSON_EXISTS(data, '$.personId')", {
        type: QueryTypes.SELECT,
      })
    const before = await begun()
    await supertest(silent)
      .post('/api/v1/session')
      .send({ username: 'other', password: PASSWORD })
      .expect(500)
    expect(await begun()).toEqual(before)
  })
  it('gives a session that only this site’s pages can use', async () => {
    const response = await supertest(server)
      .post('/api/v1/session')
      .send({ username: 'tester', password: PASSWORD })
    expect(response.status).toBe(200)
    expect(response.body).toMatchObject({ username: 'tester', roles: ['technician'] })
    expect(response.headers['set-cookie']?.[0]).toMatch(/HttpOnly; SameSite=Strict/)
    expect(JSON.stringify(response.body)).not.toMatch(/argon2|password/i)
  })
  it('keeps no name that nobody has, and no address for ever', async () => {
    const body = { username: 'my-secret-word', password: 'wrong' }
    await supertest(server).post('/api/v1/session').send(body).expect(401)
    const kept = async () => JSON.stringify(await app.db.wrongPasswords.findAll())
    expect(await kept()).toContain('nobody ')
    expect(await kept()).not.toContain('my-secret-word')
    await forgetOldAttempts(app)
    expect(await kept()).toContain('nobody ')
    const { now } = app
    await forgetOldAttempts({ ...app, now: () => now().plus({ days: 61 }) })
    expect(await kept()).toBe('[]')
  })
  it('answers a wrong password and an unknown name alike', async () => {
    const wrong = await supertest(server)
      .post('/api/v1/session')
      .send({ username: 'tester', password: 'no' })
    const nobody = await supertest(server)
      .post('/api/v1/session')
      .send({ username: 'nobody', password: 'no' })
    expect(wrong.status).toBe(401)
    expect(wrong.headers['content-type']).toMatch(/application\/problem\+json/)
    expect(nobody.body).toEqual(wrong.body)
  })
  it('throttles guessing at one name, however it is spelled, and lets others in', async () => {
    const attempt = (username: string, password: string) =>
      supertest(server).post('/api/v1/session').send({ username, password })
    for (let n = 0; n < 8; n++) await attempt('planner', `guess ${n}`).expect(401)
    const throttled = await attempt('planner', PASSWORD)
    expect(throttled.status).toBe(429)
    expect(throttled.body.detail).toMatch(/Wait/)
    for (const spelled of [
      'planner ',
      ' planner',
      'plánner',
      'PLANNER',
      'plan\u00adner',
      'pl\u200banner',
      'ｐlanner',
    ]) {
      const { status } = await attempt(spelled, PASSWORD)
      expect([spelled, status]).toEqual([spelled, 422])
    }
    await attempt('reviewer', PASSWORD).expect(200)
  })
  it('throttles an address that sprays names, and lets nobody be locked out from elsewhere', async () => {
    const from = (address: string, username: string, password: string) =>
      supertest(server)
        .post('/api/v1/session')
        .set('X-Forwarded-For', address)
        .send({ username, password })
    for (let n = 0; n < 60; n++) await from('203.0.113.1', `name${n}`, 'x')
    expect((await from('203.0.113.1', 'reviewer', PASSWORD)).status).toBe(429)
    // Guessed at from everywhere, the person still signs in where he always does.
    await from('198.51.100.7', 'reviewer', PASSWORD).expect(200)
    for (let n = 0; n < 45; n++) await from(`192.0.2.${n}`, 'reviewer', 'guess')
    expect((await from('192.0.2.200', 'reviewer', PASSWORD)).status).toBe(429)
    await from('198.51.100.7', 'reviewer', PASSWORD).expect(200)
  })
  it('remembers what was counted when the application is started again', async () => {
    const again = serve(await openApp(app.config))
    const response = await supertest(again)
      .post('/api/v1/session')
      .send({ username: 'planner', password: PASSWORD })
    expect(response.status).toBe(429)
  })
  it('ends with signing out', async () => {
    const agent = await signedIn(server, 'tester')
    await agent.get('/api/v1/gauges').expect(200)
    await agent.delete('/api/v1/session').expect(204)
    await agent.get('/api/v1/gauges').expect(401)
  })
})

describe('the password', () => {
  it('is changed with the present one, and the old one ends', async () => {
    const agent = await signedIn(server, 'other')
    const change = (current: string, next: string) =>
      agent.post('/api/v1/session/password').send({ current, next })
    expect((await change('wrong', 'a new long password')).status).toBe(409)
    expect((await change(PASSWORD, 'short')).body.detail).toMatch(/at least 12/)
    await change(PASSWORD, 'a new long password').expect(204)
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

describe('the browser’s guard rails', () => {
  it('refuses a write that comes from another site', async () => {
    const agent = await signedIn(server, 'administrator')
    await agent
      .post('/api/v1/gauges')
      .set('Origin', 'http://elsewhere.example')
      .send({})
      .expect(403)
    await agent.post('/api/v1/gauges').set('Sec-Fetch-Site', 'cross-site').send({}).expect(403)
  })
  it('takes a write from the address it is known by, whatever host a proxy hands on', async () => {
    const known = serve({ ...app, config: { ...app.config, publicUrl: 'https://uvanta.example' } })
    const agent = await signedIn(known, 'administrator')
    const from = (origin: string) => agent.post('/api/v1/gauges').set('Origin', origin).send({})
    await from('https://uvanta.example').expect(422)
    await from('https://uvanta.example.elsewhere.example').expect(403)
    await from('null').expect(403)
  })
  it('answers under its own address alone, so that no name of another page’s leads here', async () => {
    const known = serve({ ...app, config: { ...app.config, publicUrl: 'https://uvanta.example' } })
    const asked = (host: string) => supertest(known).get('/api/v1/session').set('Host', host)
    await asked('uvanta.example').expect(200)
    await asked('localhost:4870').expect(200)
    for (const host of [
      'evil.example',
      'uvanta.example.evil.example',
      '127.0.0.1.evil.example',
      '',
    ])
      await asked(host).expect(421)
    const page = await supertest(known).get('/').set('Host', 'evil.example').expect(421)
    expect(page.body.detail).toMatch(/not known by this address/)
  })
  it('lets a page use no more of the device than it has to', async () => {
    const { headers } = await supertest(server).get('/api/v1/session')
    expect(headers['permissions-policy']).toMatch(/geolocation=\(\).*microphone=\(\)/)
  })
  it('allows no inline script anywhere', async () => {
    const reader = await signedIn(server, 'reviewer')
    const { headers, text } = await reader.get('/api/v1/docs').expect(200)
    expect(text).toContain('Uvanta’s interface')
    const policy = String(headers['content-security-policy'])
    expect(policy).toMatch(/script-src 'self'(;|$)/)
    expect(policy).not.toMatch(/unsafe/)
  })
})
