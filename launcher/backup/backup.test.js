import {
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs'
import { createHash } from 'node:crypto'
import { join } from 'node:path'
import { gunzipSync, gzipSync } from 'node:zlib'
import { setTimeout as pause } from 'node:timers/promises'
import { execa } from 'execa'
import { create, extract, list } from 'tar'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { sql } from '../database.js'
import {
  newRecord,
  rowOf,
  rowsIn,
  testDirectory,
  uvanta,
  withDatabase,
} from '../testing/installation.js'
import { historyOf, saveChanges } from './changes.js'
import { checksumsOf, writeBackup } from './file.js'
import { dayAndTime } from './names.js'

const { home, remove } = testDirectory()
const one = join(home, 'one')
const at = (/** @type {string[]} */ ...names) => join(home, ...names)
const PASSPHRASE = 'rope, lamp, tide'
const HIDDEN = 'guides: [vacuum-breaker]\n'
/** Everything that the tests need to know of the first day. */
let moment = ''
/** @type {string[]} */
let atMoment = []
/** @type {string[]} */
let atEnd = []
let signedBy = ''

const session = (/** @type {string} */ id) =>
  `INSERT INTO uvanta.session (sid, expires, data) VALUES ('${id}', NOW() + INTERVAL 1 DAY, '{}')`

beforeAll(async () => {
  await newRecord(one)
  // Of the utility’s own library.
  mkdirSync(join(one, 'library'))
  writeFileSync(join(one, 'library/hidden.yaml'), HIDDEN)
  await withDatabase(one, async ({ installation, database }) => {
    await sql(database, [rowOf('row 0'), session('stays'), session('goes')].join(';'))
    const stop = new AbortController()
    const writer = (async () => {
      for (let n = 1; !stop.signal.aborted; n++) {
        await sql(database, rowOf(`row ${n}`))
        await pause(20)
      }
    })()
    for (const name of ['1.tar', '2.tar', '3.tar'])
      signedBy = await writeBackup(installation, database, at(name))
    stop.abort()
    await writer
    // People who are signed in across all of it, go on working, and sign out.
    await sql(
      database,
      [
        rowOf('of the first hour'),
        `UPDATE uvanta.session SET data = '{"more":1}' WHERE sid = 'stays'`,
        `DELETE FROM uvanta.session WHERE sid = 'goes'`,
        session('later'),
      ].join(';'),
    )
    // A copy that was broken off left a piece behind; the next one goes on.
    const copies = at('changes', historyOf(installation))
    mkdirSync(copies, { recursive: true })
    writeFileSync(join(copies, 'log.000001.part'), 'half')
    const logs = [{ name: '', database }]
    await saveChanges(installation, logs, at('changes'))
    await pause(1_100)
    moment = dayAndTime(new Date())
    atMoment = await rowsIn(database)
    await pause(1_100)
    await sql(database, rowOf('by mistake'))
    await saveChanges(installation, logs, at('changes'))
    atEnd = await rowsIn(database)
  })
})
afterAll(remove)

/** @param {string[]} words @param {NodeJS.ProcessEnv} env */
async function refused(words, env = {}) {
  const { said, status } = await uvanta(['--data', one, 'restore', ...words], { env })
  expect(status, said).toBe(1)
  return said
}
/** @param {string} file @param {string} directory */
async function unpack(file, directory) {
  mkdirSync(directory, { recursive: true })
  await extract({ file, cwd: directory })
  return directory
}
/** @param {string} directory @param {string} file @param {boolean} [gzip] */
const pack = (directory, file, gzip = false) =>
  create({ cwd: directory, file, gzip }, readdirSync(directory))
/** @param {string} data */
const kept = (data) => withDatabase(data, ({ database }) => rowsIn(database))
/** @param {string} directory */
const dumpOf = (directory) =>
  gunzipSync(readFileSync(join(directory, 'database.sql.gz'))).toString()
const sha256 = (/** @type {string} */ text) => createHash('sha256').update(text).digest('hex')

describe('a backup', () => {
  test('is for its owner alone, and holds no secret of the directory', async () => {
    expect(statSync(at('1.tar')).mode & 0o777).toBe(0o600)
    /** @type {string[]} */
    const names = []
    await list({ file: at('3.tar'), onReadEntry: ({ path }) => names.push(path) })
    expect(names).toContain('keys/signing.json')
    expect(names.filter((name) => /password|session/.test(name))).toEqual([])
  })

  test('leaves nothing behind', () => {
    expect(readdirSync(one).filter((name) => name.startsWith('.uvanta'))).toEqual([])
    expect(readdirSync(join(one, 'backups')).filter((name) => name.startsWith('.'))).toEqual([])
  })

  test.each([['backup'], ['verify-chain'], ['renew-key'], ['forget', '10', '--yes']])(
    'finds nothing where nothing is: %s %s %s',
    async (...words) => {
      const { said, status } = await uvanta(['--data', at('nowhere'), ...words.filter(Boolean)])
      expect(status).toBe(1)
      expect(said).toContain('there is no Uvanta in')
      expect(existsSync(at('nowhere', 'db'))).toBe(false)
    },
  )

  test('finds the settings of the machine, and writes where it was asked to from any directory', async () => {
    writeFileSync(at('uvanta.env'), `UVANTA_DATA="${one}"\nUVANTA_DB_WANTED_PORT=4935\n`)
    mkdirSync(at('else where'))
    const { said, status, output } = await uvanta(['--json', 'backup', 'here.tar'], {
      cwd: at('else where'),
      env: { UVANTA_ENV_FILE: at('uvanta.env'), UVANTA_DB_WANTED_PORT: undefined },
    })
    expect(status, said).toBe(0)
    expect(JSON.parse(output)).toEqual({ file: at('else where', 'here.tar'), signedBy })
    expect(existsSync(at('else where', 'here.tar'))).toBe(true)
  })

  test('takes one name', async () => {
    expect((await uvanta(['--data', one, 'backup', at('a.tar'), at('b.tar')])).status).toBe(1)
    expect(existsSync(at('a.tar'))).toBe(false)
  })
})

describe('what is not whole is refused, and nothing is changed:', () => {
  test('a file that was cut off, and one that is none', async () => {
    cpSync(at('3.tar'), at('short.tar'))
    truncateSync(at('short.tar'), 20_000)
    expect(await refused([at('short.tar')])).toMatch(/is damaged|is not a backup/)
    writeFileSync(at('other.tar'), 'hello')
    expect(await refused([at('other.tar')])).toContain('is not a backup')
    expect(await refused([at('missing.tar')])).toContain('there is no file')
  })

  test('one that somebody changed after it was signed', async () => {
    const forged = await unpack(at('3.tar'), at('forged'))
    const text = `${dumpOf(forged)}\\! touch ${at('ran')}\n`
    writeFileSync(join(forged, 'database.sql.gz'), gzipSync(text))
    await pack(forged, at('forged.tar'))
    expect(await refused([at('forged.tar')])).toContain('changed after it was signed')
    expect(existsSync(at('ran'))).toBe(false)
  })

  test.each([
    ['a command of the system', () => `\\! touch ${at('ran')}\n`],
    ['a file that is written', () => `SELECT 1 INTO OUTFILE '${at('out', 'written')}';\n`],
    ['a right that is given', () => "GRANT ALL ON *.* TO 'uvanta_owner'@'localhost';\n"],
    ['another database', () => 'CREATE DATABASE another;\n'],
  ])('one without a signature that holds %s', async (_name, statement) => {
    const forged = await unpack(at('3.tar'), at(`forged-${_name.length}`))
    mkdirSync(at('out'), { recursive: true, mode: 0o777 })
    const text = dumpOf(forged) + statement()
    writeFileSync(join(forged, 'database.sql.gz'), gzipSync(text))
    writeFileSync(join(forged, 'hash'), sha256(text))
    await pack(forged, at('unsigned.tar'))
    expect(await refused([at('unsigned.tar')])).toContain('changed after it was signed')
    await execa('rm', [join(forged, 'signature')])
    await pack(forged, at('unsigned.tar'))
    expect(await refused([at('unsigned.tar')])).toContain('is not signed')
    expect(await refused([at('unsigned.tar'), '--signed-by', 'none'])).toContain('is damaged')
    expect(existsSync(at('ran'))).toBe(false)
    expect(existsSync(at('out', 'written'))).toBe(false)
  })

  test('all of them left the record as it was', async () => {
    expect(await kept(one)).toEqual(atEnd)
  })
})

describe('under a passphrase', () => {
  const env = { UVANTA_BACKUP_PASSPHRASE: PASSPHRASE }

  test('a backup opens with that alone, whole alone', async () => {
    const written = await uvanta(['--data', one, 'backup', '--encrypt', at('shut.tar.age')], {
      env,
    })
    expect(written.status, written.said).toBe(0)
    expect(existsSync(at('shut.tar.age.plain'))).toBe(false)
    expect(readFileSync(at('shut.tar.age')).subarray(0, 21).toString()).toBe(
      'age-encryption.org/v1',
    )
    expect(
      await refused([at('shut.tar.age')], { UVANTA_BACKUP_PASSPHRASE: 'rope, lamp, tidy' }),
    ).toContain('does not open')
    cpSync(at('shut.tar.age'), at('cut.tar.age'))
    truncateSync(at('cut.tar.age'), statSync(at('cut.tar.age')).size - 5)
    expect(await refused([at('cut.tar.age')], env)).toContain('does not open')
  })

  test('a drill says what it holds and how long it took', async () => {
    const { said, status, output } = await uvanta(
      ['--data', one, '--json', 'drill', at('shut.tar.age')],
      { env },
    )
    expect(status, said).toBe(0)
    expect(said).toContain('0 faults')
    expect(JSON.parse(output).file).toBe(at('shut.tar.age'))
    expect(readdirSync(one).filter((name) => name.startsWith('.uvanta'))).toEqual([])
  })
})

describe('another machine', () => {
  test('asks whose backup it is', async () => {
    const two = at('two')
    const words = ['--data', two, 'restore', at('3.tar')]
    for (const signed of [[], ['--signed-by', 'another']]) {
      const { said, status } = await uvanta([...words, ...signed])
      expect(status).toBe(1)
      expect(said).toContain('is not known here')
    }
    // What a demo that was cut short left behind must not make the next start throw away what was put back.
    mkdirSync(two, { recursive: true })
    writeFileSync(join(two, 'virtual-sites.json.loading'), '')
    const { said, status } = await uvanta([...words, '--signed-by', signedBy])
    expect(status, said).toBe(0)
    expect(existsSync(join(two, 'virtual-sites.json.loading'))).toBe(false)
    const wanted = [...new Set(dumpOf(await unpack(at('3.tar'), at('third'))).match(/'row \d+'/g))]
    expect((await kept(two)).map((row) => `'${row}'`).sort()).toEqual(wanted.sort())
    expect(readFileSync(join(two, 'kind'), 'utf8')).toBe('own')
    expect(readFileSync(join(two, 'library/hidden.yaml'), 'utf8')).toBe(HIDDEN)
  })

  test('keeps demo and record apart', async () => {
    const demo = at('demo')
    await newRecord(demo)
    writeFileSync(join(demo, 'kind'), 'demo')
    writeFileSync(join(demo, 'virtual-sites.json'), '[]')
    const file = at('demo.tar')
    const written = await uvanta(['--data', demo, '--json', 'backup', file])
    const { signedBy: key } = JSON.parse(written.output)
    const met = await uvanta(['--data', at('two'), 'restore', file, '--signed-by', key])
    expect(met.said).toContain('holds the demo')
    expect(met.status).toBe(1)
    const fresh = await uvanta(['--data', at('three'), 'restore', file, '--signed-by', key])
    expect(fresh.status, fresh.said).toBe(0)
    expect(readFileSync(at('three', 'kind'), 'utf8')).toBe('demo')
    expect(readFileSync(at('three', 'virtual-sites.json'), 'utf8')).toBe('[]')
  })

  test('reads a backup of the first format', async () => {
    // As it was written until November 27, 2026: plain text, a checksum for each table, no signature.
    const old = at('old')
    mkdirSync(old)
    await withDatabase(one, async ({ database }) => {
      const dumped = await execa('mariadb-dump', [
        '--no-defaults',
        `--socket=${database.socket}`,
        '--single-transaction',
        '--triggers',
        '--hex-blob',
        '--skip-dump-date',
        '--skip-comments',
        'uvanta',
      ])
      writeFileSync(join(old, 'database.sql'), `${dumped.stdout}\n`)
      writeFileSync(join(old, 'checksums'), `${await checksumsOf(database)}\n`)
    })
    cpSync(join(one, 'keys'), join(old, 'keys'), { recursive: true })
    await pack(old, at('old.tar.gz'), true)
    const words = ['--data', at('four'), 'restore', at('old.tar.gz')]
    expect((await uvanta(words)).said).toContain('is not signed')
    const { said, status } = await uvanta([...words, '--signed-by', 'none'])
    expect(status, said).toBe(0)
    expect(said).toContain('0 faults')
    expect(await kept(at('four'))).toEqual(atEnd)
    const text = readFileSync(join(old, 'database.sql'), 'utf8')
    writeFileSync(join(old, 'database.sql'), text.replace("'row 0'", "'row X'"))
    await pack(old, at('old.tar.gz'), true)
    expect((await uvanta([...words, '--signed-by', 'none'])).said).toContain(
      'does not hold what it says',
    )
  })
})

describe('a moment after a backup', () => {
  /** @param {string} data @param {string} until @param {string[]} more */
  const to = (data, until, ...more) =>
    uvanta(['--data', data, 'restore', at('1.tar'), '--until', until, ...more])

  test('is tried first, and nothing is changed', async () => {
    const before = await kept(at('two'))
    const { said, status } = await to(at('two'), moment, '--changes', at('changes'), '--dry-run')
    expect(status, said).toBe(0)
    expect(said).toContain('Nothing was changed')
    expect(await kept(at('two'))).toEqual(before)
  })

  test('is what was there then, and nobody is signed in', async () => {
    const { said, status } = await to(at('two'), moment, '--changes', at('changes'))
    expect(status, said).toBe(0)
    expect(said).toContain('0 faults')
    await withDatabase(at('two'), async ({ database }) => {
      expect(await rowsIn(database)).toEqual(atMoment)
      expect(atMoment).toContain('of the first hour')
      expect(await sql(database, 'SELECT COUNT(*) FROM uvanta.session')).toBe('0')
    })
  })

  test('can be chosen again: the log until then is kept', async () => {
    const inAnHour = dayAndTime(new Date(Date.now() + 3_600_000))
    for (const [until, wanted] of /** @type {const} */ ([
      [moment, atMoment],
      [inAnHour, atEnd],
    ])) {
      const { said, status } = await to(one, until)
      expect(status, said).toBe(0)
      expect(await kept(one)).toEqual(wanted)
    }
  })

  test('needs a log of changes, a time, and all pieces of the log', async () => {
    const before = await kept(at('two'))
    expect(await refused([at('1.tar'), '--until', moment, '--changes', at('two')])).toContain(
      'there is no log of changes',
    )
    expect(await refused([at('1.tar'), '--until', 'half past'])).toContain('is no time')
    cpSync(at('changes'), at('torn'), { recursive: true })
    const [history = ''] = readdirSync(at('torn'))
    for (const name of readdirSync(at('torn', history)).filter((file) => /^log\.\d+$/.test(file))) {
      const file = at('torn', history, name)
      truncateSync(file, Math.floor((statSync(file).size * 2) / 3))
    }
    const { said, status } = await to(at('four'), moment, '--changes', at('torn'))
    expect(status, said).toBe(1)
    expect(said).toContain('nothing was changed')
    expect(await kept(at('two'))).toEqual(before)
  })
})

test.runIf(process.getuid?.() === 0)('the database does not run as root', async () => {
  await withDatabase(one, async ({ database }) => {
    const { stdout } = await execa('ps', ['-o', 'user=', '-p', String(database.child.pid)])
    expect(stdout.trim()).not.toBe('root')
  })
})

test('nothing is started on a restore that was broken off', async () => {
  writeFileSync(join(one, 'restoring'), `${at('1.tar')} --until '${moment}'`)
  const { said, status } = await uvanta(['--data', one, 'start', '--empty'])
  expect(status).toBe(1)
  expect(said).toContain(`./uvanta restore ${at('1.tar')} --until '${moment}'`)
})
