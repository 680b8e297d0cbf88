import {
  belongsTo,
  day,
  decimal,
  flag,
  key,
  text,
  unique,
  uuid,
  version,
  withDefault,
} from '../column'
import { type RowOf, table } from '../table'

export const gauge = table('gauge', {
  id: key(uuid<'gauge'>()),
  tag: unique(text(40)),
  serial: text(60),
  maker: text(80),
  span: decimal(12, 4),
  spanUnit: text(12),
  resolution: decimal(12, 6),
  accuracyPercent: decimal(8, 4),
  accuracyOf: text<'span' | 'reading'>(8),
  active: withDefault(flag(), true),
  version: version(),
})
export type GaugeRow = RowOf<typeof gauge>

export const calibration = table('calibration', {
  id: key(uuid<'calibration'>()),
  gaugeId: belongsTo(uuid<'gauge'>(), 'gauge', 'gauge', 'calibrations'),
  calibratedOn: day(),
  validUntil: day(),
  certificate: text(60),
})
export type CalibrationRow = RowOf<typeof calibration>
