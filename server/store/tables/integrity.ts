import { counted, day, hash, int, key, moment, nullable, prose, text, uuid } from '../column'
import { type RowOf, table } from '../table'

/** Who changed what in the office. */
export const audit = table(
  'audit',
  {
    id: counted(),
    at: moment(),
    personId: nullable(uuid<'person'>()),
    person: text(120),
    action: text(80),
    subject: text(1_000),
  },
  { appendOnly: true, laterKeys: { 'audit-by-person': 'person_id, id' } },
)
export type AuditRow = RowOf<typeof audit>

/** What only the holder of the seal key can have written, by kind of record. */
export const seal = table('seal', {
  kind: key(text(12)),
  id: key(text(40)),
  seal: hash(),
})

/** How many of a kind are sealed, itself sealed. */
export const sealTotal = table('seal_total', {
  kind: key(text(12)),
  total: int(),
  seal: hash(),
})

/** What stood at the end of a day, in one hash, signed: published, so that a rewritten database shows. */
export const dailyHead = table(
  'daily_head',
  {
    day: key(day()),
    /** JWS of the day, its hash, how much it is of, and the hash of the head before. */
    jws: prose(),
    madeAt: moment(),
  },
  { appendOnly: true },
)
export type DailyHeadRow = RowOf<typeof dailyHead>
