import type { ProblemDetails } from '@uvanta/contract'
import { v7 as uuidv7 } from 'uuid'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { type Agent, equipmentInput, makeTestApp, populate, serve, signedIn } from './testing/app'
import { arrival, draft, plan, testOf } from './testing/visit'

/** Wrong in every way people and programs get it wrong; each is refused in words and changes nothing. */
const SCRIPT = '<script>alert(1)</script>'
const SQL = "'; DROP TABLE visit; --"
const HUGE = 'x'.repeat(50_000)
const VALUES: readonly unknown[] = [
  null,
  42.5,
  -1,
  Number.POSITIVE_INFINITY,
  true,
  [],
  {},
  '',
  '   ',
  SCRIPT + HUGE,
  SQL + HUGE,
  '1899-12-31',
  'NaN',
  ['a', ['b']],
  { $gt: '' },
]

interface Attempt {
  readonly name: string
  readonly method: 'get' | 'post' | 'patch' | 'put' | 'delete'
  readonly path: string
  readonly body?: unknown
  readonly raw?: string
  readonly headers?: Readonly<Record<string, string>>
}

let app: App
let agents: { tester: Agent; planner: Agent; admin: Agent }
let attempts: Attempt[] = []

beforeAll(async () => {
  app = await makeTestApp()
  const world = await populate(app)
  const server = serve(app)
  agents = {
    tester: await signedIn(server, 'tester'),
    planner: await signedIn(server, 'planner'),
    admin: await signedIn(server, 'administrator'),
  }
  const visit = await plan(app, agents.tester, world.equipment.id, world.tester.id)
  const foreign = await plan(app, agents.planner, world.equipment.id, world.other.id)
  attempts = makeAttempts(visit.id, foreign.id, world.site.id, world.equipment.id, world.gaugeId)
})

function makeAttempts(
  visitId: string,
  foreignId: string,
  siteId: string,
  equipmentId: string,
  gaugeId: string,
): Attempt[] {
  const events = `/api/v1/visits/${visitId}/events`
  const note = draft('note', { station: 'prepare', text: 'x' })
  const post = (name: string, path: string, body: unknown): Attempt => ({
    name,
    method: 'post',
    path,
    body,
  })
  const equipment = equipmentInput(siteId, 'BAD-1', '2026-01-01')
  const [started, , reading] = testOf(app, gaugeId, 'as-found', '7.0')
  const list: Attempt[] = []

  for (const value of VALUES) {
    const shown = String(JSON.stringify(value)).slice(0, 24)
    for (const field of ['kind', 'siteId', 'sizeIn', 'service', 'dueOn', 'programme'] as const) {
      list.push(
        post(`equipment ${field}=${shown}`, '/api/v1/equipment', {
          ...equipment,
          id: uuidv7(),
          [field]: value,
        }),
      )
    }
    for (const field of ['id', 'kind', 'payload', 'deviceTime', 'deviceOffset'] as const) {
      if (field === 'payload' && value === undefined) continue
      list.push(
        post(`event ${field}=${shown}`, events, {
          expected: 1,
          events: [
            {
              ...note,
              id: uuidv7(),
              [field]: value === -1 && field === 'deviceOffset' ? 99_999 : value,
            },
          ],
        }),
      )
    }
    list.push(post(`events=${shown}`, events, { expected: 1, events: value }))
    list.push(
      post(`signing event=${shown}`, `/api/v1/visits/${visitId}/sign`, {
        expected: 1,
        password: 'x',
        event: value,
      }),
    )
  }
  for (const kind of ['planned', 'certificate-issued']) {
    list.push(
      post(`a server’s event ${kind}`, events, {
        expected: 1,
        events: [{ ...note, id: uuidv7(), kind, payload: {} }],
      }),
    )
  }
  for (const value of ['NaN', 'Infinity', '1e99', '5,4', '', '--5', '٣', '5.4 psi', '0x10']) {
    list.push(
      post(`reading ${value}`, events, {
        expected: 1,
        events: [{ ...reading!, id: uuidv7(), payload: { ...reading!.payload, value } }],
      }),
    )
  }
  for (const unit of ['lbf·in', 'N·m', 'furlong', '', 'PSI']) {
    list.push(
      post(`unit ${unit}`, events, {
        expected: 1,
        events: [{ ...reading!, id: uuidv7(), payload: { ...reading!.payload, unit } }],
      }),
    )
  }
  list.push(
    post('reading before the test', events, { expected: 1, events: [reading] }),
    post('test before arrival', events, { expected: 1, events: [started] }),
    post('unknown field', events, { expected: 1, events: [note], admin: true }),
    post('unknown field in an event', events, { expected: 1, events: [{ ...note, seq: 5 }] }),
    post('unknown field in a payload', events, {
      expected: 1,
      events: [{ ...note, payload: { ...note.payload, hash: 'x' } }],
    }),
    post('the same id twice', events, { expected: 1, events: [note, note] }),
    post('201 events', events, {
      expected: 1,
      events: Array.from({ length: 201 }, () => draft('note', { station: 'prepare', text: 'x' })),
    }),
    post('expecting less than nothing', events, { expected: -1, events: [note] }),
    post('expecting a fraction', events, { expected: 0.5, events: [note] }),
    post('somebody else’s visit', `/api/v1/visits/${foreignId}/events`, {
      expected: 1,
      events: arrival(),
    }),
    post('signing somebody else’s visit', `/api/v1/visits/${foreignId}/sign`, {
      expected: 1,
      password: 'x',
      event: draft('signed', { signature: 'M', name: 'x', outcome: 'pass' }),
    }),
    post('a visit in 1899', '/api/v1/visits', {
      id: uuidv7(),
      equipmentId,
      technicianId: equipmentId,
      plannedOn: '1899-12-31',
      purpose: 'periodic-test',
      rulePack: 'larkhaven-relief-first',
    }),
    post('a visit by nobody', '/api/v1/visits', {
      id: uuidv7(),
      equipmentId,
      technicianId: uuidv7(),
      plannedOn: '2026-01-01',
      purpose: 'periodic-test',
      rulePack: 'larkhaven-relief-first',
    }),
    post('a computation that is not there', '/api/v1/compute/rm-rf', {}),
    post('a conversion across dimensions', '/api/v1/compute/convert-quantity', {
      dimension: 'torque',
      value: '5',
      unit: 'psi',
      to: 'N·m',
    }),
    post(
      'a prototype',
      '/api/v1/compute/convert-quantity',
      JSON.parse('{"__proto__":{"x":1},"dimension":"torque"}'),
    ),
    {
      name: 'a role nobody has',
      method: 'post',
      path: '/api/v1/people',
      body: { id: uuidv7(), username: 'x', name: 'x', roles: ['king'], password: 'long enough 1' },
    },
    {
      name: 'a script as JSON',
      method: 'post',
      path: events,
      raw: SCRIPT,
      headers: { 'Content-Type': 'application/json' },
    },
    {
      name: 'half a JSON',
      method: 'post',
      path: events,
      raw: '{"expected":',
      headers: { 'Content-Type': 'application/json' },
    },
    {
      name: 'a bare string',
      method: 'post',
      path: events,
      raw: '"x"',
      headers: { 'Content-Type': 'application/json' },
    },
    {
      name: 'a form',
      method: 'post',
      path: events,
      raw: 'expected=1',
      headers: { 'Content-Type': 'application/x-www-form-urlencoded' },
    },
    {
      name: 'an unknown charset',
      method: 'post',
      path: events,
      raw: '{}',
      headers: { 'Content-Type': 'application/json; charset=klingon' },
    },
    {
      name: 'two megabytes',
      method: 'post',
      path: events,
      raw: `{"x":"${'x'.repeat(2_000_000)}"}`,
      headers: { 'Content-Type': 'application/json' },
    },
    { name: 'an unknown method', method: 'put', path: '/api/v1/equipment' },
    { name: 'an unknown address', method: 'get', path: '/api/v1/nothing' },
    { name: 'a broken escape', method: 'get', path: '/api/v1/equipment/%E0%A4%A' },
    {
      name: 'an id that is SQL',
      method: 'get',
      path: `/api/v1/equipment/${encodeURIComponent(SQL)}`,
    },
    {
      name: 'a path that climbs',
      method: 'get',
      path: '/api/v1/certificates/..%2f..%2fetc%2fpasswd/pdf',
    },
    { name: 'a limit of words', method: 'get', path: '/api/v1/equipment?limit=lots' },
    { name: 'a limit too high', method: 'get', path: '/api/v1/equipment?limit=100000' },
    { name: 'an unknown filter', method: 'get', path: '/api/v1/equipment?drop=table' },
    { name: 'a filter given twice', method: 'get', path: '/api/v1/equipment?q=a&q=b' },
    { name: 'a sort that is SQL', method: 'get', path: '/api/v1/equipment?sort=tag%3B%20DROP' },
    { name: 'a date in 1899', method: 'get', path: '/api/v1/visits?on=1899-12-31' },
    { name: 'the 31st of February', method: 'get', path: '/api/v1/visits?on=2026-02-31' },
    {
      name: 'a version that is none',
      method: 'patch',
      path: `/api/v1/equipment/${equipmentId}`,
      body: { serial: 'x' },
      headers: { 'If-Match': '*' },
    },
    {
      name: 'a change of what cannot change',
      method: 'patch',
      path: `/api/v1/equipment/${equipmentId}`,
      body: { id: uuidv7() },
      headers: { 'If-Match': '"1"' },
    },
  )
  return list
}

describe('malformed and hostile requests', () => {
  it('are refused in words, one by one, and change nothing', async () => {
    expect(attempts.length).toBeGreaterThanOrEqual(200)
    const before = await digest()
    const wrong: string[] = []
    for (const a of attempts) {
      const agent =
        a.path.includes('/visits/') || a.path.includes('compute')
          ? agents.tester
          : a.path.includes('/people')
            ? agents.admin
            : agents.planner
      const request = agent[a.method](a.path).set(a.headers ?? {})
      const response = await (a.raw !== undefined
        ? request.send(a.raw)
        : a.body !== undefined
          ? request.send(a.body as object)
          : request)
      const problem = response.body as Partial<ProblemDetails>
      const coded = /^urn:uvanta:problem:[a-z]+(-[a-z]+)*$/.test(problem.type ?? '')
      const halves =
        problem.detail?.toLowerCase() === `${problem.why} ${problem.remedy}`.toLowerCase()
      const sentence = /^[“A-Z].{10,}[.!]$/s.test(problem.detail ?? '')
      const typed = /application\/problem\+json/.test(String(response.headers['content-type']))
      if (
        response.status < 400 ||
        response.status >= 500 ||
        !sentence ||
        !typed ||
        !coded ||
        !halves
      ) {
        wrong.push(`${a.name}: ${response.status} ${String(problem.detail)}`)
      }
    }
    expect(wrong).toEqual([])
    expect(await digest()).toEqual(before)
  })
})

/** Checksums of everything but the sessions and the counts of what was asked and tried. */
async function digest(): Promise<unknown[]> {
  const [tables] = await app.db.sequelize.query("SHOW FULL TABLES WHERE Table_type = 'BASE TABLE'")
  const names = (tables as Record<string, string>[])
    .map((t) => String(Object.values(t)[0]))
    .filter((n) => !['session', 'wrong_password', 'request_count'].includes(n))
  const [sums] = await app.db.sequelize.query(`CHECKSUM TABLE ${names.join(', ')}`)
  return sums as unknown[]
}
