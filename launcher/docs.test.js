import { existsSync, mkdirSync, readFileSync, symlinkSync } from 'node:fs'
import { join } from 'node:path'
import { execa } from 'execa'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { dayAndTime } from './backup/names.js'
import { ROOT } from './packages.js'
import { environment, newRecord, testDirectory } from './testing/installation.js'

/** Every command of these pages that stands in a block is run as it is written there, in its order. */
const text = readFileSync(join(ROOT, 'docs/OPERATIONS.md'), 'utf8')
const { home, remove } = testDirectory()
const data = join(home, 'data')
const SHOWN_DAY = '2026-11-27'
const EXPECTED = '# → '

/** A command with what it is to say; a cluster is tried by scripts/cluster-test.sh. */
const blocks = text
  .split('\n')
  .filter((line) => /^ {4}(\.\/uvanta |# → )/.test(line))
  .map((line) => line.trim())
/** @type {{ command: string, says: string }[]} */
const commands = []
for (const line of blocks) {
  const last = commands.at(-1)
  if (line.startsWith(EXPECTED) && last) last.says = line.slice(EXPECTED.length)
  else commands.push({ command: line, says: '' })
}
const tried = commands.filter(({ command }) => !command.includes('uvanta cluster'))

let key = ''
beforeAll(async () => {
  await newRecord(data)
  mkdirSync(join(home, 'srv/backups'), { recursive: true })
  symlinkSync(join(ROOT, 'uvanta'), join(home, 'uvanta'))
})
afterAll(remove)

test('every command says what to expect', () => {
  expect(tried.length).toBeGreaterThan(12)
  expect(tried.filter(({ says }) => says === '')).toEqual([])
})

test.each(tried)('$command', async ({ command, says }) => {
  // The newest backup is the one that the page calls by its day; a moment is the present one.
  const today = dayAndTime(new Date()).slice(0, 10)
  const words = command
    .replace(/'2026-11-27 [\d:]+'/, `'${dayAndTime(new Date())}'`)
    .replace(SHOWN_DAY, today)
    .replaceAll('/srv/', `${join(home, 'srv')}/`)
    .replace('KEY', key)
  const { all, failed } = await execa('bash', ['-c', words], {
    cwd: home,
    env: { ...environment(), UVANTA_DATA: data },
    extendEnv: false,
    all: true,
    reject: false,
  })
  expect(failed, all).toBe(false)
  expect(all).toContain(says)
  key = /signed with the key (\S+)\. Keep/.exec(all)?.[1] ?? key
})

test('every page that a step leads to is there', () => {
  const links = [...text.matchAll(/\]\(([\w./-]+\.md)\)/g)].map(([, link]) => link ?? '')
  for (const link of links) expect(existsSync(join(ROOT, 'docs', link)), link).toBe(true)
})
