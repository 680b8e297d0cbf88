import type { Id } from '@uvanta/core/schema'
import type { PayloadOf } from '@uvanta/core/visit'
import { QueryTypes } from 'sequelize'
import type { App } from '../../context'

type Tightened = NonNullable<PayloadOf<'planned'>['tightened']>

/** As many figures as a plan carries, and entries that are looked through for them. */
const MOST_FIGURES = 60
const MOST_ENTRIES = 400

/** What the fasteners of this equipment were tightened to when that was last recorded; none where it never was. */
export async function lastTightened(
  app: App,
  equipmentId: Id<'equipment'>,
  before: string,
): Promise<Tightened | undefined> {
  const rows = await app.db.sequelize.query<{ payload: string; on: string; guideId: string }>(
    `SELECT e.payload, v.planned_on AS \`on\`,
       (SELECT JSON_VALUE(c.payload, '$.guideId') FROM visit_event c
         WHERE c.visit_id = v.id AND c.kind = 'guide-chosen' AND c.seq < e.seq
         ORDER BY c.seq DESC LIMIT 1) AS guideId
     FROM visit v JOIN visit_event e ON e.visit_id = v.id
     WHERE v.equipment_id = :equipmentId AND v.planned_on < :before AND e.kind = 'guide-step'
       AND JSON_EXISTS(e.payload, '$.tightened')
     ORDER BY v.planned_on DESC, e.seq DESC LIMIT ${MOST_ENTRIES}`,
    { replacements: { equipmentId, before }, type: QueryTypes.SELECT },
  )
  const newest = new Map<string, Tightened[number]>()
  for (const { payload, on, guideId } of rows) {
    const { tightened } = JSON.parse(payload) as PayloadOf<'guide-step'>
    const name = `${guideId} ${tightened?.fastener}`
    if (tightened && guideId && !newest.has(name)) newest.set(name, { ...tightened, guideId, on })
  }
  const figures = [...newest.values()].slice(0, MOST_FIGURES)
  return figures.length > 0 ? figures : undefined
}
