import { createHash } from 'node:crypto'
import type { DailyHead } from '@uvanta/contract'
import { CHAIN_START } from '@uvanta/core/visit'
import { addDays } from '@uvanta/core/calendar'
import { Op, QueryTypes, type Transaction } from 'sequelize'
import type { App } from '../../context'
import { keptCursor, makeCursor, pageSize } from '../paging'
import { inSnapshot } from './snapshot'
import type { RecordFault } from './recordFault'

/** What is signed of a day. */
interface Head {
  /** Day, in UTC, of whose end it is. */
  readonly day: string
  /** SHA-256 over the last entry of every log until then, in the order of the visits. */
  readonly head: string
  readonly visits: number
  readonly events: number
  /** The head of the published day before. */
  readonly previous: string
}

const PAGE = 5_000
/** A day is closed an hour after its end: until then an entry of another machine may still arrive. */
const CLOSED_AFTER_HOURS = 1

interface LastEntry {
  readonly id: string
  readonly seq: number
  readonly hash: string
}

/**
 * The hash of everything that stood at the end of a day. Logs only grow, so it is the same whenever it
 * is computed; what was written into them later, or taken out, makes it another. Of a visit that was forgotten, what
 * it ended with is left.
 */
async function headOf(
  app: App,
  day: string,
  transaction: Transaction,
): Promise<Pick<Head, 'head' | 'visits' | 'events'>> {
  const hash = createHash('sha256')
  let [visits, events, after] = [0, 0, '00000000-0000-0000-0000-000000000000']
  for (;;) {
    const rows = await app.db.sequelize.query<LastEntry>(
      `(SELECT e.visit_id AS id, e.seq, e.hash FROM visit_event e
       JOIN (
         SELECT visit_id, MAX(seq) AS seq FROM visit_event
         WHERE visit_id > :after AND server_time < :end
         GROUP BY visit_id ORDER BY visit_id LIMIT ${PAGE}
       ) l ON l.visit_id = e.visit_id AND l.seq = e.seq)
       UNION ALL
       (SELECT id, events AS seq, head_hash AS hash FROM forgotten_visit
       WHERE id > :after AND last_at < :end ORDER BY id LIMIT ${PAGE})
       ORDER BY id LIMIT ${PAGE}`,
      { replacements: { after, end: addDays(day, 1) }, type: QueryTypes.SELECT, transaction },
    )
    for (const { id, seq, hash: entry } of rows) {
      hash.update(`${id} ${seq} ${entry}\n`)
      events += seq
    }
    visits += rows.length
    const last = rows.at(-1)
    if (!last || rows.length < PAGE) return { head: hash.digest('hex'), visits, events }
    after = last.id
  }
}

const read = async (app: App, jws: string): Promise<Head | null> => {
  const bytes = await app.keys.verify(jws, 'head')
  return bytes && (JSON.parse(new TextDecoder().decode(bytes)) as Head)
}
const newest = (app: App) => app.db.dailyHeads.findOne({ order: [['day', 'DESC']] })

/** Signs the head of the last day that is over, unless that was done: by us, or by another process. */
export async function makeDailyHead(app: App): Promise<void> {
  const day = addDays(app.now().minus({ hours: CLOSED_AFTER_HOURS }).toISODate(), -1)
  const before = await newest(app)
  if (before && before.day >= day) return
  const previous = before ? ((await read(app, before.jws))?.head ?? CHAIN_START) : CHAIN_START
  const stood = await inSnapshot(app, (transaction) => headOf(app, day, transaction))
  const payload: Head = { day, ...stood, previous }
  const jws = await app.keys.sign(new TextEncoder().encode(JSON.stringify(payload)), 'head')
  const row = { day, jws, madeAt: app.now().toJSDate() }
  await app.db.dailyHeads.bulkCreate([row], { ignoreDuplicates: true })
}

/** Heads for anybody, the newest first: whoever keeps a copy can hold it against what stands later. */
export async function listHeads(
  app: App,
  query: { cursor?: string | undefined; limit?: string | undefined },
): Promise<{ items: DailyHead[]; next: string | null }> {
  const [last] = keptCursor(query.cursor, 1, /^\d{4}-\d{2}-\d{2}$/)
  const limit = pageSize(query.limit)
  const rows = await app.db.dailyHeads.findAll({
    where: last ? { day: { [Op.lt]: last } } : {},
    order: [['day', 'DESC']],
    limit: limit + 1,
  })
  const items = rows.slice(0, limit).map(({ day, jws }) => ({ day, jws }))
  return { items, next: rows.length > limit ? makeCursor([items.at(-1)?.day]) : null }
}

/** Heads that no key of ours has signed, that do not follow one another, or that no longer fit the logs. */
export async function headFaults(app: App): Promise<RecordFault[]> {
  const rows = await app.db.dailyHeads.findAll({ order: [['day', 'ASC']] })
  const faults: RecordFault[] = []
  const fault = (day: string, what: string) => faults.push({ of: 'head', id: day, what })
  let previous = CHAIN_START
  for (const { day, jws } of rows) {
    const signed = await read(app, jws)
    if (signed?.day !== day) fault(day, 'is none that we signed')
    else if (signed.previous !== previous) fault(day, 'does not follow the one before')
    previous = signed?.head ?? previous
  }
  // The last of them covers all that the ones before cover: logs are chained.
  const last = rows.at(-1)
  const signed = last && (await read(app, last.jws))
  if (!signed) return faults
  const stands = await inSnapshot(app, (transaction) => headOf(app, signed.day, transaction))
  if (stands.head !== signed.head || stands.events !== signed.events)
    fault(signed.day, 'does not fit the logs: they were rewritten since')
  return faults
}
