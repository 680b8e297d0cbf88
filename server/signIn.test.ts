import { QueryTypes } from 'sequelize'
import supertest from 'supertest'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { openApp } from './app'
import { forgetOldAttempts } from './service/people/wrongPasswords'
import { makeTestApp, PASSWORD, populate, serve, signedIn, codeOf } from './testing/app'

let app: App
let server: ReturnType<typeof serve>
beforeAll(async () => {
  app = await makeTestApp()
  await populate(app)
  server = serve(app)
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
    const behindTls = await supertest(server)
      .post('/api/v1/session')
      .set('X-Forwarded-Proto', 'https')
      .send({ username: 'tester', password: PASSWORD })
    expect(behindTls.headers['set-cookie']?.[0]).toMatch(/; Secure/)
  })
  it('begins a session anew, whatever cookie was there before, and ends that one', async () => {
    const enter = (username: string, cookie = '') =>
      supertest(server)
        .post('/api/v1/session')
        .set('Cookie', cookie)
        .send({ username, password: PASSWORD })
        .expect(200)
    const cookieOf = ({ headers }: supertest.Response) => String(headers['set-cookie']?.[0])
    const planted = cookieOf(await enter('tester'))
    const own = cookieOf(await enter('other', planted))
    const isWhose = async (cookie: string) =>
      (await supertest(server).get('/api/v1/session').set('Cookie', cookie)).body.person?.username
    expect(await isWhose(own)).toBe('other')
    expect(await isWhose(planted)).toBeUndefined()
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
    expect(codeOf(throttled)).toBe('too-many')
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
