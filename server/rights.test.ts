import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { allEndpoints, type Endpoint, roles } from '@uvanta/contract'
import supertest from 'supertest'
import { v7 as uuidv7 } from 'uuid'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { type Agent, makeTestApp, populate, serve, signedIn } from './testing/app'

/** docs/SECURITY.md says who may call what; here it is held against the interface, and the interface against it. */
const document = readFileSync(join(import.meta.dirname, '..', 'docs', 'SECURITY.md'), 'utf8')
const rows = new Map(
  [...document.matchAll(/^\| `([A-Z]+ \/\S+)`\s*\|[^|]*\|\s*([a-z, -]+?)\s*\|$/gm)].map(
    ([, call = '', who = '']) => [call, who],
  ),
)
const callOf = (e: Endpoint) => `${e.method.toUpperCase()} ${e.path}`

let app: App
let agents: Record<string, Agent>
beforeAll(async () => {
  app = await makeTestApp()
  await populate(app)
  const server = serve(app)
  const names = {
    technician: 'tester',
    planner: 'planner',
    reviewer: 'reviewer',
    administrator: 'administrator',
    trainee: 'trainee',
  }
  agents = { nobody: supertest.agent(server) }
  for (const [role, name] of Object.entries(names)) agents[role] = await signedIn(server, name)
})

describe('who may call what', () => {
  it('is said of every call, and of no other', () => {
    expect([...rows.keys()].sort()).toEqual(allEndpoints.map(callOf).sort())
  })
  // Signing out ends the session that the other calls are made with.
  const calls = allEndpoints.filter((e) => callOf(e) !== 'DELETE /api/v1/session')
  it.each(calls.map((e) => [callOf(e), e] as const))('%s', async (call, e) => {
    const who = rows.get(call)?.split(', ') ?? []
    for (const role of ['nobody', ...roles]) {
      const path = e.path.replaceAll(/\{\w+\}/g, uuidv7())
      // Nothing that it is asked to do can be done: only whether it may be asked for is looked at.
      const { status, body } = await (agents[role] as Agent)
        [e.method](path)
        .set('If-Match', '"0"')
        .send(e.body ? {} : undefined)
      const may =
        who.includes('public') ||
        (role !== 'nobody' && (who.includes('signed-in') || who.includes(role)))
      const refused =
        role === 'nobody'
          ? status === 401
          : status === 403 && /^This is for the/.test(String(body.why))
      expect([role, refused, status < 500]).toEqual([role, !may, true])
    }
  })
})
