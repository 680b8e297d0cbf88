import { execFileSync } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { compactVerify, createLocalJWKSet, decodeProtectedHeader } from 'jose'
import supertest from 'supertest'
import { beforeAll, describe, expect, it } from 'vitest'
import { openApp } from './app'
import type { App } from './context'
import { openKeys, renewSigningKey } from './service/certificate/keys'
import { openSecretBox } from './service/people/secretBox'
import { verifyChains } from './service/integrity/verifyChains'
import { addDays } from '@uvanta/core/calendar'
import { createEquipment } from './service/register/equipment'
import {
  type Agent,
  equipmentInput,
  makeTestApp,
  PASSWORD,
  populate,
  serve,
  signedIn,
  codeOf,
} from './testing/app'
import { append, draft, signedVisit } from './testing/visit'
import { atOnce, inWorkers } from './heavy/heavyWork'

let app: App
let server: ReturnType<typeof serve>
let ids: { equipmentId: string; technicianId: string; gaugeId: string }
let tester: Agent
let reviewer: Agent
let world: Awaited<ReturnType<typeof populate>>
beforeAll(async () => {
  app = await makeTestApp()
  world = await populate(app)
  ids = { equipmentId: world.equipment.id, technicianId: world.tester.id, gaugeId: world.gaugeId }
  server = serve(app)
  tester = await signedIn(server, 'tester')
  reviewer = await signedIn(server, 'reviewer')
})
const issue = () => signedVisit(app, tester, ids, PASSWORD)
const detail = async (id: string) =>
  (await tester.get(`/api/v1/certificates/${id}`).expect(200)).body
const verify = async (path: string) =>
  (await supertest(server).get(`/api/v1${path}`).expect(200)).body

describe('an installation that does not know whose it is', () => {
  it('issues no certificate, keeps what was recorded, and issues it once it is told', async () => {
    await app.db.utility.update({ phone: '' }, { where: {} })
    const before = await app.db.certificates.count()
    const refused = await issue().catch((error: unknown) => error)
    expect(String(refused)).toMatch(/409/)
    expect(await app.db.certificates.count()).toBe(before)
    await app.db.utility.update({ phone: '555 0100' }, { where: {} })
    expect((await issue()).certificateId).toBeDefined()
  })
})

describe('what a forger would need', () => {
  it('is kept from a trainee, who reads the rest of visit and certificate', async () => {
    const visit = await issue()
    const id = visit.certificateId!
    const trainee = await signedIn(server, 'trainee')
    const all = async (agent: Agent) => ({
      visit: (await agent.get(`/api/v1/visits/${visit.id}`).expect(200)).body,
      certificate: (await agent.get(`/api/v1/certificates/${id}`).expect(200)).body,
      list: (await agent.get('/api/v1/certificates?limit=5').expect(200)).body,
    })
    const [whole, learned] = [await all(tester), await all(trainee)]
    // The drawn signature, the number of the license, and the code with which anybody fetches the signed file.
    const { signature } = whole.certificate.payload
    const code = String(whole.certificate.verifyPath).replace('/verify/', '')
    for (const secret of [signature, 'BT-tester', code]) {
      expect(secret.length).toBeGreaterThan(5)
      expect(JSON.stringify(whole)).toContain(secret)
      expect(JSON.stringify(learned)).not.toContain(secret)
    }
    expect(learned.certificate.payload.asFound).toEqual(whole.certificate.payload.asFound)
    expect(learned.visit.events).toHaveLength(whole.visit.events.length)
    for (const file of ['pdf', 'jws']) {
      const refused = await trainee.get(`/api/v1/certificates/${id}/${file}`)
      expect([refused.status, codeOf(refused)]).toEqual([403, 'not-for-trainees'])
    }
  })
})

describe('a certificate', () => {
  it('is a JWS that verifies with the published key alone, and says what was tested', async () => {
    const visit = await issue()
    const certificate = await detail(visit.certificateId!)
    const jws = (await supertest(server).get(`/api/v1${certificate.verifyPath}/jws`).expect(200))
      .text
    const keys = createLocalJWKSet(
      (await supertest(server).get('/.well-known/jwks.json').expect(200)).body,
    )
    const { payload } = await compactVerify(jws, keys)
    const content = JSON.parse(new TextDecoder().decode(payload))
    expect(content).toMatchObject({
      number: visit.certificateNumber,
      outcome: 'pass',
      equipment: { tag: 'RP-101', serial: 'S-RP-101' },
      tester: { licence: 'BT-tester' },
      asLeft: null,
    })
    expect(content.asFound.verdict.items.map((i: { reading?: string }) => i.reading)).toContain(
      '7.1',
    )
    expect(decodeProtectedHeader(jws).alg).toBe('EdDSA')
    const [head, body, signature] = jws.split('.')
    const forged = `${head}.${body!.slice(0, -2)}AA.${signature}`
    await expect(compactVerify(forged, keys)).rejects.toThrow()
  })
  it('is the same PDF every time', async () => {
    const visit = await issue()
    const pdf = () =>
      tester.get(`/api/v1/certificates/${visit.certificateId}/pdf`).expect(200).buffer(true)
    const [first, second] = [await pdf(), await pdf()]
    expect(first.body.subarray(0, 5).toString()).toBe('%PDF-')
    expect(first.body.equals(second.body)).toBe(true)
  })
  it('is a paper for everybody: tagged, in a language, with the signed file in it, without an id', async () => {
    const visit = await issue()
    const { payload } = await detail(visit.certificateId!)
    const directory = mkdtempSync(join(tmpdir(), 'uvpaper-'))
    const file = join(directory, 'paper.pdf')
    const url = `/api/v1/certificates/${visit.certificateId}`
    writeFileSync(file, (await tester.get(`${url}/pdf`).expect(200).buffer(true)).body)
    const said = (program: string, ...args: string[]) =>
      execFileSync(program, args, { cwd: directory }).toString()
    expect(said('pdfinfo', file)).toMatch(/Tagged:\s+yes/)
    const read = said('pdfinfo', '-struct-text', file)
    expect(read).toMatch(/H1[\s\S]*Table[\s\S]*TR[\s\S]*TH[\s\S]*TD[\s\S]*Figure/)
    for (const word of [payload.number, 'Check 1 differential', 'Every required item'])
      expect(read).toContain(word)
    expect(said('pdfdetach', '-list', file)).toContain(`${payload.number}.jws`)
    said('pdfdetach', '-save', '1', '-o', 'signed.jws', file)
    const { text } = await tester.get(`${url}/jws`).expect(200)
    expect(readFileSync(join(directory, 'signed.jws'), 'utf8')).toBe(text)
    const words = said('pdftotext', '-layout', file, '-')
    // Items by their titles, times with the zone of the utility.
    expect(words).toContain('Check 1 differential')
    expect(words).not.toMatch(/check-1|relief-opening|not-assessed|[0-9a-f]{8}-[0-9a-f]{4}-/)
    expect(words).toMatch(/\d\d:\d\d UTC/)
    rmSync(directory, { recursive: true })
  })
  it('is the same paper made beside the thread that answers', async () => {
    const { payload } = await detail((await issue()).certificateId!)
    const asked = [
      payload,
      { verifyUrl: 'http://127.0.0.1/verify/x', jws: 'a.b.c', timeZone: 'UTC' },
    ]
    const workers = inWorkers()
    const made = await Promise.all(
      [atOnce, workers].map((w) => w.pdf(...(asked as Parameters<typeof w.pdf>))),
    )
    const [here, there] = made.map((pdf) =>
      execFileSync('pdftotext', ['-layout', '-', '-'], { input: pdf }).toString(),
    )
    expect(there).toContain(payload.number)
    expect(there).toBe(here)
    await workers.close()
  })
  it('cannot be changed in the database', async () => {
    await issue()
    await expect(app.db.sequelize.query("UPDATE certificate SET outcome = 'pass'")).rejects.toThrow(
      /append-only/,
    )
  })
})

describe('numbers', () => {
  it('have no gaps and no error, also when signings fail and run at once', async () => {
    for (let round = 0; round < 4; round++) {
      await Promise.all([issue(), issue(), issue(), issue(), issue(), issue()])
    }
    await expect(signedVisit(app, tester, ids, 'wrong password')).rejects.toThrow()
    await issue()
    const rows = await app.db.certificates.findAll({ order: [['serial', 'ASC']] })
    expect(rows.map((r) => r.serial)).toEqual(rows.map((_, n) => n + 1))
  })
})

describe('a new key', () => {
  it('lies in a file that nobody else can read, in a directory that nobody else can enter', () => {
    const keys = join(app.config.dataDirectory, 'keys')
    const modes = ['.', ...readdirSync(keys)].map((file) => [
      file,
      statSync(join(keys, file)).mode & 0o077,
    ])
    expect(modes.length).toBeGreaterThan(3)
    expect(modes.filter(([, others]) => others !== 0)).toEqual([])
  })
  it('signs what comes; what the old one signed verifies for good, by what is published', async () => {
    const before = await detail((await issue()).certificateId!)
    const first = app.keys.published().map((k) => k.kid)
    const kid = await renewSigningKey(app.config)
    expect(first).not.toContain(kid)
    const again = await openApp(app.config)
    expect(again.keys.published().map((k) => k.kid)).toEqual([...first, kid])
    const signed = await again.keys.sign(new TextEncoder().encode('{}'))
    expect(decodeProtectedHeader(signed).kid).toBe(kid)
    // To a process that runs since before it is as genuine.
    expect(await app.keys.verify(signed)).not.toBeNull()
    expect((await supertest(server).get('/.well-known/jwks.json')).body.keys).toHaveLength(
      first.length + 1,
    )
    const jws = (await supertest(server).get(`/api/v1${before.verifyPath}/jws`).expect(200)).text
    expect(await again.keys.verify(jws)).not.toBeNull()
    expect((await verifyChains(again)).faults).toEqual([])
    await again.db.sequelize.close()
  })
  it('under a passphrase is unreadable, opens with it alone, and signs as before', async () => {
    const files = ['signing.json', 'seal', 'secrets'].map((name) =>
      join(app.config.dataDirectory, 'keys', name),
    )
    const clear = files.map((file) => readFileSync(file, 'utf8').trim())
    const { kid } = JSON.parse(clear[0] ?? '')
    const visit = await issue()
    const opened = (keysPassphrase?: string) =>
      openKeys({ ...app.config, ...(keysPassphrase ? { keysPassphrase } : {}) }, app.db, app.now)
    const shut = await opened('rope, lamp, tide')
    const box = await openSecretBox({ ...app.config, keysPassphrase: 'rope, lamp, tide' })
    expect(box.open(app.secrets.shut('a secret', 'somebody'), 'somebody')).toBe('a secret')
    expect(shut.seal('visit', 'its words')).toBe(app.keys.seal('visit', 'its words'))
    for (const [n, file] of files.entries()) {
      expect(readFileSync(file, 'utf8')).not.toContain(n === 0 ? kid : clear[n])
    }
    await expect(opened()).rejects.toThrow(/are encrypted/)
    await expect(openSecretBox(app.config)).rejects.toThrow(/are encrypted/)
    await expect(opened('rope, lamp, tidy')).rejects.toThrow(/do not open/)
    const again = await opened('rope, lamp, tide')
    const bytes = new TextEncoder().encode('a certificate')
    const jws = await again.sign(bytes)
    expect(decodeProtectedHeader(jws).kid).toBe(kid)
    expect(await shut.verify(jws)).toEqual(bytes)
    const { jws: before } = (await app.db.certificates.findByPk(visit.certificateId!))!
    expect(await again.verify(before)).not.toBeNull()
    const next = await renewSigningKey({ ...app.config, keysPassphrase: 'rope, lamp, tide' })
    expect(readFileSync(files[0] ?? '', 'utf8')).not.toContain(next)
    expect((await opened('rope, lamp, tide')).published().map((k) => k.kid)).toContain(next)
    for (const [n, file] of files.entries()) writeFileSync(file, clear[n] ?? '')
  })
})

describe('what a stranger learns', () => {
  it('genuine, then void with the reason, for good', async () => {
    const certificate = await detail((await issue()).certificateId!)
    expect(await verify(certificate.verifyPath)).toMatchObject({ verdict: 'genuine', reason: null })
    await tester
      .post(`/api/v1/certificates/${certificate.id}/void`)
      .send({ reason: 'Wrong plate' })
      .expect(403)
    await reviewer
      .post(`/api/v1/certificates/${certificate.id}/void`)
      .send({ reason: 'Wrong plate' })
      .expect(200)
    expect(await verify(certificate.verifyPath)).toMatchObject({
      verdict: 'void',
      reason: 'Wrong plate',
    })
    // What it said of the equipment no longer counts, and every copy of the paper says so.
    const { body: equipment } = await tester.get(`/api/v1/equipment/${ids.equipmentId}`).expect(200)
    expect(equipment).toMatchObject({ condition: 'not-assessed', dueOn: app.today() })
    const paper = await tester.get(`/api/v1/certificates/${certificate.id}/pdf`).expect(200)
    expect(paper.headers['content-disposition']).toContain(`${certificate.number}-void.pdf`)
    const words = execFileSync('pdftotext', ['-raw', '-', '-'], { input: paper.body as Buffer })
    expect(words.toString()).toMatch(/^VOID$/m)
    const pages = words
      .toString()
      .split('\f')
      .filter((page) => page.trim() !== '')
    expect(pages.length).toBeGreaterThan(0)
    for (const page of pages) expect(page).toMatch(/^VOID: /m)
    const again = await reviewer
      .post(`/api/v1/certificates/${certificate.id}/void`)
      .send({ reason: 'Twice' })
    expect(again.status).toBe(409)
  })
  it('superseded, with the way to the one in force', async () => {
    const visit = await issue()
    const old = await detail(visit.certificateId!)
    const supersede = () =>
      reviewer.post(`/api/v1/certificates/${old.id}/supersede`).send({ reason: 'Digits exchanged' })
    expect(codeOf(await supersede())).toBe('nothing-corrected')
    const reading = visit.events.find((e) => e.kind === 'reading')!
    const correction = draft('correction', {
      of: reading.id,
      why: 'Digits exchanged',
      withdraw: false,
      payload: { ...reading.payload, value: '2.6' },
    })
    const count = visit.events.length
    await append(reviewer, visit.id, count, [correction]).expect(403)
    const refused = await append(tester, visit.id, count, [correction]).expect(409)
    expect(codeOf(refused)).toBe('signed-by-other')
    const correct = (password: string) =>
      tester
        .post(`/api/v1/visits/${visit.id}/correct`)
        .send({ expected: count, password, event: correction })
    expect(codeOf(await correct('wrong'))).toBe('password-wrong')
    await correct(PASSWORD).expect(200)
    const next = (await supersede().expect(200)).body
    // Whoever corrected stands on it; the hand signed the old one.
    expect(next.payload.corrections).toEqual([
      expect.objectContaining({
        what: 'as-found, relief opening',
        was: '2.4 psid',
        is: '2.6 psid',
        by: 'The tester',
      }),
    ])
    expect(old.payload.signature).toBeDefined()
    expect(next.payload.signature).toBeUndefined()
    expect(next.payload.supersedes).toMatchObject({ number: old.number })
    const items = next.payload.asFound.verdict.items as { id: string; reading?: string }[]
    expect(items.find((i) => i.id === 'relief-opening')?.reading).toBe('2.6')
    const seen = await verify(old.verifyPath)
    expect(seen).toMatchObject({ verdict: 'superseded', reason: 'Digits exchanged' })
    expect(`/verify/${seen.replacedBy}`).toBe(next.verifyPath)
  })
  it('unknown for a right number with a wrong code', async () => {
    const certificate = await detail((await issue()).certificateId!)
    expect(await verify(`/verify/${certificate.number}-AAAAAAAA`)).toEqual({
      verdict: 'unknown',
      reason: null,
      replacedBy: null,
      payload: null,
      means: null,
      later: null,
      utility: { name: 'Larkhaven Gas & Water', phone: '555 0100' },
    })
  })
  it('read without script too: what it means today, and whether it is genuine', async () => {
    const certificate = await detail((await issue()).certificateId!)
    const page = async (path: string) => (await supertest(server).get(path).expect(200)).text
    const plain = (html: string) => /<noscript>(.*?)<\/noscript>/s.exec(html)?.[1] ?? ''
    const said = plain(await page(certificate.verifyPath))
    expect(said).toMatch(/^<h1>Passed; next test due \d{4}-\d{2}-\d{2}<\/h1>/)
    expect(said).toContain('Genuine, not replaced.')
    expect(said).toContain('serial S-RP-101')
    expect(said).toContain('Larkhaven Gas &amp; Water, 555 0100')
    expect(plain(await page('/verify/LH-2026-000001-AAAAAAAA'))).toContain('Unknown')
  })
  it('what it says today: passed, until a later test stands; a corrected old record overtakes nothing', async () => {
    const input = equipmentInput(world.site.id, 'RP-LATER', addDays(app.today(), 9))
    const equipment = await createEquipment(app, world.tester, input)
    const own = { ...ids, equipmentId: equipment.id }
    const first = await detail((await signedVisit(app, tester, own, PASSWORD)).certificateId!)
    expect((await verify(first.verifyPath)).means).toMatchObject({ state: 'passed' })
    const second = await detail((await signedVisit(app, tester, own, PASSWORD)).certificateId!)
    // In small letters and without its dashes it is the same code.
    const seen = await verify(first.verifyPath.replaceAll('-', '').toLowerCase())
    expect(seen).toMatchObject({ verdict: 'genuine', means: { state: 'overtaken' } })
    expect(`/verify/${seen.later}`).toBe(second.verifyPath)
    expect(await verify(second.verifyPath)).toMatchObject({
      means: { state: 'passed' },
      later: null,
    })
  })
})
