import { allEndpoints, type Endpoint, type Method } from '@uvanta/contract'
import { QueryTypes } from 'sequelize'
import { v7 as uuidv7 } from 'uuid'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { Seeded } from './demo/random'
import { openApiDocument } from './http/openapi'
import { type Agent, makeTestApp, populate, serve, signedIn } from './testing/app'

/** Rows are counted once in so many requests. */
const WINDOW = 10
/** So many requests are made up; a long run says more: UVANTA_FUZZ=10000. */
const REQUESTS = Number(process.env.UVANTA_FUZZ ?? 1_000)

const random = new Seeded(20_261_127)
const dice = (sides: number) => random.whole(0, sides - 1)
const oneOf = <T>(list: readonly T[]): T => random.pick(list)

type Schema = Record<string, unknown>
const STRANGE: readonly unknown[] = [
  null,
  true,
  -1,
  0,
  1e308,
  0.1,
  '',
  ' ',
  'x',
  'NaN',
  '\u0000',
  '\u202e',
  "'; DROP TABLE visit; --",
  '<script>alert(1)</script>',
  '../../etc/passwd',
  'x'.repeat(5_000),
  [],
  {},
  [[[[]]]],
  { $gt: '' },
  '2026-02-31',
  '9999-12-31',
  '1e9999',
  'null',
  [null],
]

/** Something that a schema takes, or nearly: one value in six is anything at all. */
function made(schema: Schema | undefined, depth = 0): unknown {
  if (!schema || depth > 6 || dice(6) === 0) return oneOf(STRANGE)
  const {
    enum: options,
    const: only,
    oneOf: ways,
    anyOf,
    type,
    items,
    properties,
    required,
    format,
  } = schema as {
    enum?: unknown[]
    const?: unknown
    oneOf?: Schema[]
    anyOf?: Schema[]
    type?: string | string[]
    items?: Schema
    properties?: Record<string, Schema>
    required?: string[]
    format?: string
  }
  if (only !== undefined) return only
  if (options) return oneOf(options)
  if (ways ?? anyOf) return made(oneOf((ways ?? anyOf) as Schema[]), depth + 1)
  const kind = Array.isArray(type) ? type[0] : type
  if (kind === 'array') return Array.from({ length: dice(4) }, () => made(items, depth + 1))
  if (kind === 'number' || kind === 'integer') return oneOf([0, 1, -1, 7.2, 2 ** 53, dice(1_000)])
  if (kind === 'boolean') return dice(2) === 0
  if (properties)
    return Object.fromEntries(
      Object.entries(properties)
        .filter(([name]) => required?.includes(name) ?? dice(2) === 0)
        .map(([name, s]) => [name, made(s, depth + 1)]),
    )
  if (format === 'uuid') return uuidv7()
  if (format === 'date') return oneOf(['2026-11-27', '2026-02-31'])
  return oneOf(['psi', '2.4', 'as-found', 'check-1', 'prepare', 'x y', uuidv7()])
}

let app: App
let agents: Agent[]
beforeAll(async () => {
  app = await makeTestApp()
  await populate(app)
  const server = serve(app)
  agents = []
  for (const name of ['tester', 'planner', 'reviewer', 'administrator', 'trainee'])
    agents.push(await signedIn(server, name))
})

const TABLES = [
  'person',
  'customer',
  'site',
  'equipment',
  'visit',
  'visit_event',
  'certificate',
  'gauge',
  'stock_move',
  'photo',
  'audit',
]
const counts = async () => {
  const sql = TABLES.map((t) => `SELECT '${t}' AS name, COUNT(*) AS n FROM ${t}`).join(
    ' UNION ALL ',
  )
  const rows = await app.db.sequelize.query<{ name: string; n: number }>(sql, {
    type: QueryTypes.SELECT,
  })
  return Object.fromEntries(rows.map((r) => [r.name, Number(r.n)]))
}

describe(`${REQUESTS} requests made up from the interface’s own description`, () => {
  it('meet no fault of ours, show nothing of the inside, and change nothing when they are refused', async () => {
    const document = JSON.parse(JSON.stringify(openApiDocument())) as {
      paths: Record<
        string,
        Record<string, { requestBody?: { content: Record<string, { schema: Schema }> } }>
      >
    }
    // Signing out, a new password and a person’s own rights would end what the other requests are made with.
    const calls = allEndpoints.filter(
      (e: Endpoint) => !/\/session|\/people|\/devices/.test(e.path) && !e.upload,
    )
    const faults: string[] = []
    let before = await counts()
    let taken = false
    const since: string[] = []
    for (let n = 0; n < REQUESTS; n++) {
      const e = oneOf(calls)
      const schema =
        document.paths[e.path]?.[e.method]?.requestBody?.content['application/json']?.schema
      const query =
        dice(3) === 0
          ? `?cursor=${encodeURIComponent(String(oneOf(STRANGE)))}&limit=${String(oneOf([0, -1, 'x', 50]))}`
          : ''
      const path = e.path.replaceAll(/\{\w+\}/g, () =>
        dice(4) === 0 ? encodeURIComponent(String(oneOf(STRANGE))) || 'x' : uuidv7(),
      )
      const body = schema ? made(schema) : undefined
      const request = oneOf(agents)
        [e.method as Method](`${path}${query}`)
        .set('If-Match', oneOf(['"1"', '"x"', '*']))
      const answer =
        body === undefined ? await request : await request.type('json').send(JSON.stringify(body))
      const what = `${e.method} ${path}${query} ${String(JSON.stringify(body)).slice(0, 300)}`
      if (answer.status >= 500) faults.push(`${answer.status} ${what}: ${answer.text}`)
      if (/node_modules|at \w+ \(|SELECT |argon2|\[object /.test(answer.text))
        faults.push(`leak ${what}: ${answer.text.slice(0, 300)}`)
      if (answer.status < 400 && e.method !== 'get') taken = true
      since.push(`${answer.status} ${what}`)
      if (n % WINDOW !== WINDOW - 1) continue
      const after = await counts()
      if (!taken && JSON.stringify(after) !== JSON.stringify(before))
        faults.push(`changed by one of these, all refused:\n${since.join('\n')}`)
      before = after
      taken = false
      since.length = 0
    }
    expect(faults).toEqual([])
  }, 600_000)
})
