import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { loadDemo } from './demo/load'
import { verifyChains } from './service/integrity/verifyChains'
import { makeTestApp } from './testing/app'

let first: App
let second: App
beforeAll(async () => {
  first = await makeTestApp()
  second = await makeTestApp()
  await Promise.all([first, second].map((app) => loadDemo(app, () => undefined)))
}, 400_000)

const fingerprint = async (app: App) => {
  const events = await app.db.visitEvents.findAll({
    attributes: ['id', 'payload', 'serverTime'],
    order: [
      ['visitId', 'ASC'],
      ['seq', 'ASC'],
    ],
    raw: true,
  })
  const certificates = await app.db.certificates.findAll({
    attributes: ['code', 'payload'],
    order: [['code', 'ASC']],
    raw: true,
  })
  return { events, certificates }
}

describe('Larkhaven', () => {
  it('is the same from the same seed, to the last event and certificate', async () => {
    expect(await fingerprint(second)).toEqual(await fingerprint(first))
  })
  it('has the size and the states that people need to see', async () => {
    const { db } = first
    expect(await db.sites.count()).toBeGreaterThanOrEqual(40)
    expect(await db.equipment.count()).toBeGreaterThanOrEqual(150)
    expect(await db.people.count()).toBe(6)
    expect(await db.gauges.count()).toBe(9)
    const families = await db.equipment.count({ distinct: true, col: 'family' })
    expect(families).toBe(first.shelf.library.families.length)
    const conditions = await db.equipmentStatus.findAll({
      attributes: ['condition'],
      group: ['condition'],
    })
    const wanted = ['failed', 'in-order', 'never-tested', 'temporary-repair']
    expect(conditions.map((c) => c.condition)).toEqual(expect.arrayContaining(wanted))
    const states = await db.visits.findAll({
      where: { plannedOn: first.today() },
      attributes: ['state'],
      group: ['state'],
    })
    expect(states.map((s) => s.state).sort()).toEqual(['planned', 'signed', 'stopped', 'under-way'])
    const certificates = await db.certificateStatus.findAll({
      attributes: ['state'],
      group: ['state'],
    })
    expect(certificates.map((c) => c.state).sort()).toEqual(['current', 'superseded', 'void'])
  })
  it('has an intact chain and is loaded only once', async () => {
    expect((await verifyChains(first)).faults).toEqual([])
    expect(await loadDemo(first, () => undefined)).toBe(false)
  })
})
