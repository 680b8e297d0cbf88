import type { Customer, Equipment } from '@uvanta/contract'
import { addDays } from '@uvanta/core/calendar'
import { v7 as uuidv7 } from 'uuid'
import { beforeAll, describe, expect, it, vi } from 'vitest'
import type { App } from './context'
import { createEquipment } from './service/register/equipment'
import {
  type Agent,
  equipmentInput,
  makeTestApp,
  populate,
  serve,
  signedIn,
  codeOf,
} from './testing/app'

let app: App
let planner: Agent
let admin: Agent
let siteId: string
let equipmentId: string
let technicianId: string
beforeAll(async () => {
  app = await makeTestApp()
  const { site, tester, equipment } = await populate(app)
  siteId = site.id
  equipmentId = equipment.id
  technicianId = tester.id
  const server = serve(app)
  planner = await signedIn(server, 'planner')
  admin = await signedIn(server, 'administrator')
  for (let n = 0; n < 24; n++) {
    await createEquipment(
      app,
      tester,
      equipmentInput(site.id, `RP-${200 + n}`, addDays(app.today(), n * 5 - 30)),
    )
  }
})
const gaugeInput = (tag: string) => ({
  tag,
  serial: 'S',
  maker: 'Maker B',
  span: '100',
  spanUnit: 'kPa',
  resolution: '0.1',
  accuracyPercent: 0.5,
  accuracyOf: 'span',
})
const search = async (query: string) =>
  (await planner.get(`/api/v1/equipment?${query}`).expect(200)).body as {
    items: Equipment[]
    next: string | null
  }

describe('searching equipment', () => {
  it('finds by the beginnings of words, in any order, whatever the case', async () => {
    expect((await search('q=seag%20rp-20')).items.map((e) => e.tag)).toEqual(
      Array.from({ length: 10 }, (_, n) => `RP-20${n}`),
    )
    expect((await search('q=S-RP-101')).items.map((e) => e.tag)).toEqual(['RP-101'])
  })
  it.each(['q=%25', 'q=nowhere', 'q=%27%20OR%201%3D1%20--', 'q=%2B-*%22()', 'q=~'])(
    'finds nothing for %s, and breaks nothing',
    async (q) => {
      expect((await search(q)).items).toEqual([])
    },
  )
  it.each(['tag', '-tag', 'due', '-due', 'site', '-site'])(
    'pages through everything once, sorted by %s',
    async (sort) => {
      const tags: string[] = []
      let cursor: string | null = ''
      for (let page = 0; cursor !== null && page < 20; page++) {
        const { items, next }: { items: Equipment[]; next: string | null } = await search(
          `sort=${sort}&limit=7${cursor ? `&cursor=${cursor}` : ''}`,
        )
        tags.push(...items.map((e) => e.tag))
        cursor = next
      }
      expect(tags).toHaveLength(25)
      expect(new Set(tags).size).toBe(25)
      if (sort === 'tag') expect(tags).toEqual([...tags].sort())
      if (sort === '-tag') expect(tags).toEqual([...tags].sort().reverse())
    },
  )
  it('filters by due date', async () => {
    const { items } = await search('due=overdue&limit=200')
    expect(items.length).toBeGreaterThan(0)
    expect(items.every((e) => e.dueOn! < app.today())).toBe(true)
  })
  it.each([
    ['in-order', '2026-11-30'],
    ['temporary-repair', '2026-11-30'],
    ['failed', null],
    ['not-assessed', null],
    ['never-tested', null],
  ] as const)('says until when a test is lawful for one that is %s', async (condition, until) => {
    const [{ id }] = (await search('q=RP-210')).items as [Equipment]
    await app.db.equipmentStatus.update(
      { condition, lastTestedOn: '2025-08-31' },
      { where: { equipmentId: id } },
    )
    expect((await search('q=RP-210')).items[0]!.lawfulUntil).toBe(until)
  })
  it('brings to the top what has to be repaired first, whenever its test is due', async () => {
    const days = { 'RP-211': '2027-03-01', 'RP-212': '2027-01-15', 'RP-213': '2027-02-01' }
    for (const [tag, repairBy] of Object.entries(days)) {
      const [{ id }] = (await search(`q=${tag}`)).items as [Equipment]
      const due = { dueOn: repairBy === '2027-01-15' ? '2028-01-01' : '2027-01-01' }
      await app.db.equipmentStatus.update(
        { condition: 'temporary-repair', repairBy, ...due },
        { where: { equipmentId: id } },
      )
    }
    const { items } = await search('condition=temporary-repair&sort=repair')
    expect(items.map((e) => e.tag).filter((tag) => tag in days)).toEqual([
      'RP-212',
      'RP-213',
      'RP-211',
    ])
  })
  it('refuses a cursor that is not its own', async () => {
    const response = await planner.get('/api/v1/equipment?cursor=bm9wZQ')
    expect(response.status).toBe(422)
    expect(codeOf(response)).toBe('cursor-unknown')
  })
})

describe('a station', () => {
  const put = async (tag: string, body: object) => {
    const { items } = await search(`q=${tag}`)
    const { id, version } = items[0]!
    await planner
      .patch(`/api/v1/equipment/${id}`)
      .set('If-Match', `"${version}"`)
      .send(body)
      .expect(200)
    return id
  }
  const line = async (id: string) =>
    (
      (await planner.get(`/api/v1/equipment/${id}/station`).expect(200)).body.items as Equipment[]
    ).map((e) => e.tag)
  it('is what bears its name at the site, from the inlet on', async () => {
    const last = await put('RP-221', { station: 'Pit A', stationPlace: 2 })
    await put('RP-222', { station: 'Pit A', stationPlace: 1 })
    await put('RP-223', { station: 'Pit B', stationPlace: 1 })
    expect(await line(last)).toEqual(['RP-222', 'RP-221'])
    await put('RP-222', { station: null, stationPlace: null })
    expect(await line(last)).toEqual(['RP-221'])
    expect(await line(await put('RP-222', { position: 'Pit' }))).toEqual([])
  })
  it('refuses a place that is none', async () => {
    const { items } = await search('q=RP-221')
    const { id, version } = items[0]!
    for (const stationPlace of [0, 1.5, 51]) {
      await planner
        .patch(`/api/v1/equipment/${id}`)
        .set('If-Match', `"${version}"`)
        .send({ stationPlace })
        .expect(422)
    }
  })
})

describe('changing a record', () => {
  it('needs the version that was seen', async () => {
    const { items } = await search('q=RP-205')
    const path = `/api/v1/equipment/${items[0]!.id}`
    const { headers } = await planner.get(path)
    expect(headers.etag).toBe('"1"')
    expect((await planner.patch(path).send({ serial: 'NEW' })).status).toBe(428)
    await planner.patch(path).set('If-Match', '"1"').send({ serial: 'NEW-SERIAL' }).expect(200)
    const stale = await planner.patch(path).set('If-Match', '"1"').send({ serial: 'LATER' })
    expect(stale.status).toBe(412)
    expect(codeOf(stale)).toBe('stale')
    expect((await search('q=NEW-SERIAL')).items.map((e) => e.tag)).toEqual(['RP-205'])
  })
  it('sent five times at the same moment stands once, and each is told how', async () => {
    const at = app.today()
    const record = {
      customers: { id: uuidv7(), name: 'Five at once' },
      gauges: { ...gaugeInput('G-78'), id: uuidv7() },
      equipment: equipmentInput(siteId, 'RP-901', at),
      visits: {
        id: uuidv7(),
        equipmentId,
        technicianId,
        plannedOn: addDays(at, 3),
        purpose: 'periodic-test',
        rulePack: 'larkhaven-relief-first',
      },
    }
    for (const [path, body] of Object.entries(record)) {
      const agent = path === 'gauges' ? admin : planner
      const answers = await Promise.all(
        Array.from({ length: 5 }, () => agent.post(`/api/v1/${path}`).send(body)),
      )
      expect(answers.map((a) => [path, a.status, a.body.id])).toEqual(
        Array.from({ length: 5 }, () => [path, 200, body.id]),
      )
    }
  })
  it('creating twice with one id makes one record', async () => {
    const body = equipmentInput(siteId, 'RP-900', app.today())
    await planner.post('/api/v1/equipment').send(body).expect(200)
    await planner.post('/api/v1/equipment').send(body).expect(200)
    expect((await planner.post('/api/v1/equipment').send({ ...body, id: uuidv7() })).status).toBe(
      409,
    )
  })
  it('refuses a kind that the family does not have, and says which there are', async () => {
    const response = await planner
      .post('/api/v1/equipment')
      .send({ ...equipmentInput(siteId, 'X-1', app.today()), kind: 'DC' })
    expect(response.status).toBe(422)
    expect(codeOf(response)).toBe('kind-unknown')
  })
})

describe('a customer and its sites', () => {
  const add = async (name: string, site: string) => {
    const customer = { id: uuidv7(), name, contact: 'The caretaker', phone: '555 0123' }
    await planner.post('/api/v1/customers').send(customer).expect(200)
    const at = {
      id: uuidv7(),
      customerId: customer.id,
      name: site,
      address: '4 Kiln Lane',
      district: 'East quay',
      access: 'Key at the gate.',
    }
    await planner.post('/api/v1/sites').send(at).expect(200)
    return { customer, site: at }
  }
  const found = async (agent: Agent, q: string) =>
    (await agent.get(`/api/v1/customers?q=${encodeURIComponent(q)}`).expect(200)).body
      .items as Customer[]

  it('are found by words of either', async () => {
    const { customer, site } = await add('Pottery of the quay', 'Kiln house')
    for (const q of ['pottery', 'kiln ho'])
      expect((await found(planner, q)).map((c) => [c.id, c.sites.map((s) => s.id)])).toEqual([
        [customer.id, [site.id]],
      ])
    expect(await found(planner, '%')).toEqual([])
  })
  it('are gone through once, page by page, also where names are the same', async () => {
    for (let n = 0; n < 5; n++) await add('Twin', `Twin ${n}`)
    const seen: string[] = []
    let cursor: string | null = ''
    while (cursor !== null) {
      const { body }: { body: { items: Customer[]; next: string | null } } = await planner
        .get(`/api/v1/customers?limit=2${cursor && `&cursor=${cursor}`}`)
        .expect(200)
      seen.push(...body.items.map((c) => c.id))
      cursor = body.next
    }
    expect(new Set(seen).size).toBe(seen.length)
    expect(seen).toHaveLength(await app.db.customers.count())
  })
  it('are changed as they were seen, and what is there is found by the new names', async () => {
    const { customer, site } = await add('Old name', 'Old site')
    await planner
      .post('/api/v1/equipment')
      .send(equipmentInput(site.id, 'RP-800', app.today()))
      .expect(200)
    const change = (path: string, version: number, body: object) =>
      planner.patch(path).set('If-Match', `"${version}"`).send(body)
    const path = `/api/v1/customers/${customer.id}`
    const changed = await change(path, 1, { name: 'Nova works', phone: '' }).expect(200)
    expect(changed.body).toMatchObject({ name: 'Nova works', phone: '', contact: 'The caretaker' })
    await change(path, 1, { phone: '555 0199' }).expect(412)
    const at = await change(`/api/v1/sites/${site.id}`, 1, { name: 'Umbra hall', access: '' })
    expect(at.body).toMatchObject({ name: 'Umbra hall', access: '', address: '4 Kiln Lane' })
    for (const q of ['nova', 'umbra'])
      expect((await search(`q=${q}`)).items.map((e) => e.tag)).toEqual(['RP-800'])
    expect((await search('q=old')).items).toEqual([])
    expect((await search('q=umbra')).items[0]?.site.name).toBe('Umbra hall')
    const { body } = await admin.get('/api/v1/audit?limit=2').expect(200)
    expect(body.items.map((l: { action: string }) => l.action)).toEqual([
      'changed name, access of a site',
      'changed name, phone of a customer',
    ])
  })
  it('tell a trainee nothing of whom to call and how to get in', async () => {
    const { customer } = await add('Quiet works', 'Back door')
    const trainee = await signedIn(serve(app), 'trainee')
    const [seen] = await found(trainee, 'quiet')
    expect(seen).toMatchObject({ id: customer.id, contact: '', phone: '' })
    expect(seen?.sites).toMatchObject([{ name: 'Back door', access: '' }])
    const { body } = await trainee.get('/api/v1/sites?q=Back').expect(200)
    expect(body.items).toMatchObject([{ name: 'Back door', access: '' }])
  })
})

describe('the office', () => {
  it('keeps gauges with their calibrations, and writes the audit trail', async () => {
    const id = uuidv7()
    const gauge = { ...gaugeInput('G-77'), id }
    await admin.post('/api/v1/gauges').send(gauge).expect(200)
    const backwards = {
      id: uuidv7(),
      calibratedOn: '2026-05-01',
      validUntil: '2026-04-01',
      certificate: 'C',
    }
    expect(
      (await admin.post(`/api/v1/gauges/${id}/calibrations`).send(backwards)).body.detail,
    ).toMatch(/Check both dates/)
    const calibrated = await admin
      .post(`/api/v1/gauges/${id}/calibrations`)
      .send({ ...backwards, validUntil: '2027-05-01' })
      .expect(200)
    expect(calibrated.body.calibrations).toHaveLength(1)
    const { body } = await admin.get('/api/v1/audit').expect(200)
    expect(body.items.map((l: { action: string }) => l.action)).toContain('added a gauge')
  })
  it('changes nothing that the audit trail cannot say: both are written, or neither', async () => {
    const broken = vi.spyOn(app.db.audit, 'create').mockRejectedValue(new Error('disk full'))
    const id = uuidv7()
    const customer = { id, name: 'Ferry terminal' }
    const equipment = equipmentInput(siteId, 'RP-999', app.today())
    const { items } = await search('q=RP-206')
    const path = `/api/v1/equipment/${items[0]!.id}`
    try {
      expect((await planner.post('/api/v1/customers').send(customer)).status).toBe(500)
      expect((await planner.post('/api/v1/equipment').send(equipment)).status).toBe(500)
      const change = { serial: 'UNSAID', dueOn: addDays(app.today(), 300) }
      expect((await planner.patch(path).set('If-Match', '"1"').send(change)).status).toBe(500)
    } finally {
      broken.mockRestore()
    }
    expect(await app.db.customers.findByPk(id)).toBeNull()
    expect((await search('q=RP-999')).items).toEqual([])
    expect((await planner.get(path).expect(200)).body).toEqual(items[0])
    await planner.post('/api/v1/customers').send(customer).expect(200)
  })
  it('does not let the last hand on the door lock itself out', async () => {
    const { body } = await admin.get('/api/v1/session')
    const response = await admin
      .patch(`/api/v1/people/${body.person.id}`)
      .set('If-Match', '"1"')
      .send({ active: false })
    expect(codeOf(response)).toBe('own-administrator')
  })
})
