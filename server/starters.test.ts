import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { beforeAll, describe, expect, it } from 'vitest'
import { parse, stringify } from 'yaml'
import type { App } from './context'
import { libraryLayers } from './config'
import { makeReady } from './demo/ready'
import { loadLibrary, loadStarters } from './library/load'
import { keepVersions } from './library/versions'
import { BadLibraryFile } from './library/yamlFile'
import { type Agent, codeOf, makeTestApp, populate, serve, signedIn } from './testing/app'

const root = join(import.meta.dirname, '..')
const shipped = join(root, 'library')
const demo = loadLibrary([shipped, join(shipped, 'demo')])
const starters = loadStarters(shipped)

/** Which of the demo’s packs a starter is the same as. */
const SAME = {
  'relief-first': 'larkhaven-relief-first',
  'check-first': 'larkhaven-check-first',
  'gas-at-flow': 'larkhaven-gas-at-flow',
  'gas-at-lockup': 'larkhaven-gas-at-lock-up',
  'valves-and-actuators': 'larkhaven-valves-and-actuators',
}

describe('what a utility may begin with', () => {
  it('has the values of the demo’s packs, and nothing of its name', () => {
    expect(starters.rulePacks.map((p) => p.id).sort()).toEqual(Object.keys(SAME).sort())
    for (const pack of starters.rulePacks) {
      const of = demo.rulePacks.find((p) => p.id === SAME[pack.id as keyof typeof SAME])
      const { id: _i, version: _v, title: _t, authority: _a, ...values } = pack
      const { id: _I, version: _V, title: _T, authority: _A, ...demoValues } = of ?? pack
      expect(of).toBeDefined()
      expect(values).toEqual(demoValues)
      expect(JSON.stringify(pack)).not.toMatch(/larkhaven/i)
    }
    const times = (list: typeof demo.programmes) => list.map(({ version: _, ...p }) => p)
    expect(times([...starters.programmes])).toEqual(times(demo.programmes))
  })
})

describe('the library of a utility', () => {
  /** A directory of data with these files in its library, and what loading that says. */
  function own(files: Readonly<Record<string, unknown>>) {
    const data = mkdtempSync(join(tmpdir(), 'uvown-'))
    for (const [name, content] of Object.entries(files)) {
      const path = join(data, 'library', name)
      mkdirSync(join(path, '..'), { recursive: true })
      writeFileSync(path, stringify(content))
    }
    return loadLibrary(libraryLayers(root, data))
  }
  it('has guides, machines, procedures and families, and nothing that is Larkhaven’s', () => {
    const library = own({})
    expect(library.guides.length).toBe(demo.guides.length)
    expect(library.machines.length).toBe(demo.machines.length)
    expect(library.families.length).toBe(demo.families.length)
    const { rulePacks, programmes, policies, specSheets, earlier } = library
    expect([rulePacks, programmes, policies, specSheets]).toEqual([[], [], [], []])
    expect([earlier.rulePacks, earlier.programmes]).toEqual([[], []])
    expect(/larkhaven/i.test(JSON.stringify({ ...library, earlier: {} }))).toBe(false)
  })
  it('takes an adapted entry in place of the shipped one, as a version of its own', async () => {
    const guide = demo.guides.find((g) => g.id === 'vacuum-breaker')!
    const adapted = { ...guide, version: guide.version + 1, title: 'Our own way' }
    const library = own({ 'guides/vacuum-breaker.yaml': adapted })
    expect(library.guides.find((g) => g.id === guide.id)?.title).toBe('Our own way')
    expect(library.guides.length).toBe(demo.guides.length)
    const [family] = demo.families
    const families = own({ 'families.yaml': [{ ...family, version: 2, title: 'Ours' }] }).families
    expect(families.filter((f) => f.id === family?.id)).toMatchObject([{ title: 'Ours' }])
    expect(families.length).toBe(demo.families.length)
    // A version that was in force does not come with another text.
    const app = await makeTestApp()
    await expect(keepVersions(app.db, library, app.now())).resolves.toBeDefined()
    const same = own({ 'guides/vacuum-breaker.yaml': { ...guide, title: 'Our own way' } })
    await expect(keepVersions(app.db, same, app.now())).rejects.toThrow(BadLibraryFile)
  })
  it('hides what it does not want', () => {
    const library = own({ 'hidden.yaml': { guides: ['vacuum-breaker'] } })
    expect(library.guides.map((g) => g.id)).not.toContain('vacuum-breaker')
    expect(() => own({ 'hidden.yaml': { guide: ['vacuum-breaker'] } })).toThrow(BadLibraryFile)
  })
})

describe('an installation from before utilities had a library of their own', () => {
  it('keeps the rules that its equipment rests on, once', async () => {
    const app = await makeTestApp()
    await populate(app)
    const lines: string[] = []
    const ready = () =>
      makeReady(app, join(app.config.dataDirectory, 'sites.json'), true, (line) => lines.push(line))
    await ready()
    const library = loadLibrary(libraryLayers(root, app.config.dataDirectory))
    expect(library.rulePacks).toEqual(demo.rulePacks)
    expect(library.programmes).toEqual(demo.programmes)
    expect(library.specSheets).toEqual(demo.specSheets)
    expect(library.earlier.rulePacks).toEqual(demo.earlier.rulePacks)
    await ready()
    expect(lines).toHaveLength(1)
  })
  it('begins with nothing where there is no equipment', async () => {
    const app = await makeTestApp()
    await makeReady(app, join(app.config.dataDirectory, 'sites.json'), true, () => undefined)
    expect(readdirSync(app.config.ownLibrary)).toEqual([])
  })
})

describe('putting rules in force', () => {
  let app: App
  let administrator: Agent
  let tester: Agent
  beforeAll(async () => {
    app = await makeTestApp()
    await populate(app)
    Object.assign(app.config, { libraryLayers: libraryLayers(root, app.config.dataDirectory) })
    Object.assign(app.shelf, { layers: app.config.libraryLayers })
    expect((await app.shelf.reload()).faults).toEqual([])
    const server = serve(app)
    administrator = await signedIn(server, 'administrator')
    tester = await signedIn(server, 'tester')
  })
  const PACK = {
    starter: 'relief-first',
    title: 'Example Water: relief valve first',
    authority: 'Example Water Authority',
    source: 'Cross-connection manual, edition 7; compared by A. Example.',
    effectiveFrom: '2026-01-01',
  }
  const adopt = (body: object) => administrator.post('/api/v1/settings/rule-packs').send(body)
  const file = () => join(app.config.ownLibrary, 'rulepacks', 'lh-relief-first.yaml')

  it('is for the administrator, of what is offered, in the name of a utility', async () => {
    await tester.get('/api/v1/settings/starters').expect(403)
    await tester.post('/api/v1/settings/rule-packs').send(PACK).expect(403)
    expect((await adopt({ ...PACK, starter: 'never-heard-of' })).status).toBe(404)
    await app.db.utility.update({ certificatePrefix: '' }, { where: {} })
    await app.utility.refresh()
    expect(codeOf(await adopt(PACK))).toBe('utility-not-set')
    await app.db.utility.update({ certificatePrefix: 'LH' }, { where: {} })
    await app.utility.refresh()
    expect(existsSync(file())).toBe(false)
  })

  it('copies the template under the utility’s own name, at once, and again as a new version', async () => {
    const { body } = await adopt(PACK).expect(200)
    expect(body.rulePacks.filter((p: { inForce: boolean }) => p.inForce)).toMatchObject([
      { id: 'relief-first' },
    ])
    const { starter: _, ...named } = PACK
    expect(parse(readFileSync(file(), 'utf8'))).toMatchObject({ ...named, version: 1 })
    expect(app.shelf.library.rulePacks).toMatchObject([{ id: 'lh-relief-first', version: 1 }])
    await adopt({ ...PACK, source: 'Edition 8.' }).expect(200)
    expect(app.shelf.library.rulePacks).toMatchObject([{ id: 'lh-relief-first', version: 2 }])
    const earlier = app.shelf.library.earlier.rulePacks.filter((p) => p.id === 'lh-relief-first')
    expect(earlier).toMatchObject([{ version: 1 }])
  })

  it('keeps the programmes that are in force beside a new one', async () => {
    const offered = (await administrator.get('/api/v1/settings/starters').expect(200)).body
    const [annual, gas] = offered.programmes.map(({ inForce: _, ...p }: { inForce: boolean }) => p)
    for (const programme of [annual, gas, { ...annual, intervalMonths: 6 }])
      await administrator.post('/api/v1/settings/programmes').send(programme).expect(200)
    const { programmes, earlier } = app.shelf.library
    expect(programmes.map((p) => [p.id, p.intervalMonths]).sort()).toEqual([
      ['backflow-annual', 6],
      ['gas-annual', 12],
    ])
    // The one that it takes the place of stays for the equipment that was tested under it.
    const half = programmes.find((p) => p.id === 'backflow-annual')
    const before = earlier.programmes.filter((p) => p.id === 'backflow-annual')
    expect(before.map((p) => [p.version, p.intervalMonths])).toContainEqual([
      (half?.version ?? 0) - 1,
      12,
    ])
  })

  it('loses no programme when several are put in force at once', async () => {
    const offered = (await administrator.get('/api/v1/settings/starters').expect(200)).body
    const all = offered.programmes.map(({ inForce: _, ...p }: { inForce: boolean }) => p)
    const put = (programme: object) =>
      administrator.post('/api/v1/settings/programmes').send(programme)
    for (const { status } of await Promise.all(all.map(put))) expect(status).toBe(200)
    expect(app.shelf.library.programmes.map((p) => p.id).sort()).toEqual(
      starters.programmes.map((p) => p.id).sort(),
    )
  })

  it('leaves the files as they were when something else in them is wrong', async () => {
    const bad = join(app.config.ownLibrary, 'specsheets', 'x.yaml')
    mkdirSync(join(bad, '..'), { recursive: true })
    writeFileSync(bad, 'id: y\n')
    const before = readFileSync(file(), 'utf8')
    expect(codeOf(await adopt({ ...PACK, source: 'Edition 9.' }))).toBe('library-faults')
    expect(readFileSync(file(), 'utf8')).toBe(before)
    expect(app.shelf.library.rulePacks).toMatchObject([{ version: 2 }])
  })
})
