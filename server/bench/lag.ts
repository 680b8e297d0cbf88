import { monitorEventLoopDelay } from 'node:perf_hooks'
import { MOST_LINES } from '@uvanta/contract'
import type { CertificatePayload } from '@uvanta/core/certificate'
import { computationNamed } from '@uvanta/core/registry'
import { col, fn, Op } from 'sequelize'
import { v7 as uuidv7 } from 'uuid'
import type { App } from '../context'
import { atOnce, type HeavyWork, inWorkers } from '../heavy/heavyWork'
import { aNote } from './append'
import { signedInFetch } from './measure'

const PAPERS = 8
const SIMULATE = 'simulate-assembly'
const MS = 1e6

/** As many as are taken at once. */
const BATCH = 100
const BEFORE = 800

/** How long the thread that answers is held up while a long batch is taken, in one of a visit that has many entries already. */
export async function benchBatch(app: App, base: string): Promise<object> {
  const person = await app.db.people.findOne({ where: { username: 'odda' } })
  const visit = await app.db.visits.findOne({
    where: {
      technicianId: person?.id ?? '',
      state: 'planned',
      plannedOn: { [Op.gt]: app.today() },
    },
  })
  if (!visit) throw new Error('the demo has no planned visit ahead')
  const send = await signedInFetch(base, 'odda')
  let expected = visit.eventCount
  const write = async () => {
    const events = Array.from({ length: BATCH }, aNote)
    const body = JSON.stringify({ expected, events })
    await send(`/api/v1/visits/${visit.id}/events`, { method: 'POST', body })
    expected += BATCH
  }
  while (expected < BEFORE) await write()
  const before = expected
  const { longest } = await worst(async () => {
    await write()
    await write()
  })
  return {
    name: `Longest wait of the event loop: ${expected - before} entries more on ${before}`,
    besideMs: longest,
    aimUnderMs: 100,
  }
}

const LINES = 1_000

/** How long the thread that answers is held up while a table of equipment is looked at and brought in. */
export async function benchImport(base: string): Promise<object> {
  const send = await signedInFetch(base, 'sula')
  const lines = Array.from({ length: LINES }, (_, n) => ({
    line: n + 2,
    id: uuidv7(),
    cells: {
      tag: `RP-${10_000 + n}`,
      family: 'Reduced-pressure assembly',
      kind: 'RP',
      sizeIn: '1 1/2',
      serial: `K-${n}`,
      maker: 'Maker A',
      dueOn: '2027-03-31',
      position: 'Plant room',
      customer: `Quay Estates ${n % 20}`,
      site: `Quay ${n % 200}`,
      address: `${n % 200} Quay`,
      district: 'Harbour',
    },
  }))
  const pieces = async (keep: boolean) => {
    for (let at = 0; at < LINES; at += MOST_LINES) {
      const body = { lines: lines.slice(at, at + MOST_LINES), dates: 'year-first', keep }
      await send('/api/v1/equipment/import', { method: 'POST', body: JSON.stringify(body) })
    }
  }
  const { longest, p99 } = await worst(async () => {
    await pieces(false)
    await pieces(true)
  })
  return {
    name: `Longest wait of the event loop: ${LINES} lines of a table brought in`,
    besideMs: longest,
    besideP99Ms: p99,
    aimP99UnderMs: 50,
  }
}

/** How long the thread that answers is held up while the longest history of a piece of equipment is read. */
export async function benchHistory(app: App, base: string): Promise<object> {
  const [most] = (await app.db.visits.findAll({
    attributes: [
      'equipmentId',
      [fn('COUNT', col('id')), 'visits'],
      [fn('SUM', col('event_count')), 'entries'],
    ],
    group: ['equipmentId'],
    order: [[fn('SUM', col('event_count')), 'DESC']],
    limit: 1,
    raw: true,
  })) as unknown as { equipmentId: string; visits: number; entries: string }[]
  if (!most) throw new Error('the demo has no visits')
  const send = await signedInFetch(base, 'odda')
  const { longest } = await worst(() => send(`/api/v1/equipment/${most.equipmentId}/history`))
  return {
    name: `Longest wait of the event loop: a history of ${most.visits} visits with ${most.entries} entries`,
    besideMs: longest,
    aimUnderMs: 100,
  }
}

/** How long the thread that answers is held up while papers are made and the library is read anew. */
export async function benchLag(app: App): Promise<object[]> {
  const row = await app.db.certificates.findOne()
  if (!row) return []
  const payload = JSON.parse(row.payload) as CertificatePayload
  const issued = { verifyUrl: app.config.publicUrl, jws: row.jws, timeZone: 'UTC' }
  const workers = inWorkers()
  const papers = async (by: HeavyWork) => {
    for (let n = 0; n < PAPERS; n++) await by.pdf(payload, issued)
  }
  const library = (by: HeavyWork) => by.library(app.config.libraryLayers)
  const { example } = computationNamed(SIMULATE)
  const simulation = (by: HeavyWork) =>
    by.compute(SIMULATE, example, app.shelf.library, new AbortController().signal)
  const figures = []
  for (const [name, work] of [
    [`${PAPERS} certificates on paper`, papers],
    ['the library read anew', library],
    ['an assembly simulated', simulation],
  ] as const) {
    const [before, now] = [await worst(() => work(atOnce)), await worst(() => work(workers))]
    figures.push({
      name: `Longest wait of the event loop: ${name}`,
      atOnceMs: before.longest,
      besideMs: now.longest,
      besideP99Ms: now.p99,
      aimP99UnderMs: 50,
    })
  }
  await workers.close()
  return figures
}

/** The longest wait while something is done, and the 99th percentile. */
async function worst(work: () => Promise<unknown>): Promise<{ longest: number; p99: number }> {
  const delay = monitorEventLoopDelay({ resolution: 5 })
  // What holds the loop up is counted between two rounds of it: one before, one after.
  const round = () => new Promise((done) => setTimeout(done, 50))
  delay.enable()
  await round()
  await work()
  await round()
  delay.disable()
  const whole = (ns: number) => Math.round(ns / MS)
  return { longest: whole(delay.max), p99: whole(delay.percentile(99)) }
}
