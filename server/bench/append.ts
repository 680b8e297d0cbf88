import { QueryTypes, type Transaction } from 'sequelize'
import { v7 as uuidv7 } from 'uuid'
import type { App } from '../context'
import { ratios, signedInFetch, times } from './measure'

const RUNS = 400
const WARM_UP = 60
/** As many entries as a long visit has. */
const LONG = 700
const BATCH = 100

/**
 * Appending one event through the interface: against a bare INSERT of the same row, and against what it cannot do
 * without, a request that finds out who asks and the same statements in a transaction.
 */
export async function benchAppend(app: App, base: string): Promise<object[]> {
  const odda = await app.db.people.findOne({ where: { username: 'odda' } })
  const visit = await app.db.visits.findOne({
    where: { technicianId: odda?.id ?? '', state: 'planned', plannedOn: app.today() },
  })
  if (!visit) throw new Error('the demo has no planned visit today')
  const send = await signedInFetch(base, 'odda')
  await app.db.sequelize.query('CREATE TABLE bench_event LIKE visit_event')
  let expected = visit.eventCount
  const write = async (count: number) => {
    const events = Array.from({ length: count }, aNote)
    const body = JSON.stringify({ expected, events })
    const response = await send(`/api/v1/visits/${visit.id}/events`, { method: 'POST', body })
    await response.json()
    expected += count
  }
  const append = () => write(1)
  await times(WARM_UP, append)
  const [row] = await app.db.sequelize.query<Record<string, unknown>>(
    'SELECT * FROM visit_event WHERE visit_id = ? ORDER BY seq DESC LIMIT 1',
    { replacements: [visit.id], type: QueryTypes.SELECT },
  )
  const columns = Object.keys(row ?? {})
  const sql = `INSERT INTO bench_event (${columns.join(', ')}) VALUES (${columns.map(() => '?').join(', ')})`
  const insert = (n: number, transaction?: Transaction) =>
    app.db.sequelize.query(sql, {
      replacements: columns.map((c) => (c === 'id' ? uuidv7() : c === 'seq' ? n : row?.[c])),
      ...(transaction ? { transaction } : {}),
    })
  await insert(-1)
  let inserted = 0
  const byHand = async () => {
    await (await send('/api/v1/session')).json()
    await app.db.sequelize.transaction(async (transaction) => {
      const byId = { replacements: [visit.id], transaction }
      await app.db.sequelize.query('SELECT * FROM visit WHERE id = ? FOR UPDATE', byId)
      await Promise.all([
        insert(inserted++, transaction),
        app.db.sequelize.query(
          "UPDATE seal SET seal = REVERSE(seal) WHERE kind = 'visit' AND id = ?",
          byId,
        ),
        // What an append writes there anew.
        app.db.sequelize.query('UPDATE visit SET replan_asked = UUID() WHERE id = ?', byId),
      ])
    })
  }
  const figures = async (name: string) => {
    const [ours, bare, floor]: [number[], number[], number[]] = [[], [], []]
    // Turn by turn, so that all meet the same machine.
    for (let n = 0; n < RUNS; n++) {
      ours.push(...(await times(1, append)))
      bare.push(...(await times(1, () => insert(inserted++))))
      floor.push(...(await times(1, byHand)))
    }
    return [
      ...ratios(`append one event${name}, API against bare INSERT,`, ours, bare),
      ...ratios(`append one event${name}, API against its statements by hand,`, ours, floor),
    ]
  }
  const short = await figures('')
  while (expected < LONG) await write(Math.min(BATCH, LONG - expected))
  return [...short, ...(await figures(` to ${LONG} and more`))]
}

export const aNote = () => ({
  id: uuidv7(),
  kind: 'note',
  payload: { station: 'prepare', text: 'Vent clear, no water in the pit.' },
  deviceTime: new Date().toISOString(),
  deviceOffset: 0,
})
