import { QueryTypes } from 'sequelize'
import type { App } from '../context'
import { equipmentSql } from '../service/register/search'
import { ratios, signedInFetch, times } from './measure'

const ROWS = 100_000
const RUNS = 60
const QUERIES = ['seagate rp', 'L4', 'hospital', 'pump rp-9'] as const

/** Equipment search at 100,000 rows through the interface against the same SQL alone. */
export async function benchSearch(app: App, base: string): Promise<object[]> {
  await fill(app)
  const send = await signedInFetch(base, 'sula')
  const [ours, bare]: [number[], number[]] = [[], []]
  for (let n = 0; n < RUNS; n++) {
    const q = QUERIES[n % QUERIES.length] as string
    const { sql, replacements } = equipmentSql({ q, limit: '50' }, app.today(), app.today(), 51)
    ours.push(
      ...(await times(1, async () =>
        (await send(`/api/v1/equipment?q=${encodeURIComponent(q)}`)).json(),
      )),
    )
    bare.push(
      ...(await times(1, () =>
        app.db.sequelize.query(sql, { replacements, type: QueryTypes.SELECT }),
      )),
    )
  }
  return ratios(`search ${ROWS} pieces of equipment, API against the same SQL,`, ours, bare)
}

/** Multiplies the demo's equipment under new tags and serials. */
async function fill(app: App): Promise<void> {
  const columns =
    'site_id, family, kind, size_in, maker, model, service, position, set_point, programme, spec_sheet, installed_on, anchor_on'
  const have = await app.db.equipment.count()
  const copies = Math.ceil(ROWS / have)
  for (let n = 0; n < copies; n++) {
    await app.db.sequelize.query(
      `INSERT INTO equipment (id, tag, serial, search_text, ${columns})
       SELECT UUID(), CONCAT(tag, '-', ${n}), CONCAT(serial, ${n}), CONCAT(search_text, ' ', serial, ${n}), ${columns}
       FROM equipment WHERE tag NOT LIKE '%-%-%'`,
    )
  }
  await app.db.sequelize.query(
    `INSERT IGNORE INTO equipment_status (equipment_id, \`condition\`, due_on)
     SELECT id, 'never-tested', anchor_on FROM equipment`,
  )
  await app.db.sequelize.query('ANALYZE TABLE equipment, equipment_status')
}
