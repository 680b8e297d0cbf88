import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import { type CertificatePayload, runOf } from '@uvanta/core/certificate'
import {
  currentStation,
  finalRun,
  foldVisit,
  outcomeOf,
  planOfVisit,
  standingAfter,
  verdictOf,
  type VisitEvent,
} from '@uvanta/core/visit'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { supersedeCertificate } from './service/certificate/release'
import { readEvents } from './service/visit/log'
import { readPerson } from './service/people/people'
import { repinUnbegun } from './service/visit/repin'
import { correctAttested } from './service/visit/sign'
import { verifyCode } from './service/certificate/verification'
import { verifyChains } from './service/integrity/verifyChains'
import type { CertificateRow, VisitTableRow } from './store/tables'
import { makeTestApp } from './testing/app'
import { draft } from './testing/visit'

/** The demo’s database as it was written before versions were pinned and heads were sealed. */
const FIXTURE = join(import.meta.dirname, 'testing/fixtures/demo-before-pins.sql.gz')

/** The run that the hand signed. */
const signedRun = (p: CertificatePayload) => runOf(p.asLeft) ?? runOf(p.asFound)

let app: App
let visits: VisitTableRow[]
const logs = new Map<string, VisitEvent[]>()
const logOf = (id: string) => logs.get(id) ?? []
let certificates: CertificateRow[]
const voidBefore: string[] = []

beforeAll(async () => {
  app = await makeTestApp(({ port, password, name }) => {
    const client = ['--no-defaults', '--protocol=TCP', '-h127.0.0.1', `-P${port}`, '-uuvanta', name]
    const input = gunzipSync(readFileSync(FIXTURE))
    const run = (args: string[], stdin?: Buffer) =>
      execFileSync('mariadb', [...client, ...args], {
        env: { ...process.env, MYSQL_PWD: password },
        ...(stdin ? { input: stdin } : {}),
        maxBuffer: 64e6,
      }).toString()
    run([], input)
    const sql = "SELECT certificate_id FROM certificate_status WHERE state = 'void'"
    voidBefore.push(...run(['-N', '-e', sql]).trim().split('\n'))
  })
  visits = await app.db.visits.findAll()
  for (const v of visits) logs.set(v.id, await readEvents(app, v.id))
  certificates = await app.db.certificates.findAll()
}, 120_000)

describe('a database from before', () => {
  it('is brought up to date with every chain, certificate, state and seal in order', async () => {
    const { events, certificates: seen, faults } = await verifyChains(app)
    expect(faults).toEqual([])
    expect(seen).toBe(287)
    expect(events).toBeGreaterThan(7_500)
  })
  it('folds every visit to the state that its row shows', () => {
    for (const visit of visits) {
      const state = foldVisit(logOf(visit.id))
      expect([visit.id, [...state.done, ...(state.signed ? ['as-left'] : [])]]).toEqual([
        visit.id,
        visit.done,
      ])
      expect(state.skipped).toEqual(visit.skipped)
      expect(state.signed?.outcome ?? null).toBe(visit.outcome)
      expect(state.certificate?.number ?? null).toBe(visit.certificateNumber)
      if (visit.state === 'planned') expect(currentStation(state)).toBe('prepare')
    }
  })
  it('judges every signed visit as it was signed, under the versions of then', () => {
    const signed = visits.filter((v) => v.state === 'signed')
    expect(signed.length).toBe(286)
    for (const visit of signed) {
      const state = foldVisit(logOf(visit.id))
      expect([visit.id, outcomeOf(state, app.shelf.library)]).toEqual([
        visit.id,
        state.signed?.outcome,
      ])
      const run = finalRun(state)
      const plan = run && planOfVisit(state, app.shelf.library, run)
      expect(plan?.pack.version).toBe(state.plan?.packVersion)
      expect(plan?.procedure.version).toBe(run && state.runs[run]?.started.procedureVersion)
    }
  })
  it('says of each certificate what was signed', () => {
    for (const row of certificates) {
      const payload = JSON.parse(row.payload) as CertificatePayload
      const events = logOf(row.visitId).slice(0, payload.log.events)
      const state = foldVisit(events)
      const run = finalRun(state)
      const verdict = run && verdictOf(state, run, app.shelf.library)
      expect([row.number, verdict?.outcome]).toEqual([row.number, payload.outcome])
      const required = (v: typeof verdict | undefined) =>
        v?.items.flatMap((i) => (i.requirement === 'required' ? [[i.id, i.outcome]] : []))
      expect(required(verdict)).toEqual(required(signedRun(payload)?.verdict))
    }
  })
  it('has the due dates that it had', async () => {
    let compared = 0
    for (const status of await app.db.equipmentStatus.findAll()) {
      if (!status.lastVisitId || !status.dueOn) continue
      const equipment = await app.db.equipment.findByPk(status.equipmentId)
      const state = foldVisit(logOf(status.lastVisitId))
      const standing =
        equipment &&
        standingAfter(state, app.shelf.library, equipment.programme, equipment.anchorOn)
      if (!standing?.dueOn) continue
      expect([equipment?.tag, standing.dueOn]).toEqual([equipment?.tag, status.dueOn])
      compared++
    }
    expect(compared).toBeGreaterThan(50)
  })
  it('shows every certificate as it stood: genuine, superseded, void', async () => {
    expect(voidBefore).toHaveLength(1)
    const counts: Record<string, number> = {}
    for (const row of certificates) {
      const { verdict } = await verifyCode(app, row.code)
      counts[verdict] = (counts[verdict] ?? 0) + 1
      if (voidBefore.includes(row.id)) expect(verdict).toBe('void')
    }
    expect(counts).toEqual({ genuine: 285, superseded: 1, void: 1 })
  })
  it('takes the versions in force up in what nobody has begun, and leaves the rest', async () => {
    const planned = visits.filter((v) => v.state === 'planned')
    expect(await repinUnbegun(app)).toBe(planned.length)
    expect(await repinUnbegun(app)).toBe(0)
    for (const { id } of planned) {
      const state = foldVisit(await readEvents(app, id))
      const inForce = app.shelf.library.rulePacks.find((p) => p.id === state.plan?.packId)
      expect(planOfVisit(state, app.shelf.library)?.pack.version).toBe(inForce?.version)
    }
    expect((await verifyChains(app)).faults).toEqual([])
  })
  it('replaces a certificate under the pack that it was issued under', async () => {
    const row = certificates.find((c) => c.outcome === 'pass' && !voidBefore.includes(c.id))!
    const visit = visits.find((v) => v.id === row.visitId)!
    const events = await readEvents(app, visit.id)
    const tester = await readPerson(app, visit.technicianId)
    await app.db.licences.update({ expiresOn: '2099-01-01' }, { where: { personId: tester.id } })
    const reading = events.find((e) => e.kind === 'reading')!
    const payload = { ...reading.payload, value: '2.9' }
    const change = { of: reading.id, why: 'Digit', withdraw: false, payload }
    const licensed = await readPerson(app, tester.id)
    await correctAttested(app, licensed, visit.id, events.length, draft('correction', change))
    const fresh = await supersedeCertificate(
      app,
      { ...licensed, roles: ['reviewer'] },
      row.id,
      'Digit',
    )
    const before = JSON.parse(row.payload) as CertificatePayload
    const after = fresh.payload as unknown as CertificatePayload
    const packOf = (p: CertificatePayload) => signedRun(p)?.verdict.rulePack
    expect(packOf(before)).toBeDefined()
    expect(packOf(after)).toEqual(packOf(before))
    expect(after.supersedes?.number).toBe(before.number)
    expect((await verifyChains(app)).faults).toEqual([])
  })
})
