import { computationNamed } from '@uvanta/core/registry'
import supertest from 'supertest'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openApp } from './app'
import type { App } from './context'
import { forgetOldCounts } from './service/requestCounts'
import { makeTestApp, populate, serve, signedIn } from './testing/app'

let app: App
let other: App
beforeAll(async () => {
  app = await makeTestApp()
  await populate(app)
  // Another process on the same database.
  other = await openApp(app.config)
})
afterAll(() => other.db.sequelize.close())

const ask = (n: number, one: () => Promise<{ status: number }>) =>
  Promise.all(Array.from({ length: n }, one)).then((all) => all.map((a) => a.status))
const refused = (statuses: readonly number[]) => statuses.filter((s) => s === 429).length

describe('what may be asked so often in a minute is counted by all processes together', () => {
  it('computations of a person', async () => {
    const [first, second] = await Promise.all([app, other].map((a) => signedIn(serve(a), 'tester')))
    const { example } = computationNamed('convert-quantity')
    const compute = (agent: typeof first) => async () =>
      agent!.post('/api/v1/compute/convert-quantity').send(example as object)
    expect(refused(await ask(60, compute(first)))).toBe(0)
    expect(refused(await ask(60, compute(second)))).toBe(0)
    expect(refused(await ask(1, compute(first)))).toBe(1)
    expect(refused(await ask(1, compute(second)))).toBe(1)
    // Somebody else has a count of his own.
    const planner = await signedIn(serve(app), 'planner')
    expect(refused(await ask(1, compute(planner)))).toBe(0)
  })

  it('one long computation at a time, and the next once that has ended', async () => {
    // Each ends when the test says so.
    const ends: (() => void)[] = []
    const compute = () => new Promise<object>((done) => ends.push(() => done({})))
    const agent = await signedIn(serve({ ...app, heavy: { ...app.heavy, compute } }), 'reviewer')
    const { example } = computationNamed('simulate-assembly')
    const send = async (input: unknown) =>
      (await agent.post('/api/v1/compute/simulate-assembly').send(input as object)).status
    const first = send(example)
    await expect.poll(() => ends.length).toBe(1)
    expect(await send(example)).toBe(429)
    // What is malformed takes no thread, and is answered.
    expect(await send({ kind: 'none' })).toBe(422)
    ends[0]?.()
    expect(await first).toBe(200)
    const next = send(example)
    await expect.poll(() => ends.length).toBe(2)
    ends[1]?.()
    expect(await next).toBe(200)
  })

  it('challenges for an address, of which nothing is known ten minutes later', async () => {
    const challenge = (a: App) => {
      const server = serve(a)
      return async () => supertest(server).post('/api/v1/session/passkey/begin').send({})
    }
    const all = await Promise.all([ask(20, challenge(app)), ask(20, challenge(other))])
    expect(refused(all.flat())).toBe(10)
    const later = app.now().plus({ minutes: 11 })
    await forgetOldCounts({ ...app, now: () => later })
    expect(await app.db.requestCounts.count()).toBe(0)
    expect(refused(await ask(1, challenge(other)))).toBe(0)
  })
})
