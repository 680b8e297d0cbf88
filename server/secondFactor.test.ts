import type { Person } from '@uvanta/contract'
import { Secret, TOTP } from 'otpauth'
import supertest from 'supertest'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { makeAdministrator } from './service/people/people'
import { openSecretBox } from './service/people/secretBox'
import { type Agent, makeTestApp, PASSWORD, populate, serve, signedIn, codeOf } from './testing/app'

let app: App
let server: ReturnType<typeof serve>
beforeAll(async () => {
  app = await makeTestApp()
  // A clock that stands: a step of 30 s must not pass between a code and its use.
  const start = app.now()
  Object.assign(app, { now: () => start })
  await populate(app)
  server = serve(app)
})

/** A code as an authenticator shows it that many steps of 30 s from now. */
const shown = (secret: string, steps = 0) =>
  new TOTP({ secret: Secret.fromBase32(secret) }).generate({
    timestamp: app.now().toMillis() + steps * 30_000,
  })
const enter = (username: string, code?: string) =>
  supertest(server)
    .post('/api/v1/session')
    .send({ username, password: PASSWORD, ...(code === undefined ? {} : { code }) })
const begin = async (agent: Agent): Promise<string> =>
  (await agent.post('/api/v1/session/second-factor').send({ password: PASSWORD }).expect(200)).body
    .secret
const confirm = (agent: Agent, code: string) =>
  agent.post('/api/v1/session/second-factor/confirm').send({ code })
/** Steps pass, so that a code is another one than the last. */
const later = (seconds: number) => {
  const then = app.now().plus({ seconds })
  Object.assign(app, { now: () => then })
}

describe('a second factor', () => {
  let secret: string
  let recovery: string[]
  it('is set up with the password and a first code, and other sessions end', async () => {
    const planner = await signedIn(server, 'planner')
    const elsewhere = await signedIn(server, 'planner')
    await planner.post('/api/v1/session/second-factor').send({ password: 'wrong' }).expect(409)
    secret = await begin(planner)
    expect((await confirm(planner, '000000')).status).toBe(409)
    // Nothing is asked for before it is confirmed.
    expect((await enter('planner')).status).toBe(200)
    recovery = (await confirm(planner, shown(secret)).expect(200)).body.recovery
    expect(new Set(recovery).size).toBe(10)
    expect((await planner.get('/api/v1/session')).body.person.secondFactor).toBe(true)
    expect((await elsewhere.get('/api/v1/session')).body.person).toBeNull()
  })
  it('is asked for at sign-in, after the password alone', async () => {
    const without = await enter('planner')
    expect([without.status, codeOf(without)]).toEqual([401, 'second-factor'])
    const wrongPassword = await supertest(server)
      .post('/api/v1/session')
      .send({ username: 'planner', password: 'wrong', code: shown(secret, 1) })
    expect(codeOf(wrongPassword)).toBe('not-signed-in')
  })
  it('takes a code once, of the step before or after as well, and none that is older', async () => {
    // The one that set it up is used.
    expect((await enter('planner', shown(secret))).status).toBe(401)
    expect((await enter('planner', shown(secret, 1))).status).toBe(200)
    expect((await enter('planner', shown(secret, 1))).status).toBe(401)
    later(300)
    expect((await enter('planner', shown(secret, -2))).status).toBe(401)
    expect((await enter('planner', shown(secret, 2))).status).toBe(401)
    const typed = shown(secret, -1)
    expect((await enter('planner', `${typed.slice(0, 3)} ${typed.slice(3)}`)).status).toBe(200)
    expect((await enter('planner', shown(secret))).status).toBe(200)
  })
  it('of two who send the same code at the same moment lets one in', async () => {
    later(300)
    const code = shown(secret)
    const both = await Promise.all([enter('planner', code), enter('planner', code)])
    expect(both.map((r) => r.status).sort()).toEqual([200, 401])
  })
  it('is stood in for by a recovery code, once, however it is typed', async () => {
    const [first = '', second = ''] = recovery
    expect((await enter('planner', first.toLowerCase().replace('-', ' '))).status).toBe(200)
    expect((await enter('planner', first)).status).toBe(401)
    expect((await enter('planner', second)).status).toBe(200)
  })
  it('is guessed no oftener than a password, though the password is right', async () => {
    later(3600)
    const tried = []
    for (let n = 0; n < 12; n++) tried.push((await enter('planner', '123456')).status)
    expect(tried.filter((s) => s === 401).length).toBeLessThanOrEqual(8)
    expect(tried.at(-1)).toBe(429)
    later(3600)
  })
  it('is not to be read in the database, nor moved to somebody else', async () => {
    const [row] = await app.db.secondFactors.findAll()
    expect(row?.secret).not.toContain(secret)
    expect(JSON.stringify(row?.recovery)).not.toContain(recovery[2])
    const { shut, open } = await openSecretBox(app.config)
    expect(open(row?.secret ?? '', row?.personId ?? '')).toBe(secret)
    expect(() => open(row?.secret ?? '', 'another')).toThrow()
    expect(shut('the same', 'x')).not.toBe(shut('the same', 'x'))
  })
  it('is taken off by the administrator, or with password and code, and both are written down', async () => {
    const administrator = await signedIn(server, 'administrator')
    const people: Person[] = (await administrator.get('/api/v1/people')).body.items
    const { id } = people.find((p) => p.username === 'planner')!
    await administrator.delete(`/api/v1/people/${id}/second-factor`).expect(204)
    const planner = await signedIn(server, 'planner')
    const again = await begin(planner)
    await confirm(planner, shown(again)).expect(200)
    const off = () => planner.post('/api/v1/session/second-factor/remove')
    await off().send({ password: 'wrong' }).expect(409)
    const alone = await off().send({ password: PASSWORD }).expect(409)
    expect(codeOf(alone)).toBe('second-factor')
    await off().send({ password: PASSWORD, code: '000000' }).expect(409)
    later(30)
    await off()
      .send({ password: PASSWORD, code: shown(again) })
      .expect(204)
    expect((await enter('planner')).status).toBe(200)
    const { items } = (await administrator.get('/api/v1/audit')).body
    const offs = items.filter((l: { action: string }) => l.action === 'took off a second factor')
    expect(offs.map((l: { person: string }) => l.person).sort()).toEqual(
      [people.find((p) => p.username === 'administrator'), people.find((p) => p.id === id)]
        .map((p) => p?.name)
        .sort(),
    )
  })
})

describe('where the office needs a second factor', () => {
  it('its people can do nothing but set it up, and technicians work on', async () => {
    Object.assign(app.config, { officeNeedsSecondFactor: true })
    const reviewer = await signedIn(server, 'reviewer')
    expect((await reviewer.get('/api/v1/session')).body.person.mustSetSecondFactor).toBe(true)
    const refused = await reviewer.get('/api/v1/equipment')
    expect([refused.status, codeOf(refused)]).toEqual([403, 'second-factor-to-set'])
    await (await signedIn(server, 'tester')).get('/api/v1/equipment').expect(200)
    await confirm(reviewer, shown(await begin(reviewer))).expect(200)
    await reviewer.get('/api/v1/equipment').expect(200)
    Object.assign(app.config, { officeNeedsSecondFactor: false })
  })
  it('whoever stands at the machine gets in again without it', async () => {
    const administrator = await signedIn(server, 'administrator')
    await confirm(administrator, shown(await begin(administrator))).expect(200)
    expect((await enter('administrator')).status).toBe(401)
    await makeAdministrator(app, 'administrator', 'four unlike words stand here')
    const again = await supertest(server)
      .post('/api/v1/session')
      .send({ username: 'administrator', password: 'four unlike words stand here' })
    expect(again.status).toBe(200)
  })
})
