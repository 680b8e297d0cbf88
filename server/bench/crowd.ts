import { once } from 'node:events'
import { Worker } from 'node:worker_threads'
import type { App } from '../context'
import { DEMO_PASSWORD } from '../demo/scenario'
import { createPerson, readPerson } from '../service/people/people'
import { planVisit } from '../service/visit/visits'
import { cookieOf, percentile } from './measure'

const TECHNICIANS = 50
const FOR_MS = 10_000

/** Technicians who write to visits of their own without pause, each of them signed in. */
export async function benchCrowd(app: App, base: string): Promise<object> {
  const petra = await app.db.people.findOne({ where: { username: 'petra' } })
  const equipment = await app.db.equipment.findAll({
    limit: TECHNICIANS,
    attributes: ['id', 'kind'],
  })
  const actor = await readPerson(app, petra?.id ?? '')
  const crowd = []
  for (const [n, { id: equipmentId, kind }] of equipment.entries()) {
    const pack = app.shelf.library.rulePacks.find((p) => p.tests.some((t) => t.kind === kind))
    const id = app.newId()
    const username = `crowd-${n}`
    const input = { id, username, name: username, roles: ['technician' as const] }
    const technician = await createPerson(app, actor, { ...input, password: DEMO_PASSWORD })
    const visit = await planVisit(app, technician, {
      id: app.newId(),
      equipmentId,
      technicianId: technician.id,
      plannedOn: app.today(),
      purpose: 'periodic-test',
      ...(pack ? { rulePack: pack.id } : {}),
    })
    crowd.push({ visit: visit.id, count: visit.count, cookie: await cookieOf(base, username) })
  }
  const cpu = process.cpuUsage()
  const clients = new Worker(new URL('./crowdClient.mjs', import.meta.url), {
    workerData: { base, crowd, forMs: FOR_MS },
  })
  const [{ taken, refused }] = (await once(clients, 'message')) as [
    { taken: number[]; refused: number },
  ]
  const used = process.cpuUsage(cpu)
  return {
    name: `${TECHNICIANS} technicians who write without pause`,
    appendsPerSecond: Math.round((taken.length / FOR_MS) * 1_000),
    aimAtLeast: 200,
    p50Ms: Math.round(percentile(taken, 50)),
    p95Ms: Math.round(percentile(taken, 95)),
    refused,
    // With the clients in it, which are a thread of the same process.
    cpuMsPerAppend: Number(((used.user + used.system) / 1_000 / taken.length).toFixed(2)),
  }
}
