import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { create, extract } from 'tar'
import { afterAll, expect, test } from 'vitest'
import { sql } from '../database.js'
import { ROOT } from '../packages.js'
import { testDirectory, uvanta, withDatabase } from '../testing/installation.js'

/** Backups as they were written in each format since the first: of records that hold nothing but their library. */
const fixture = (/** @type {string} */ name) => join(ROOT, 'launcher/backup/fixtures', name)
const { home, remove } = testDirectory()
afterAll(remove)

test.each([
  { file: '1.tar.gz', signedBy: 'none' },
  { file: '2.tar', signedBy: '46x7ViQ4b6zurnvmJEe13NhBVWvFiaue7ltBY-trOxM' },
  { file: '3.tar', signedBy: 'C_t8vBxveyRrht3rFrtG7gDu1ZnDn_Ee3rTNe577f2s' },
])('$file is restored into a directory of its own, and verifies', async ({ file, signedBy }) => {
  const data = join(home, file)
  const words = ['--data', data, 'restore', fixture(file), '--signed-by', signedBy]
  const { said, status } = await uvanta(words)
  expect(status, said).toBe(0)
  expect(said).toContain('0 faults')
  await withDatabase(data, async ({ database }) => {
    const kept = await sql(database, 'SELECT COUNT(*) FROM uvanta.library_version')
    expect(Number(kept)).toBeGreaterThan(100)
  })
})

test('one of a format to come is refused, with what to do, and nothing is made', async () => {
  const contents = join(home, 'contents')
  mkdirSync(contents)
  await extract({ file: fixture('3.tar'), cwd: contents })
  expect(readFileSync(join(contents, 'format'), 'utf8').trim()).toBe('3')
  writeFileSync(join(contents, 'format'), '4\n')
  const file = join(home, '4.tar')
  await create({ cwd: contents, file }, readdirSync(contents))
  const { said, status } = await uvanta(['--data', join(home, 'four'), 'restore', file])
  expect(status).toBe(1)
  expect(said).toMatch(/format 4; this one reads formats 1 to 3\. Install the newer version/)
})
