import { belongsTo, int, key, moment, nullable, text, uuid } from '../column'
import { table } from '../table'

export const stockMove = table(
  'stock_move',
  {
    id: key(uuid<'stock-move'>()),
    at: moment(),
    /** Number of the kit. */
    number: text(60),
    holderId: belongsTo(uuid<'person'>(), 'person', 'holder', 'stockMoves'),
    change: int(),
    reason: text(200),
    visitId: nullable(uuid<'visit'>()),
    person: text(120),
  },
  { keys: ['INDEX (number, holder_id)'], appendOnly: true },
)
