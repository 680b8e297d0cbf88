import { QueryTypes } from 'sequelize'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { deviceWords } from './service/people/sessions'
import { type Agent, makeTestApp, PASSWORD, populate, serve, signedIn } from './testing/app'

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
    await here.post('/api/v1/session/password').send({ current: PASSWORD, next }).expect(200)
    expect(await me(here)).toBe('other')
    expect(await me(elsewhere)).toBeUndefined()
    const back = { current: next, next: PASSWORD }
    await here.post('/api/v1/session/password').send(back).expect(200)
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
    await here.delete('/api/v1/sessions').expect(200)
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
