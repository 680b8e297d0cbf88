import { webcrypto } from 'node:crypto'
import { type DevicePublicKey, signInText } from '@uvanta/contract'
import { type EventDraft, signedText, type VisitEvent } from '@uvanta/core/visit'
import supertest from 'supertest'
import { v7 as uuidv7 } from 'uuid'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { verifyChains } from './service/integrity/verifyChains'
import { type Agent, codeOf, makeTestApp, PASSWORD, populate, serve, signedIn } from './testing/app'
import { append, arrival, draft, plan, SIGNATURE, skipToReturn, testOf } from './testing/visit'

let app: App
let world: Awaited<ReturnType<typeof populate>>
let server: ReturnType<typeof serve>
let tester: Agent
let planner: Agent
let administrator: Agent
/** The tester’s own, from the first test to the last. */
let usual: DeviceOnHand
beforeAll(async () => {
  app = await makeTestApp()
  world = await populate(app)
  server = serve(app)
  tester = await signedIn(server, 'tester')
  planner = await signedIn(server, 'planner')
  administrator = await signedIn(server, 'administrator')
  usual = await registered()
})

const CURVE = { name: 'ECDSA', namedCurve: 'P-256' }
/** A device as a browser makes it: the private half never leaves it. */
async function newDevice() {
  const pair = await webcrypto.subtle.generateKey(CURVE, true, ['sign', 'verify'])
  const { kty, crv, x, y } = await webcrypto.subtle.exportKey('jwk', pair.publicKey)
  const sign = async (text: string) => {
    const by = { name: 'ECDSA', hash: 'SHA-256' }
    const bytes = await webcrypto.subtle.sign(by, pair.privateKey, Buffer.from(text))
    return Buffer.from(bytes).toString('base64url')
  }
  return { id: uuidv7(), publicKey: { kty, crv, x, y } as DevicePublicKey, sign }
}
type DeviceOnHand = Awaited<ReturnType<typeof newDevice>>

const register = (agent: Agent, { id, publicKey }: DeviceOnHand, password = PASSWORD) =>
  agent.post('/api/v1/devices').send({ id, publicKey, label: 'Tablet of the van', password })
async function registered(agent = tester) {
  const device = await newDevice()
  await register(agent, device).expect(200)
  return device
}

/** A visit that passes as found, on the device alone: the log as it stands there, and its entries. */
async function dayInPit() {
  const visit = await plan(app, tester, world.equipment.id, world.tester.id)
  const drafts = [...arrival(), ...testOf(app, world.gaugeId, 'as-found', '7.1'), ...skipToReturn()]
  const own = (d: EventDraft): VisitEvent => ({
    ...d,
    personId: world.tester.id,
    personName: world.tester.name,
  })
  const log = [...(visit.events as unknown as VisitEvent[]), ...drafts.map(own)]
  return { visit, drafts, log }
}
type Day = Awaited<ReturnType<typeof dayInPit>>

async function signedBy(device: DeviceOnHand, { visit, log }: Day, said: object = {}) {
  const event = draft('signed', {
    signature: SIGNATURE,
    name: 'The tester',
    outcome: 'pass',
    ...said,
  })
  const signature = await device.sign(signedText(visit.id, log, world.tester.id, event))
  return { ...event, payload: { ...event.payload, byKey: { device: device.id, signature } } }
}
const read = async (id: string) => (await tester.get(`/api/v1/visits/${id}`).expect(200)).body

describe('a visit that was signed without a line', () => {
  it('is closed by the key of the device when it arrives, with its certificate', async () => {
    const day = await dayInPit()
    const signed = await signedBy(usual, day)
    await append(tester, day.visit.id, 1, [...day.drafts, signed]).expect(200)
    const visit = await read(day.visit.id)
    expect(visit).toMatchObject({ state: 'signed', outcome: 'pass' })
    expect(visit.certificateNumber).toMatch(/^LH-/)
    // Sent again, it does no harm.
    await append(tester, day.visit.id, 1, [...day.drafts, signed]).expect(200)
    expect((await read(day.visit.id)).count).toBe(visit.count)
    const pdf = await tester.get(`/api/v1/certificates/${visit.certificateId}`).expect(200)
    expect(pdf.body.payload).toMatchObject({ signedAt: signed.deviceTime, outcome: 'pass' })
    expect((await verifyChains(app)).faults).toEqual([])
  })
  it('is closed though the office wrote a note meanwhile', async () => {
    const day = await dayInPit()
    const signed = await signedBy(usual, day)
    const note = draft('note', { station: 'prepare', text: 'The gate code is 4711' })
    await append(planner, day.visit.id, 1, [note]).expect(200)
    const conflict = await append(tester, day.visit.id, 1, [...day.drafts, signed]).expect(409)
    expect(conflict.body.type).toBe('urn:uvanta:problem:newer-events')
    await append(tester, day.visit.id, 2, [...day.drafts, signed]).expect(200)
    expect((await read(day.visit.id)).state).toBe('signed')
  })
  const refusals: [string, string, (device: DeviceOnHand, day: Day) => Promise<object[]>][] = [
    [
      'without key or password',
      'signature-place',
      async (_, day) => [
        ...day.drafts,
        draft('signed', { signature: SIGNATURE, name: 'The tester', outcome: 'pass' }),
      ],
    ],
    [
      'with a verdict that was not read',
      'outcome-differs',
      async (device, day) => [...day.drafts, await signedBy(device, day, { outcome: 'fail' })],
    ],
    [
      'with an entry more than was signed for',
      'wrong-signature',
      async (device, day) => [
        ...day.drafts,
        draft('note', { station: 'as-left', text: 'Written behind the signature’s back' }),
        await signedBy(device, day),
      ],
    ],
    [
      'with a reading other than was signed for',
      'wrong-signature',
      async (device, day) => {
        const signed = await signedBy(device, day)
        const changed = day.drafts.map((d) =>
          d.kind === 'reading' && d.payload.item === 'check-1'
            ? { ...d, payload: { ...d.payload, value: '7.9' } }
            : d,
        )
        return [...changed, signed]
      },
    ],
    [
      'with another time zone than was signed for',
      'wrong-signature',
      async (device, day) => {
        const signed = await signedBy(device, day)
        return [...day.drafts.map((d) => ({ ...d, deviceOffset: -840 })), signed]
      },
    ],
    [
      'with the drawn signature of another time',
      'wrong-signature',
      async (device, day) => {
        const signed = await signedBy(device, day)
        const payload = { ...signed.payload, signature: 'M 10 10 L 200 90' }
        return [...day.drafts, { ...signed, payload }]
      },
    ],
    [
      'under another name',
      'signs-as-another',
      async (device, day) => [...day.drafts, await signedBy(device, day, { name: 'The other' })],
    ],
    [
      'with something behind it',
      'signature-place',
      async (device, day) => [
        ...day.drafts,
        await signedBy(device, day),
        draft('note', { station: 'as-left', text: 'Afterwards' }),
      ],
    ],
    [
      'by a key that was never registered',
      'unknown-key',
      async (_, day) => [...day.drafts, await signedBy(await newDevice(), day)],
    ],
    [
      'by the key of another person',
      'unknown-key',
      async (_, day) => {
        const others = await registered(await signedIn(server, 'other'))
        return [...day.drafts, await signedBy(others, day)]
      },
    ],
    [
      'by a key that was revoked since',
      'revoked-key',
      async (_, day) => {
        const device = await registered()
        const signed = await signedBy(device, day)
        await administrator.delete(`/api/v1/devices/${device.id}`).expect(204)
        return [...day.drafts, signed]
      },
    ],
  ]
  it.each(refusals)('is not closed %s, and nothing of it stands', async (_, code, made) => {
    const day = await dayInPit()
    const events = await made(usual, day)
    const response = await append(tester, day.visit.id, 1, events)
    expect(codeOf(response)).toBe(code)
    expect(response.status).toBeGreaterThanOrEqual(409)
    expect(await read(day.visit.id)).toMatchObject({ state: 'planned', count: 1 })
  })
})

describe('a device', () => {
  it('is registered with the password alone, and listed', async () => {
    const device = await newDevice()
    await register(tester, device, 'wrong').expect(409)
    await register(tester, device).expect(200)
    await register(tester, device).expect(200)
    const { items } = (await tester.get('/api/v1/devices').expect(200)).body
    expect(items.filter((d: { id: string }) => d.id === device.id)).toMatchObject([
      { label: 'Tablet of the van', revokedAt: null },
    ])
    await tester.get(`/api/v1/people/${world.tester.id}/devices`).expect(403)
    await administrator.get(`/api/v1/people/${world.tester.id}/devices`).expect(200)
  })
  it('has a key of the curve, and is nobody else’s', async () => {
    const device = await newDevice()
    const strange = { ...device, publicKey: { ...device.publicKey, y: device.publicKey.x } }
    await register(tester, strange as DeviceOnHand).expect(422)
    await register(tester, device).expect(200)
    const other = await signedIn(server, 'other')
    await register(other, device).expect(403)
    await other.delete(`/api/v1/devices/${device.id}`).expect(403)
    await tester.delete(`/api/v1/devices/${device.id}`).expect(204)
  })
  it('signs its person in, once for what it was asked', async () => {
    const device = usual
    const agent = supertest.agent(server)
    const challenge = async () =>
      (await agent.post('/api/v1/session/challenge').expect(200)).body.challenge as string
    const send = (signature: string) =>
      agent.post('/api/v1/session/key').send({ device: device.id, signature })
    await send(await device.sign(signInText(''))).expect(401)
    const asked = await challenge()
    const signature = await device.sign(signInText(asked))
    expect((await send(signature).expect(200)).body).toMatchObject({ username: 'tester' })
    expect((await agent.get('/api/v1/session')).body.person.username).toBe('tester')
    await send(signature).expect(401)
    await send(await device.sign(signInText(`${await challenge()}x`))).expect(401)
  })
  it('signs nobody in once it was revoked, or its person was given a new password', async () => {
    const signsIn = async (device: DeviceOnHand) => {
      const agent = supertest.agent(server)
      const { challenge } = (await agent.post('/api/v1/session/challenge')).body
      const signature = await device.sign(signInText(challenge))
      return (await agent.post('/api/v1/session/key').send({ device: device.id, signature })).status
    }
    const other = await signedIn(server, 'other')
    const [first, second] = [await registered(other), await registered(other)]
    expect(await signsIn(first)).toBe(200)
    await other.delete(`/api/v1/devices/${first.id}`).expect(204)
    expect(await signsIn(first)).toBe(401)
    expect(await signsIn(second)).toBe(200)
    await administrator
      .patch(`/api/v1/people/${world.other.id}`)
      .set('If-Match', '"1"')
      .send({ password: 'another long password' })
      .expect(200)
    expect(await signsIn(second)).toBe(401)
  })
})

describe('the devices of one person', () => {
  it('are twelve at once, and one more when one is revoked', async () => {
    const reviewer = await signedIn(server, 'reviewer')
    const first = await registered(reviewer)
    for (let n = 1; n < 12; n++) await registered(reviewer)
    const thirteenth = await newDevice()
    const refused = await register(reviewer, thirteenth)
    expect([refused.status, codeOf(refused)]).toEqual([409, 'too-many-devices'])
    await reviewer.delete(`/api/v1/devices/${first.id}`)
    await register(reviewer, thirteenth).expect(200)
  })
})
