import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync } from 'node:fs'
import { appendFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { ExplainedError } from '@uvanta/core/errors'
import { type Model, type ModelStatic, Op, Transaction } from 'sequelize'
import type { App } from '../../context'
import type { CertificateRow } from '../../store/tables'
import { paperOf } from '../certificate/certificates'
import { ServiceError } from '../errors'
import { readEvents } from '../visit/log'
import { exportedTables } from './tables'

/** Rows read at a time. */
const ROWS = 500
/** Photographs read at a time: each may have some megabytes. */
const PHOTOGRAPHS = 10
/** Names, addresses and telephone numbers are in it: for its owner alone. */
const OWNER_ONLY = { directory: 0o700, file: 0o600 }

export interface Exported {
  readonly files: number
  readonly visits: number
  readonly certificates: number
  readonly photographs: number
  /** Papers that were altered where they are kept, and are left out. */
  readonly altered: number
}

/**
 * Writes all records into an empty directory in open formats: JSON lines, PDF, JWS (RFC 7515) and the photographs as
 * they were taken, all as of one moment. `README.md` says how to check chains and signatures; `CONTENTS.json` has the
 * SHA-256 of every file and is written last, so that an export without it is incomplete.
 * @throws ExplainedError directory-not-empty
 */
export async function exportAll(app: App, directory: string): Promise<Exported> {
  if (existsSync(directory) && readdirSync(directory).length > 0)
    throw new ExplainedError(
      'directory-not-empty',
      `${directory} is not empty.`,
      'Name a directory that is empty, or none that is there.',
    )
  const out = new Files(directory)
  // In one snapshot: an entry that arrives meanwhile would be in a log and not in the head of its visit.
  await app.db.sequelize.transaction(
    { isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ },
    (snapshot) => tables(app, out, snapshot),
  )
  await out.whole('keys.json', JSON.stringify({ keys: app.keys.published() }, null, 2))
  await out.whole('README.md', readMe(app))
  return out.finish()
}

async function tables(app: App, out: Files, snapshot: Transaction): Promise<void> {
  for (const { file, model, without } of exportedTables) {
    out.begin(`${file}.jsonl`)
    await eachRow(app.db[model] as ModelStatic<Model>, snapshot, ROWS, (row) =>
      out.line(`${file}.jsonl`, leavingOut(row, without ?? [])),
    )
  }
  for (const file of ['visits', 'certificates', 'photographs']) out.begin(`${file}.jsonl`)
  await eachRow(app.db.visits, snapshot, ROWS, async (row) => {
    const visit = row as { id: Parameters<typeof readEvents>[1] }
    out.count.visits++
    const events = await readEvents(app, visit.id, snapshot)
    await out.line('visits.jsonl', { ...visit, events })
  })
  await eachRow(app.db.certificates, snapshot, ROWS, (row) =>
    certificate(app, out, row as CertificateRow),
  )
  await eachRow(app.db.photos, snapshot, PHOTOGRAPHS, async (row) => {
    const { content, ...photo } = row as { id: string; mime: string; content: Buffer }
    const file = `photographs/${photo.id}.${photo.mime.split('/')[1] ?? 'bin'}`
    out.count.photographs++
    await out.line('photographs.jsonl', { ...photo, file })
    await out.whole(file, content)
  })
}

/** The signed text, what it says, and the paper with its signature in it; one that was altered is left out and counted. */
async function certificate(app: App, out: Files, row: CertificateRow): Promise<void> {
  const { jws, payload, ...columns } = row
  out.count.certificates++
  await out.line('certificates.jsonl', { ...columns, payload: JSON.parse(payload) as object })
  await out.whole(`certificates/${row.number}.jws`, jws)
  try {
    const { name, pdf } = await paperOf(app, row.id)
    await out.whole(`certificates/${name}.pdf`, pdf)
  } catch (error) {
    if (!(error instanceof ServiceError) || error.code !== 'paper-altered') throw error
    out.count.altered++
  }
}

/** Reads a table in the order of its key, some rows at a time. */
async function eachRow(
  model: ModelStatic<Model>,
  transaction: Transaction,
  limit: number,
  take: (row: Record<string, unknown>) => Promise<void> | void,
): Promise<void> {
  const [key] = model.primaryKeyAttributes
  if (!key) throw new Error(`${model.name} has no key`)
  let after: unknown
  for (;;) {
    const rows = (await model.findAll({
      where: after === undefined ? {} : { [key]: { [Op.gt]: after } },
      order: [[key, 'ASC']],
      limit,
      raw: true,
      transaction,
    })) as unknown as Record<string, unknown>[]
    for (const row of rows) await take(row)
    after = rows.at(-1)?.[key]
    if (rows.length < limit) return
  }
}

const leavingOut = (row: Record<string, unknown>, without: readonly string[]) =>
  Object.fromEntries(Object.entries(row).filter(([name]) => !without.includes(name)))

/** Files of an export, with the hash of each. */
class Files {
  readonly count = { visits: 0, certificates: 0, photographs: 0, altered: 0 }
  private readonly hashes = new Map<string, ReturnType<typeof createHash>>()
  private readonly lines = new Map<string, string[]>()

  constructor(private readonly directory: string) {
    for (const folder of ['.', 'certificates', 'photographs'])
      mkdirSync(join(directory, folder), { recursive: true, mode: OWNER_ONLY.directory })
  }

  /** Makes a file of lines, which stays empty where there are none. */
  begin(file: string): void {
    this.lines.set(file, [])
  }

  async line(file: string, row: object): Promise<void> {
    const waiting = this.waiting(file)
    waiting.push(`${JSON.stringify(row)}\n`)
    if (waiting.length >= ROWS) await this.write(file)
  }

  async whole(file: string, content: string | Buffer): Promise<void> {
    this.hashed(file, content)
    await writeFile(join(this.directory, file), content, { mode: OWNER_ONLY.file })
  }

  async finish(): Promise<Exported> {
    for (const file of this.lines.keys()) await this.write(file)
    const files = [...this.hashes].map(([file, hash]) => ({ file, sha256: hash.digest('hex') }))
    await writeFile(join(this.directory, 'CONTENTS.json'), JSON.stringify({ files }, null, 2), {
      mode: OWNER_ONLY.file,
    })
    return { files: files.length, ...this.count }
  }

  private async write(file: string): Promise<void> {
    const text = this.waiting(file).splice(0).join('')
    this.hashed(file, text)
    await appendFile(join(this.directory, file), text, { mode: OWNER_ONLY.file })
  }

  private waiting(file: string): string[] {
    const lines = this.lines.get(file)
    if (!lines) throw new Error(`${file} was not begun`)
    return lines
  }

  private hashed(file: string, content: string | Buffer): void {
    const hash = this.hashes.get(file) ?? createHash('sha256')
    this.hashes.set(file, hash.update(content))
  }
}

const readMe = (app: App) => `# Records of ${app.utility.current.name}

Written ${app.now().toISO()}. Every \`.jsonl\` file has one JSON object a line. \`CONTENTS.json\` has the SHA-256 of
every other file; it is written last, so an export without it is incomplete.

| File | Holds |
|---|---|
${exportedTables.map(({ file, holds }) => `| ${file}.jsonl | ${holds} |`).join('\n')}
| visits.jsonl | Visits, each with its log under \`events\`. |
| certificates.jsonl | Certificates and what each says. |
| certificates/NUMBER.jws | The signed text of a certificate. |
| certificates/NUMBER.pdf | The certificate as it is printed, with the signed text attached; one that holds no more has its state in the name. |
| photographs.jsonl, photographs/ | Photographs and where they belong. |
| keys.json | Public keys, as a JSON Web Key Set (RFC 7517). |

A certificate is a JSON Web Signature (RFC 7515, EdDSA): any library checks \`certificates/NUMBER.jws\` against
\`keys.json\`.

The log of a visit is a chain. The hash of an event is the SHA-256, in hexadecimal, of the canonical JSON (RFC 8785)
of \`{"event": …, "previousHash": …, "visitId": …}\`, where \`event\` is the event without its own \`hash\`, and
\`previousHash\` is the hash of the event before it, or 64 zeros before the first. The hash of the last event is
\`headHash\` of the visit.

Passwords, second factors, passkeys, keys of programs and the seals that only this installation can check are not here.
`
