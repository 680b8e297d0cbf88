import { key, smallint, text, version, withDefault } from '../column'
import { type RowOf, table } from '../table'

/** The utility that this installation belongs to: one row. What is not set yet is empty. */
export const utility = table('utility', {
  id: key(smallint()),
  name: withDefault(text(200), ''),
  authority: withDefault(text(200), ''),
  certificatePrefix: withDefault(text(8), ''),
  address: withDefault(text(200), ''),
  phone: withDefault(text(40), ''),
  timeZone: withDefault(text(60), ''),
  zoneWithin: withDefault(smallint(), 60),
  gaugePressureUnit: withDefault(text(12), 'psi'),
  differentialUnit: withDefault(text(12), 'psi'),
  version: version(),
})
export type UtilityRow = RowOf<typeof utility>
