import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { makeTestApp } from '../testing/app'
import { keepVersions } from './versions'
import { BadLibraryFile } from './yamlFile'

/** Kind, id, version and hash of what an installation of December 1, 2026 had had in force, as its database lists it. */
const FIXTURE = join(import.meta.dirname, '../testing/fixtures/versions-in-force.txt')
const known = readFileSync(FIXTURE, 'utf8')
  .trim()
  .split('\n')
  .map((line) => {
    const [kind = '', id = '', version = '', hash = ''] = line.split(' ')
    return { kind, id, version: Number(version), hash }
  })

it('a version that was in force anywhere keeps its text: an installation that has it goes on', async () => {
  const app = await makeTestApp()
  const { library } = app.shelf
  const rows = known.map((k) => ({ ...k, content: '{}', firstSeenAt: app.now().toJSDate() }))
  const put = async (hashed: typeof rows) => {
    await app.db.sequelize.query('TRUNCATE TABLE library_version')
    await app.db.libraryVersions.bulkCreate(hashed as never)
  }
  await put(rows)
  await expect(keepVersions(app.db, library, app.now())).resolves.toBeDefined()
  // With another hash of one of these that are still in force it is refused.
  const inForce = rows.filter(
    (r) =>
      r.kind === 'procedure' &&
      library.procedures.some((p) => p.id === r.id && p.version === r.version),
  )
  expect(inForce.length).toBeGreaterThan(0)
  const [changed] = inForce
  await put(rows.map((r) => (r === changed ? { ...r, hash: '0'.repeat(64) } : r)))
  await expect(keepVersions(app.db, library, app.now())).rejects.toThrow(BadLibraryFile)
})
