import { webcrypto } from 'node:crypto'
import { type DevicePublicKey, signInText } from '@uvanta/contract'
import { Secret, TOTP } from 'otpauth'
import supertest from 'supertest'
import { v7 as uuidv7 } from 'uuid'
import { beforeEach, describe, expect, it } from 'vitest'
import type { App } from './context'
import { type Agent, makeTestApp, PASSWORD, populate, serve, signedIn } from './testing/app'

let app: App
let server: ReturnType<typeof serve>
let world: Awaited<ReturnType<typeof populate>>
let tester: Agent
beforeEach(async () => {
  app = await makeTestApp()
  const start = app.now()
  Object.assign(app, { now: () => start })
  world = await populate(app)
  server = serve(app)
  tester = await signedIn(server, 'tester')
})

const CURVE = { name: 'ECDSA', namedCurve: 'P-256' }
async function newDevice(label: string) {
  const pair = await webcrypto.subtle.generateKey(CURVE, true, ['sign', 'verify'])
  const { kty, crv, x, y } = await webcrypto.subtle.exportKey('jwk', pair.publicKey)
  const sign = async (text: string) => {
    const by = { name: 'ECDSA', hash: 'SHA-256' }
    const bytes = await webcrypto.subtle.sign(by, pair.privateKey, Buffer.from(text))
    return Buffer.from(bytes).toString('base64url')
  }
  return { id: uuidv7(), label, publicKey: { kty, crv, x, y } as DevicePublicKey, sign }
}
type DeviceOnHand = Awaited<ReturnType<typeof newDevice>>

const register = ({ id, label, publicKey }: DeviceOnHand, proof: object = {}, agent = tester) =>
  agent.post('/api/v1/devices').send({ id, label, publicKey, password: PASSWORD, ...proof })
async function registered(label: string) {
  const device = await newDevice(label)
  await register(device).expect(200)
  return device
}
/** Whether a device signs its person in. */
async function signsIn(device: DeviceOnHand): Promise<number> {
  const agent = supertest.agent(server)
  const { challenge } = (await agent.post('/api/v1/session/challenge').expect(200)).body
  const signature = await device.sign(signInText(challenge))
  return (await agent.post('/api/v1/session/key').send({ device: device.id, signature })).status
}
const passkey = (label: string) =>
  app.db.passkeys.create({
    id: `key-${label}`,
    personId: world.tester.id,
    label,
    publicKey: 'x',
    counter: 0,
    createdAt: app.now().toJSDate(),
    lastUsedAt: null,
  })
const NEXT = 'four words that nobody guesses'

const changes: [
  string,
  (keepDevice: string) => Promise<{ devices: string[]; passkeys: string[] }>,
][] = [
  [
    'a new password',
    async (keepDevice) =>
      (
        await tester
          .post('/api/v1/session/password')
          .send({ current: PASSWORD, next: NEXT, keepDevice })
          .expect(200)
      ).body.ended,
  ],
  [
    'a second factor',
    async (keepDevice) => {
      const code = await beginFactor()
      const confirm = '/api/v1/session/second-factor/confirm'
      return (await tester.post(confirm).send({ code: code(), keepDevice }).expect(200)).body.ended
    },
  ],
  [
    'signing out everywhere else',
    async (keepDevice) =>
      (await tester.delete(`/api/v1/sessions?keepDevice=${keepDevice}`).expect(200)).body.ended,
  ],
]

async function beginFactor() {
  const { body } = await tester
    .post('/api/v1/session/second-factor')
    .send({ password: PASSWORD })
    .expect(200)
  const totp = new TOTP({ secret: Secret.fromBase32(body.secret) })
  return (steps = 0) => totp.generate({ timestamp: app.now().toMillis() + steps * 30_000 })
}

describe('keys do not outlive what protects the name', () => {
  it.each(changes)(
    '%s ends every key but that of the own device, and lists them',
    async (_, change) => {
      const [own, stolen] = [await registered('Own tablet'), await registered('Stolen')]
      await passkey('Phone')
      expect(await signsIn(stolen)).toBe(200)
      expect(await change(own.id)).toEqual({ devices: ['Stolen'], passkeys: ['Phone'] })
      expect(await signsIn(stolen)).toBe(401)
      expect(await signsIn(own)).toBe(200)
      expect(await app.db.passkeys.count()).toBe(0)
    },
  )
  it('a new password ends all of them where no device is named', async () => {
    const stolen = await registered('Stolen')
    await tester
      .post('/api/v1/session/password')
      .send({ current: PASSWORD, next: NEXT })
      .expect(200)
    expect(await signsIn(stolen)).toBe(401)
  })
})

describe('a new way in', () => {
  it('is made with the code as well, where there is a second factor', async () => {
    const code = await beginFactor()
    await tester.post('/api/v1/session/second-factor/confirm').send({ code: code() }).expect(200)
    const device = await newDevice('New')
    const alone = await register(device).expect(409)
    expect(alone.body.type).toBe('urn:uvanta:problem:second-factor')
    await register(device, { code: '000000' }).expect(409)
    const begin = (proof: object) => tester.post('/api/v1/passkeys/begin').send(proof)
    expect((await begin({ password: PASSWORD })).body.type).toBe('urn:uvanta:problem:second-factor')
    await register(device, { code: code(1) }).expect(200)
    // A code is taken once.
    await register(await newDevice('Another'), { code: code(1) }).expect(409)
  })
  it('is no key that was registered before, revoked or of somebody else', async () => {
    const device = await registered('Old')
    await tester.delete(`/api/v1/devices/${device.id}`).expect(204)
    const again = await register({ ...device, id: uuidv7() }).expect(409)
    expect(again.body.type).toBe('urn:uvanta:problem:key-used')
    const planner = await signedIn(server, 'planner')
    await register({ ...device, id: uuidv7() }, {}, planner).expect(409)
  })
})

describe('guesses of strangers', () => {
  const guess = (address: string, username: string) =>
    supertest(server)
      .post('/api/v1/session')
      .set('X-Forwarded-For', address)
      .send({ username, password: 'guess' })
  it('do not keep somebody from confirming with the password who is signed in', async () => {
    for (let n = 0; n < 45; n++) await guess(`192.0.2.${n}`, 'tester')
    await tester
      .post('/api/v1/devices')
      .set('X-Forwarded-For', '203.0.113.77')
      .send({ ...(await newDevice('New')), sign: undefined, password: PASSWORD })
      .expect(200)
  })
  it('count by the /64 of IPv6, of which one network has more addresses than can be counted', async () => {
    const statuses: number[] = []
    for (let n = 0; n < 70; n++)
      statuses.push((await guess(`2001:db8:1:2::${n.toString(16)}`, `name${n}`)).status)
    expect(statuses.slice(0, 60).every((s) => s === 401)).toBe(true)
    expect(statuses.slice(60).every((s) => s === 429)).toBe(true)
    expect((await guess('2001:db8:1:3::1', 'name1')).status).toBe(401)
  })
})
