import supertest from 'supertest'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { makeTestApp, PASSWORD, populate, serve, signedIn, codeOf } from './testing/app'

/** What needs no authenticator; what does is done with one in e2e/passkey.spec.ts. */
let app: App
let server: ReturnType<typeof serve>
beforeAll(async () => {
  app = await makeTestApp()
  await populate(app)
  server = serve(app)
})

const madeUp = {
  id: 'bm9ib2R5',
  rawId: 'bm9ib2R5',
  type: 'public-key',
  clientExtensionResults: {},
}
const signature = { clientDataJSON: 'e30', authenticatorData: 'AA', signature: 'AA' }

describe('a passkey', () => {
  it('is asked of an authenticator that proves who holds it, for the name of the house', async () => {
    const planner = await signedIn(server, 'planner')
    await planner.post('/api/v1/passkeys/begin').send({ password: 'wrong' }).expect(409)
    const { body } = await planner
      .post('/api/v1/passkeys/begin')
      .send({ password: PASSWORD })
      .expect(200)
    expect(body.rp).toEqual({ id: 'localhost', name: app.config.utility.name })
    expect(body.authenticatorSelection).toMatchObject({
      residentKey: 'required',
      userVerification: 'required',
    })
    // The authenticator is told the name, and nothing that the house keeps to itself.
    expect(body.user).toMatchObject({ name: 'planner', displayName: 'The planner' })
  })
  it('that nobody asked for is not taken up', async () => {
    const planner = await signedIn(server, 'planner')
    const answer = {
      ...madeUp,
      response: { clientDataJSON: 'e30', attestationObject: 'o2NmbXRkbm9uZQ' },
    }
    const add = () => planner.post('/api/v1/passkeys').send({ label: 'Key ring', answer })
    await add().expect(409)
    await planner.post('/api/v1/passkeys/begin').send({ password: PASSWORD }).expect(200)
    await add().expect(409)
    expect((await planner.get('/api/v1/passkeys').expect(200)).body.items).toEqual([])
  })
  it('that is not known signs nobody in, whether it was asked for or not', async () => {
    const agent = supertest.agent(server)
    const enter = () =>
      agent.post('/api/v1/session/passkey').send({ ...madeUp, response: signature })
    await enter().expect(401)
    const { body } = await agent.post('/api/v1/session/passkey/begin').expect(200)
    expect(body.userVerification).toBe('required')
    await enter().expect(401)
    expect((await agent.get('/api/v1/session')).body.person).toBeNull()
  })
  it('of somebody else is not taken off', async () => {
    const [planner, other] = [await signedIn(server, 'planner'), await signedIn(server, 'other')]
    const { person } = (await planner.get('/api/v1/session')).body
    await app.db.passkeys.create({
      id: 'a2V5',
      personId: person.id,
      label: 'Key ring',
      publicKey: 'AA',
      counter: 0,
      createdAt: app.now().toJSDate(),
      lastUsedAt: null,
    })
    await other.delete('/api/v1/passkeys/a2V5').expect(404)
    expect((await planner.get('/api/v1/passkeys')).body.items).toHaveLength(1)
    await planner.delete('/api/v1/passkeys/a2V5').expect(204)
    const { items } = (await (await signedIn(server, 'administrator')).get('/api/v1/audit')).body
    const line = { person: person.name, action: 'took off a passkey', subject: 'Key ring' }
    expect(items).toContainEqual(expect.objectContaining(line))
  })
  it('needs an address with a name', async () => {
    const numbered = serve({ ...app, config: { ...app.config, publicUrl: 'https://192.0.2.7' } })
    const answer = await supertest(numbered).post('/api/v1/session/passkey/begin').expect(409)
    expect(codeOf(answer)).toBe('address-without-name')
  })
})
