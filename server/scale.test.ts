import { QueryTypes } from 'sequelize'
import { v7 as uuidv7 } from 'uuid'
import { beforeAll, describe, expect, it } from 'vitest'
import { fill, type Size } from './bench/scale/fill'
import { type Read, READS } from './bench/scale/reads'
import type { App } from './context'
import { type Agent, makeTestApp, populate, serve, signedIn } from './testing/app'

/** Large enough that an index is worth its while, small enough to be made in seconds. */
const SIZE: Size = { sites: 2_000, equipment: 4_000, visits: 3_000, eventsOfVisit: 3, audit: 3_000 }

let app: App
let planner: Agent
let people: Record<NonNullable<Read['by']>, Agent>
const said: string[] = []
beforeAll(async () => {
  app = await makeTestApp()
  await populate(app)
  await fill(app.db.sequelize, SIZE, app.today())
  const server = serve(app)
  planner = await signedIn(server, 'planner')
  people = {
    technician: await signedIn(server, 'tester'),
    administrator: await signedIn(server, 'administrator'),
  }
  // Sequelize says every statement that it sends, with its values in it.
  const { options } = app.db.sequelize as unknown as { options: { logging: (sql: string) => void } }
  options.logging = (sql) => said.push(sql.replace(/^Executing \(.*?\): /, ''))
})

/** What the database was asked for, besides who is asking. */
const asked = () =>
  said.filter((s) => s.startsWith('SELECT') && !/FROM `?(session|person|licence)`?/.test(s))
async function statementsOf(agent: Agent, path: string) {
  said.length = 0
  const { body } = await agent.get(path).expect(200)
  return { body, own: asked() }
}
interface Plan {
  readonly table: string
  readonly type: string
  readonly rows: number | string
  readonly Extra: string | null
}
const planOf = (sql: string) =>
  app.db.sequelize.query<Plan>(`EXPLAIN ${sql}`, { type: QueryTypes.SELECT })
/** Tables of a handful of rows are read whole, whatever index there is. */
const tables = [
  'e',
  't',
  's',
  'c',
  'certificate',
  'customer',
  'visit',
  'equipment',
  'equipment_status',
  'site',
  'audit',
  'visit_event',
  'certificate_status',
  'stock_move',
]

describe('at the size of a utility', () => {
  it.each(READS)(
    '$name: no table is read whole, and no page is sorted',
    async ({ path: pattern, pages, by }) => {
      const path = pattern.replace('{today}', app.today())
      const agent = by ? people[by] : planner
      const { body, own } = await statementsOf(agent, path)
      expect(own.length).toBeGreaterThan(0)
      const next = body.next as string | null
      const later = next
        ? (await statementsOf(agent, `${path}${path.includes('?') ? '&' : '?'}cursor=${next}`)).own
        : []
      if (pages) expect(later.length).toBeGreaterThan(0)
      for (const sql of [...own, ...later]) {
        for (const step of await planOf(sql)) {
          const where = `${sql}\n${JSON.stringify(step)}`
          if (tables.includes(step.table)) expect(step.type, where).not.toBe('ALL')
          if (pages && tables.includes(step.table))
            expect(step.Extra ?? '', where).not.toMatch(/filesort|temporary/)
        }
      }
    },
  )
  it('counts the stock of years by an index alone', async () => {
    const { own } = await statementsOf(planner, '/api/v1/stock')
    const steps = (await Promise.all(own.map(planOf))).flat()
    const moves = steps.filter((s) => s.table === 'stock_move')
    expect(moves.map((s) => s.Extra)).toEqual([expect.stringMatching(/Using index/)])
  })
  it('finds by their indexes what lines of a table name', async () => {
    const lines = Array.from({ length: 50 }, (_, n) => ({
      line: n + 2,
      id: uuidv7(),
      cells: {
        tag: `RP-${90_000 + n}`,
        kind: 'RP',
        family: 'reduced-pressure-assembly',
        sizeIn: '2',
        serial: `K-${n}`,
        maker: 'Maker A',
        dueOn: '2027-03-31',
        position: 'Pit',
        customer: `Customer ${n + 1}`,
        site: `Another site ${n}`,
        address: '1 Quay',
        district: 'Harbour',
      },
    }))
    said.length = 0
    const { body } = await planner
      .post('/api/v1/equipment/import')
      .send({ lines, dates: 'year-first', keep: false })
      .expect(200)
    expect(new Set(body.items.map((i: { outcome: string }) => i.outcome))).toEqual(new Set(['new']))
    const own = asked()
    expect(own).toHaveLength(3)
    for (const sql of own)
      for (const { type, rows } of await planOf(sql)) {
        expect(type, sql).not.toBe('ALL')
        expect(Number.parseInt(String(rows)), sql).toBeLessThanOrEqual(500)
      }
  })
  it('goes through every piece of equipment once, page by page, however it is sorted', async () => {
    for (const sort of ['tag', '-tag', 'site', 'due', '-due']) {
      const seen: string[] = []
      let cursor: string | null = ''
      while (cursor !== null) {
        const { body }: { body: { items: { id: string }[]; next: string | null } } = await planner
          .get(`/api/v1/equipment?limit=200&sort=${sort}${cursor && `&cursor=${cursor}`}`)
          .expect(200)
        seen.push(...body.items.map((e) => e.id))
        cursor = body.next
      }
      expect([sort, seen.length, new Set(seen).size]).toEqual([sort, 4_001, 4_001])
    }
  })
})
