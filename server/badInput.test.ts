import { gzipSync } from 'node:zlib'
import { PassThrough } from 'node:stream'
import { pino } from 'pino'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { makeServer } from './http/server'
import { type Agent, makeTestApp, populate, serve, signedIn, codeOf } from './testing/app'
import { draft, plan } from './testing/visit'

/** Small requests that would cost much, and inputs that are no input at all. */
let app: App
let tester: Agent
let trainee: Agent
let admin: Agent
let events: string
beforeAll(async () => {
  app = await makeTestApp()
  const world = await populate(app)
  const server = serve(app)
  tester = await signedIn(server, 'tester')
  trainee = await signedIn(server, 'trainee')
  admin = await signedIn(server, 'administrator')
  const visit = await plan(app, tester, world.equipment.id, world.tester.id)
  events = `/api/v1/visits/${visit.id}/events`
})
const nested = (depth: number) => {
  let value: unknown = 'x'
  for (let n = 0; n < depth; n++) value = [value]
  return value
}
const zeros = (n: number) => Array.from({ length: n }, () => 0)

describe('a list is counted before it is looked at', () => {
  it('events', async () => {
    const response = await tester.post(events).send({ expected: 1, events: zeros(200_000) })
    expect(response.status).toBe(422)
    expect(codeOf(response)).toBe('invalid-input')
    expect(response.body.fields).toHaveLength(1)
  })
  it('readings of a computation', async () => {
    const response = await trainee.post('/api/v1/compute/judge-backflow-test').send({
      rulePack: 'larkhaven-relief-first',
      kind: 'RP',
      readings: zeros(100_000),
      answers: [],
    })
    expect([response.status, response.body.detail]).toEqual([
      422,
      '“readings” has 100000 entries. Send at most 60.',
    ])
  })
  it('a trace', async () => {
    const body = { values: zeros(490_000), periodS: 0.1, resolution: 0.1 }
    const response = await trainee.post('/api/v1/compute/analyse-trace').send(body)
    expect(response.status).toBe(422)
    const words = { ...body, values: ['a', 1] }
    expect((await trainee.post('/api/v1/compute/analyse-trace').send(words)).status).toBe(422)
    const good = { ...body, values: [...zeros(60), null] }
    expect((await trainee.post('/api/v1/compute/analyse-trace').send(good)).status).toBe(200)
  })
})

describe('a body', () => {
  it('that is compressed is not taken', async () => {
    const packed = gzipSync(JSON.stringify({ expected: 1, events: zeros(490_000) }))
    const response = await tester
      .post(events)
      .set('Content-Type', 'application/json')
      .set('Content-Encoding', 'gzip')
      .serialize((b: unknown) => b as string)
      .send(packed as never)
    expect(response.status).toBe(415)
  })
  it('is as large as its call needs, and no larger', async () => {
    const body = { username: 'x'.repeat(200_000), password: 'x' }
    expect((await tester.post('/api/v1/session').send(body)).status).toBe(413)
  })
  it.each([41, 3_000])('nested %d deep is refused in words', async (depth) => {
    for (const field of ['kind', 'payload', 'deviceOffset', 'id']) {
      const event = { ...draft('note', { station: 'prepare', text: 'x' }), [field]: nested(depth) }
      const response = await tester.post(events).send({ expected: 1, events: [event] })
      expect([field, response.status]).toEqual([field, 422])
    }
  })
})

describe('what is no input', () => {
  it.each([
    ['a reading', 'reading', { run: 'as-found', item: 'check-1', source: 'typed' }],
    ['a line pressure', 'zone-proved', { zone: 'body', heldMinutes: 1, by: 'X' }],
  ] as const)('%s of an unknown quantity answers in words', async (_, kind, payload) => {
    const strange = { dimension: 'nope', value: '5', unit: 'psi' }
    const body = kind === 'reading' ? { ...payload, ...strange } : { ...payload, reading: strange }
    const event = { ...draft('note', { station: 'prepare', text: 'x' }), kind, payload: body }
    const response = await tester.post(events).send({ expected: 1, events: [event] })
    expect(response.status).toBe(422)
  })
  it('a quantity without its dimension, in a computation', async () => {
    const reading = { item: 'check-1', dimension: 'nope', value: '5', unit: 'psi' }
    const response = await trainee.post('/api/v1/compute/judge-backflow-test').send({
      rulePack: 'larkhaven-relief-first',
      kind: 'RP',
      readings: [reading],
      answers: [],
    })
    expect(response.status).toBe(422)
  })
  it.each([['abc'], [1, 2], ['1e999'], [''], [{}]])('a cursor of %o', async (...keys) => {
    const cursor = Buffer.from(JSON.stringify(keys)).toString('base64url')
    for (const path of [
      '/api/v1/audit',
      '/api/v1/certificates',
      '/api/v1/visits',
      '/api/v1/equipment',
    ]) {
      const { status } = await admin.get(`${path}?cursor=${cursor}`)
      expect([path, status < 500]).toEqual([path, true])
    }
    expect((await admin.get(`/api/v1/audit?cursor=${cursor}`)).status).toBe(422)
  })
})

describe('a log', () => {
  it('of a request that failed holds no session', async () => {
    const lines: string[] = []
    const out = new PassThrough()
    out.on('data', (chunk: Buffer) => lines.push(chunk.toString()))
    const broken = { ...app, db: { ...app.db, gauges: undefined } } as unknown as App
    const agent = await signedIn(makeServer(broken, pino({ level: 'error' }, out)), 'tester')
    expect((await agent.get('/api/v1/gauges')).status).toBe(500)
    const log = lines.join('')
    expect(log).toMatch(/request failed/)
    expect(log).not.toMatch(/uvanta=|s%3A/)
  })
})
