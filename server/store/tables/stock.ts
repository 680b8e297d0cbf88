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
  {
    keys: ['INDEX (number, holder_id)'],
    // All that counting asks for, so that the moves of years are counted without being read.
    laterKeys: { 'stock-move-counted': 'number, holder_id, visit_id, `change`' },
    appendOnly: true,
  },
)
