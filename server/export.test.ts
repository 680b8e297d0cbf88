import { createHash } from 'node:crypto'
import { mkdtempSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import canonicalize from 'canonicalize'
import { compactVerify, createLocalJWKSet } from 'jose'
import { beforeAll, describe, expect, it } from 'vitest'
import type { App } from './context'
import { exportAll, type Exported } from './service/export/exportAll'
import { exportedApart, exportedTables, withheldTables } from './service/export/tables'
import { type Agent, makeTestApp, PASSWORD, populate, serve, signedIn } from './testing/app'
import { append, draft, plan, signedVisit } from './testing/visit'

/** The export is read as somebody would read it who has only the files. */
const out = mkdtempSync(join(tmpdir(), 'uvexport-'))
const read = (file: string) => readFileSync(join(out, file))
const lines = <T>(file: string) =>
  read(file)
    .toString()
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as T)
const sha256 = (content: string | Buffer) => createHash('sha256').update(content).digest('hex')

let app: App
let tester: Agent
let exported: Exported
let signed: Awaited<ReturnType<typeof signedVisit>>
let ids: { equipmentId: string; technicianId: string; gaugeId: string }
beforeAll(async () => {
  app = await makeTestApp()
  const world = await populate(app)
  const server = serve(app)
  tester = await signedIn(server, 'tester')
  ids = {
    equipmentId: world.equipment.id,
    technicianId: world.tester.id,
    gaugeId: world.gaugeId,
  }
  signed = await signedVisit(app, tester, ids, PASSWORD, { photo: app.newId() })
  exported = await exportAll(app, out)
})

describe('an export', () => {
  it('knows of every table whether it goes along', () => {
    const known = [...exportedTables.map((t) => t.model), ...exportedApart, ...withheldTables]
    const tables = Object.values(app.db)
      .filter((m) => typeof (m as { tableName?: unknown }).tableName === 'string')
      .map((m) => (m as { tableName: string }).tableName)
    expect(known.map((m) => app.db[m].tableName).sort()).toEqual(tables.sort())
  })
  it('has one visit, one certificate, one photograph, and the hash of every file', () => {
    expect(exported).toMatchObject({ visits: 1, certificates: 1, photographs: 1, altered: 0 })
    const { files } = JSON.parse(read('CONTENTS.json').toString()) as {
      files: { file: string; sha256: string }[]
    }
    const there = readdirSync(out, { recursive: true, withFileTypes: true })
      .filter((e) => e.isFile())
      .map((e) => join(e.parentPath, e.name).slice(out.length + 1))
    expect(files.map((f) => f.file).sort()).toEqual(
      there.filter((f) => f !== 'CONTENTS.json').sort(),
    )
    for (const { file, sha256: hash } of files) expect(sha256(read(file)), file).toBe(hash)
  })
  it('lets a stranger recompute the chain of a visit as its README says', () => {
    const [visit] = lines<{
      id: string
      headHash: string
      events: { hash: string; payload: object }[]
    }>('visits.jsonl')
    let previousHash = '0'.repeat(64)
    for (const { hash, ...event } of visit?.events ?? []) {
      previousHash = sha256(canonicalize({ event, previousHash, visitId: visit?.id }) ?? '')
      expect(hash).toBe(previousHash)
    }
    expect(visit).toMatchObject({ id: signed.id, headHash: previousHash })
    expect(visit?.events.length).toBeGreaterThan(10)
  })
  it('has certificates that any library verifies, and papers that open', async () => {
    const keys = createLocalJWKSet(JSON.parse(read('keys.json').toString()))
    const number = signed.certificateNumber ?? ''
    const { payload } = await compactVerify(read(`certificates/${number}.jws`).toString(), keys)
    const [row] = lines<{ number: string; payload: object }>('certificates.jsonl')
    expect(JSON.parse(new TextDecoder().decode(payload))).toEqual(row?.payload)
    expect(read(`certificates/${number}.pdf`).subarray(0, 5).toString()).toBe('%PDF-')
  })
  it('has lists and times as data, and people without what opens something', async () => {
    const people = lines<{ username: string; roles: unknown }>('people.jsonl')
    expect(people.find((p) => p.username === 'tester')?.roles).toEqual(
      expect.arrayContaining(['technician']),
    )
    const hash = (await app.db.people.findOne({ where: { username: 'tester' } }))?.passwordHash
    const everything = readdirSync(out, { recursive: true, withFileTypes: true })
      .filter((e) => e.isFile())
      .map((e) => readFileSync(join(e.parentPath, e.name), 'latin1'))
      .join('')
    expect(hash).toBeTruthy()
    expect(everything).not.toContain(hash)
    expect(everything).not.toContain('passwordHash')
  })
  it('is for its owner alone, and has a file for what there is none of', () => {
    for (const file of ['.', 'photographs', 'customers.jsonl', 'keys.json', 'CONTENTS.json'])
      expect(statSync(join(out, file)).mode & 0o077, file).toBe(0)
    expect(read('forgettings.jsonl').toString()).toBe('')
  })
  it('is of one moment, though somebody goes on recording', async () => {
    const open = await plan(app, tester, ids.equipmentId, ids.technicianId)
    let late = 0
    app.db.visits.addHook('afterFind', 'goes on', async () => {
      if (late++ > 0) return
      const note = draft('note', { text: 'Meanwhile', station: 'prepare' })
      await append(tester, open.id, 1, [note]).expect(200)
    })
    const there = mkdtempSync(join(tmpdir(), 'uvexport-'))
    await exportAll(app, there)
    app.db.visits.removeHook('afterFind', 'goes on')
    expect(late).toBeGreaterThan(0)
    const visits = readFileSync(join(there, 'visits.jsonl'), 'utf8').trim().split('\n')
    for (const line of visits) {
      const { headHash, events } = JSON.parse(line) as {
        headHash: string
        events: { hash: string }[]
      }
      expect(events.at(-1)?.hash).toBe(headHash)
    }
  })
  it('goes into an empty directory alone', async () => {
    const used = mkdtempSync(join(tmpdir(), 'uvexport-'))
    writeFileSync(join(used, 'mine.txt'), 'x')
    await expect(exportAll(app, used)).rejects.toMatchObject({ code: 'directory-not-empty' })
    expect(readdirSync(used)).toEqual(['mine.txt'])
  })
  it('marks a void certificate, and leaves an altered paper out', async () => {
    const id = signed.certificateId ?? ''
    await app.db.sequelize.query('DROP TRIGGER certificate_pdf_no_update')
    await app.db.sequelize.query(`UPDATE certificate_pdf SET pdf = 'forged'`)
    const first = mkdtempSync(join(tmpdir(), 'uvexport-'))
    expect(await exportAll(app, first)).toMatchObject({ certificates: 1, altered: 1 })
    await app.db.certificateStatus.update({ state: 'void' }, { where: { certificateId: id } })
    const second = mkdtempSync(join(tmpdir(), 'uvexport-'))
    expect(await exportAll(app, second)).toMatchObject({ altered: 0 })
    expect(readdirSync(join(second, 'certificates'))).toContain(
      `${signed.certificateNumber}-void.pdf`,
    )
  })
})
