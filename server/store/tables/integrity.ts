import { counted, hash, int, key, moment, nullable, text, uuid } from '../column'
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
    subject: text(200),
  },
  { appendOnly: true },
)
export type AuditRow = RowOf<typeof audit>

type Sealed = 'visit' | 'photo' | 'audit'
/** What only the holder of the seal key can have written: of a visit’s head, a photograph, an audit line. */
export const seal = table('seal', {
  kind: key(text<Sealed>(12)),
  id: key(text(40)),
  seal: hash(),
})
export type SealRow = RowOf<typeof seal>

/** How many of a kind are sealed, itself sealed. */
export const sealTotal = table('seal_total', {
  kind: key(text<Sealed>(12)),
  total: int(),
  seal: hash(),
})
