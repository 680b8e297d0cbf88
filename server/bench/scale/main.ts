import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { join } from 'node:path'
import { performance } from 'node:perf_hooks'
import { pino } from 'pino'
import { openApp } from '../../app'
import { readConfig } from '../../config'
import { loadDemo } from '../../demo/load'
import { makeServer } from '../../http/server'
import { percentile, signedInFetch, times } from '../measure'
import { fill, UTILITY } from './fill'
import { READS } from './reads'

/**
 * Every list at the size of a utility, first page and next, beside its own SQL alone and a request without work: a
 * JSON line each.
 */
const RUNS = 40
const app = await openApp(readConfig(process.env, join(import.meta.dirname, '..', '..', '..')))
await loadDemo(app, () => undefined)
const started = performance.now()
await fill(app.db.sequelize, UTILITY, app.today(), (s) =>
  process.stderr.write(
    `${Math.round((performance.now() - started) / 1000)} s  ${s.slice(0, 40)} …\n`,
  ),
)
const http = createServer(makeServer(app, pino({ level: 'silent' })))
await new Promise<void>((done) => http.listen(0, '127.0.0.1', done))
const base = `http://127.0.0.1:${(http.address() as AddressInfo).port}`
const { options } = app.db.sequelize as unknown as {
  options: { logging: ((sql: string) => void) | false }
}

/** The statements that a call asks for, besides who is asking. */
async function statementsOf(call: () => Promise<unknown>): Promise<string[]> {
  const said: string[] = []
  options.logging = (sql) => said.push(sql.replace(/^Executing \(.*?\): /, ''))
  await call()
  options.logging = false
  return said.filter((s) => s.startsWith('SELECT') && !/FROM `?(session|person|licence)\b/.test(s))
}
const round = (ms: number) => Number(ms.toFixed(1))

const PEOPLE = { technician: 'odda', administrator: 'petra' }

for (const { name, path: pattern, by } of READS) {
  const path = pattern.replace('{today}', app.today())
  const send = await signedInFetch(base, by ? PEOPLE[by] : 'sula')
  const get = async (at: string) => (await send(at)).json() as Promise<{ next: string | null }>
  const { next } = await get(path)
  const later = next ? `${path}${path.includes('?') ? '&' : '?'}cursor=${next}` : null
  for (const [page, at] of [
    ['first', path],
    ['next', later],
  ] as const) {
    if (!at) continue
    const own = await statementsOf(() => get(at))
    const [api, sql, empty]: [number[], number[], number[]] = [[], [], []]
    for (let n = 0; n < RUNS; n++) {
      const before = performance.now()
      await get(at)
      const between = performance.now()
      for (const s of own) await app.db.sequelize.query(s)
      api.push(between - before)
      sql.push(performance.now() - between)
      empty.push(...(await times(1, async () => (await send('/api/v1/session')).json())))
    }
    const [ours, bare] = [percentile(api, 95), percentile(sql, 95)]
    const line = {
      name: `${name}, ${page} page, p95`,
      ms: round(ours),
      sqlMs: round(bare),
      emptyMs: round(percentile(empty, 95)),
      ratio: Number((ours / bare).toFixed(2)),
    }
    process.stdout.write(`${JSON.stringify(line)}\n`)
  }
}
http.close()
http.closeAllConnections()
await app.db.sequelize.close()
