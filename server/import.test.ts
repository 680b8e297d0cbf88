import type { ImportColumn, ImportedLine } from '@uvanta/contract'
import { v7 as uuidv7 } from 'uuid'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { verifyChains } from './service/integrity/verifyChains'
import { type Agent, makeTestApp, populate, serve, signedIn } from './testing/app'

let app: App
let planner: Agent
let server: ReturnType<typeof serve>
beforeAll(async () => {
  app = await makeTestApp()
  await populate(app)
  server = serve(app)
  planner = await signedIn(server, 'planner')
})

type Cells = { [C in ImportColumn]?: string }
const base: Cells = {
  kind: 'RP',
  family: 'Reduced-pressure assembly',
  sizeIn: '1 1/2',
  serial: 'S-1',
  maker: 'Maker A',
  dueOn: '2027-03-31',
  position: 'Plant room',
  customer: 'Larkhaven Leisure',
  site: 'Seagate Public Bath',
}
const send = (agent: Agent, keep: boolean, ...lines: Cells[]) =>
  agent.post('/api/v1/equipment/import').send({
    lines: lines.map((cells, n) => ({ line: n + 2, id: uuidv7(), cells })),
    dates: 'year-first',
    keep,
  })
const answered = async (keep: boolean, ...lines: Cells[]) =>
  (await send(planner, keep, ...lines).expect(200)).body.items as ImportedLine[]
const outcomes = (items: ImportedLine[]) => items.map((i) => i.outcome)
const counted = async () => ({
  customers: await app.db.customers.count(),
  sites: await app.db.sites.count(),
  equipment: await app.db.equipment.count(),
  audit: await app.db.audit.count(),
})
const found = async (tag: string) =>
  (await planner.get(`/api/v1/equipment?q=${tag}`).expect(200)).body.items[0]

describe('a table of equipment', () => {
  it('is looked at without a change to the register', async () => {
    const before = await counted()
    const said = await answered(
      false,
      { ...base, tag: 'RP-801' },
      { ...base, tag: 'RP-802', site: 'Tidal Mill', address: '3 Quay', district: 'Harbour' },
      { ...base, tag: 'RP-101' },
    )
    expect(outcomes(said)).toEqual(['new', 'new', 'refused'])
    expect(said[2]!.faults).toEqual([
      { column: 'tag', message: 'is taken by what has the serial S-RP-101: choose another' },
    ])
    expect(await counted()).toEqual(before)
  })

  it('is brought in, with sites and customers that were not there, once each, and a line of the audit each', async () => {
    const before = await counted()
    const mill = {
      ...base,
      customer: 'Tidal Mills',
      phone: '555 0188',
      site: 'Tidal Mill',
      address: '3 Quay',
      district: 'Harbour',
      access: 'Bell at the wheel',
    }
    const said = await answered(
      true,
      { ...mill, tag: 'RP-811' },
      { ...mill, tag: 'RP-812', site: 'tidal mill ', customer: 'TIDAL MILLS' },
      { ...base, tag: 'RP-813' },
    )
    expect(outcomes(said)).toEqual(['new', 'new', 'new'])
    const after = await counted()
    expect(after).toEqual({
      customers: before.customers + 1,
      sites: before.sites + 1,
      equipment: before.equipment + 3,
      audit: before.audit + 5,
    })
    expect(await found('RP-812')).toMatchObject({
      sizeIn: '1.5',
      service: 'water',
      programme: 'backflow-annual',
      condition: 'never-tested',
      dueOn: '2027-03-31',
      lastTestedOn: null,
      site: { name: 'Tidal Mill', customer: 'Tidal Mills', address: '3 Quay' },
    })
    const { faults } = await verifyChains(app)
    expect(faults).toEqual([])
  })

  it('is not guessed at where a site stands in the register twice', async () => {
    const twice = {
      ...base,
      customer: 'Two Ways Bakery',
      site: 'Mill Lane',
      address: '1 Mill Lane',
      district: 'Harbour',
    }
    await answered(true, { ...twice, tag: 'RP-840' })
    const [site] = await app.db.sites.findAll({ where: { name: 'Mill Lane' } })
    await planner
      .post('/api/v1/sites')
      .send({
        id: uuidv7(),
        customerId: site!.customerId,
        name: 'Mill Lane',
        address: '9 Mill Lane',
        district: 'Harbour',
      })
      .expect(200)
    const before = await counted()
    const [said] = await answered(true, { ...twice, tag: 'RP-841' })
    expect(said?.outcome).toBe('refused')
    expect(said!.faults.map((f) => f.column)).toEqual(['site'])
    expect(await counted()).toEqual(before)
  })
  it('is taken up where it was broken off: what is there is not brought in twice', async () => {
    const lines = [
      { ...base, tag: 'RP-821' },
      { ...base, tag: 'RP-822' },
    ]
    await answered(true, lines[0]!)
    const before = await counted()
    expect(outcomes(await answered(true, ...lines))).toEqual(['there', 'new'])
    expect(outcomes(await answered(true, ...lines))).toEqual(['there', 'there'])
    expect((await counted()).equipment).toBe(before.equipment + 1)
    // Another piece with the same tag is not that one.
    expect(outcomes(await answered(true, { ...lines[0]!, serial: 'S-2' }))).toEqual(['refused'])
  })

  it('brings a new customer and site in once, when five send them at the same moment', async () => {
    const yard = {
      ...base,
      customer: 'Rope Yard Trust',
      site: 'Rope Yard',
      address: '9 Ropewalk',
      district: 'Harbour',
    }
    const sent = await Promise.all(
      [1, 2, 3, 4, 5].map((n) =>
        send(planner, true, { ...yard, tag: `RP-83${n}` }, { ...yard, tag: 'RP-830' }),
      ),
    )
    expect(sent.map((s) => s.status)).toEqual([200, 200, 200, 200, 200])
    const shared = sent.map((s) => (s.body.items as ImportedLine[])[1]!.outcome)
    expect(shared.filter((o) => o === 'new')).toHaveLength(1)
    expect(shared.filter((o) => o === 'there')).toHaveLength(4)
    const { items } = (await planner.get('/api/v1/customers?q=rope').expect(200)).body
    expect(items.map((c: { sites: unknown[] }) => c.sites.length)).toEqual([1])
  })

  it('says all that is wrong with a line, and nothing that only follows from it', async () => {
    const [said] = await answered(true, {
      ...base,
      tag: 'RP-841',
      kind: 'RPX',
      family: '',
      sizeIn: 'DN 50',
      serial: '',
      dueOn: '31.03.2027',
    })
    expect(said!.outcome).toBe('refused')
    expect(said!.faults.map((f) => f.column).sort()).toEqual(['dueOn', 'kind', 'serial', 'sizeIn'])
  })
  it.each<[string, Cells, ImportColumn, RegExp]>([
    ['a kind of several families', { family: '' }, 'family', /several know this kind/],
    ['a kind of another family', { kind: 'DC' }, 'kind', /choose one of RP$/],
    ['a day that is none', { dueOn: '2027-02-30' }, 'dueOn', /must be a date/],
    ['a figure that it is not judged by', { 'set-point': '60 psi' }, 'set-point', /leave it empty/],
    ['another address of its site', { address: '2 Seagate' }, 'address', /1 Seagate/],
    ['a new site without its place', { site: 'Somewhere' }, 'address', /not in the register yet/],
    ['hidden letters', { position: 'Plant\u202eroom' }, 'position', /cannot be seen/],
    ['a spec sheet that is none', { specSheet: 'nobody’s' }, 'specSheet', /not known here/],
  ])('refuses %s', async (_, cells, column, message) => {
    const [said] = await answered(true, { ...base, tag: 'RP-851', ...cells })
    expect(said!.faults).toEqual([{ column, message: expect.stringMatching(message) }])
    expect(await found('RP-851')).toBeUndefined()
  })

  it('brings in what it is judged by', async () => {
    const regulator = {
      ...base,
      family: '',
      kind: 'Spring Regulator',
      tag: 'SR-861',
      'set-point': '14 inH2O',
      'relief-set': '1 psig',
    }
    expect(outcomes(await answered(true, regulator))).toEqual(['new'])
    expect(await found('SR-861')).toMatchObject({
      family: 'spring-regulator',
      kind: 'spring regulator',
      service: 'gas',
      setPoint: { dimension: 'gaugePressure', value: '14', unit: 'inH2O' },
      nominals: [{ name: 'relief-set', value: { value: '1', unit: 'psi' } }],
    })
  })

  it('takes no id that another piece has, and then nothing of what was sent with it', async () => {
    const { id } = await found('RP-101')
    const line = (tag: string, own = uuidv7()) => ({ line: 2, id: own, cells: { ...base, tag } })
    const before = await counted()
    const lines = [line('RP-881'), line('RP-882', id)]
    await planner
      .post('/api/v1/equipment/import')
      .send({ lines, dates: 'year-first', keep: true })
      .expect(409)
    expect(await counted()).toEqual(before)
  })

  it('is for those who keep the register, in pieces', async () => {
    for (const who of ['tester', 'trainee', 'reviewer'])
      await send(await signedIn(server, who), true, { ...base, tag: 'RP-871' }).expect(403)
    const many = Array.from({ length: 51 }, (_, n) => ({ ...base, tag: `RP-9${n}` }))
    await send(planner, true, ...many).expect(422)
    expect(await found('RP-871')).toBeUndefined()
  })
})
