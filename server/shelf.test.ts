import { appendFileSync, cpSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { runOfGuide } from '@uvanta/core/visit'
import { Job } from '@uvanta/core/testing'
import { beforeEach, describe, expect, it } from 'vitest'
import type { App } from './context'
import { LibraryShelf } from './library/shelf'
import { atOnce } from './heavy/heavyWork'
import { makeTestApp, populate, serve, signedIn } from './testing/app'

let app: App
let directory: string
let shelf: LibraryShelf
beforeEach(async () => {
  app = await makeTestApp()
  directory = mkdtempSync(join(tmpdir(), 'uvshelf-'))
  cpSync(app.config.libraryDirectory, directory, { recursive: true })
  shelf = await LibraryShelf.open(
    [directory, join(directory, 'demo')],
    app.db,
    app.now,
    join(directory, 'kept.json'),
    atOnce.library,
  )
  return () => {
    shelf.close()
    return app.db.sequelize.close()
  }
})

const TOWER = 'guides/tower-double-check.yaml'
function edit(file: string, from: string | RegExp, to: string): void {
  const path = join(directory, file)
  const before = readFileSync(path, 'utf8')
  expect(before.replace(from, to)).not.toBe(before)
  writeFileSync(path, before.replace(from, to))
}
const tower = () => shelf.library.guides.find((g) => g.id === 'tower-double-check')
const raised = () => edit(TOWER, /^version: \d+/m, `version: ${(tower()?.version ?? 0) + 1}`)

describe('the library on the shelf', () => {
  it('takes up a good change', async () => {
    const { version = 0 } = tower() ?? {}
    raised()
    edit(TOWER, 'Lift the cover off', 'Lift the cover straight off')
    expect((await shelf.reload()).faults).toEqual([])
    expect(tower()?.version).toBe(version + 1)
  })
  it('refuses a bad change with file and line, and keeps the last good version', async () => {
    const before = shelf.library
    const path = join(directory, TOWER)
    const good = readFileSync(path, 'utf8')
    const damages: readonly (readonly [() => void, RegExp])[] = [
      [() => appendFileSync(path, '\nsteps: ['), /./],
      [() => edit(TOWER, 'service: water', 'servise: water'), /servise/],
      [() => edit(TOWER, /- fit: cover$/m, '- fit: clover'), /no part “clover”/],
      [() => edit(TOWER, / {2}- fit: cover\n( {4}.*\n)+/, ''), /left on the tray/],
    ]
    for (const [damage, words] of damages) {
      damage()
      const { faults } = await shelf.reload()
      expect(faults[0]?.file).toBe(TOWER)
      expect(faults[0]?.line).toBeGreaterThan(0)
      expect(faults.map((f) => f.message).join('\n')).toMatch(words)
      expect(shelf.library).toBe(before)
      writeFileSync(path, good)
    }
    expect((await shelf.reload()).faults).toEqual([])
  })
  it('says so to the people who work with it', async () => {
    await populate(app)
    const agent = await signedIn(serve({ ...app, shelf }), 'tester')
    edit(TOWER, 'service: water', 'servise: water')
    await shelf.reload()
    const answer = await agent.get('/api/v1/library/state').expect(200)
    expect(answer.body.faults[0]).toMatchObject({ file: TOWER })
  })
  it('refuses another text under a version that was in force', async () => {
    edit(TOWER, 'Lift the cover off', 'Throw the cover off')
    const { faults } = await shelf.reload()
    expect(faults[0]?.message).toMatch(/was in force with another text.*raise its version/)
  })
  it('keeps earlier versions for the visits that were begun with them', async () => {
    const job = new Job({
      family: 'tower-double-check',
      kind: 'DC',
      packId: 'larkhaven-relief-first',
    })
    job.choose(tower()!, 'usual')
    const steps = runOfGuide(job.state, shelf.library)?.steps.length
    raised()
    edit(TOWER, /\n {2}- match: cover\n( {4}.*\n)+/, '\n')
    edit(TOWER, /\n {2}- at: open-up\n {4}mark: cover\n( {4}.*\n)+/, '\n')
    edit(TOWER, '- loosen: cover-bolts', '- at: open-up\n    loosen: cover-bolts')
    expect((await shelf.reload()).faults).toEqual([])
    expect(tower()?.steps.length).toBeLessThan(steps ?? 0)
    expect(runOfGuide(job.state, shelf.library)?.steps.length).toBe(steps)
    expect(shelf.library.earlier.guides.map((g) => g.guide.id)).toEqual(['tower-double-check'])
  })
  it('follows the files by itself', async () => {
    shelf.follow()
    const { version = 0 } = tower() ?? {}
    raised()
    await expect.poll(() => tower()?.version, { timeout: 10_000 }).toBe(version + 1)
  })
})
