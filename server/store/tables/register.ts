import type { Condition } from '@uvanta/contract'
import type { Nominal } from '@uvanta/core/apparatus'
import {
  belongsTo,
  day,
  json,
  key,
  nullable,
  prose,
  since,
  smallint,
  text,
  unique,
  uuid,
  version,
  withDefault,
} from '../column'
import { type RowOf, table } from '../table'

export const customer = table(
  'customer',
  {
    id: key(uuid<'customer'>()),
    name: text(120),
    contact: withDefault(text(120), ''),
    phone: withDefault(text(40), ''),
    version: version(),
  },
  { keys: ['INDEX (name)'] },
)
export type CustomerRow = RowOf<typeof customer>

export const site = table(
  'site',
  {
    id: key(uuid<'site'>()),
    customerId: belongsTo(uuid<'customer'>(), 'customer', 'customer', 'sites'),
    name: text(120),
    address: text(200),
    district: text(60),
    access: withDefault(text(500), ''),
    version: version(),
  },
  { keys: ['INDEX (name)'] },
)
export type SiteRow = RowOf<typeof site>

export const equipment = table(
  'equipment',
  {
    id: key(uuid<'equipment'>()),
    siteId: belongsTo(uuid<'site'>(), 'site', 'site', 'equipment'),
    tag: unique(text(40)),
    family: text(80),
    kind: text(30),
    sizeIn: text(12),
    serial: text(60),
    maker: text(80),
    model: withDefault(text(80), ''),
    service: text<'water' | 'gas' | 'air' | 'product'>(12),
    position: text(200),
    setPoint: nullable(json<{ dimension: string; value: string; unit: string }>()),
    nominals: since('equipment-nominals', nullable(json<readonly Nominal[]>())),
    /** The station that it is a part of, by its name at the site, and where it stands in the line. */
    station: since('equipment-station', nullable(text(60))),
    stationPlace: since('equipment-station-place', nullable(smallint())),
    programme: text(80),
    specSheet: nullable(text(80)),
    installedOn: nullable(day()),
    /** Any due date of this equipment; its day and month are the anchor. */
    anchorOn: day(),
    /** Words to search by, kept with site and customer. */
    searchText: prose(),
    /** The demo's hidden condition behind the equipment; null in real use. */
    virtualSite: nullable(json<object>()),
    version: version(),
    /** The name of its site, to be sorted by. */
    siteName: since('equipment-site-name', withDefault(text(120), '')),
  },
  {
    keys: ['INDEX (family, tag)', 'FULLTEXT (search_text)'],
    laterKeys: { 'equipment-by-site-name': 'site_name, tag' },
  },
)
export type EquipmentRow = RowOf<typeof equipment>

export const equipmentStatus = table(
  'equipment_status',
  {
    equipmentId: belongsTo(key(uuid<'equipment'>()), 'equipment', 'equipment', 'status'),
    condition: text<Condition>(20),
    dueOn: nullable(day()),
    lastTestedOn: nullable(day()),
    repairBy: nullable(day()),
    lastVisitId: nullable(uuid<'visit'>()),
  },
  {
    keys: ['INDEX (due_on, equipment_id)', 'INDEX (`condition`, equipment_id)'],
    laterKeys: { 'equipment-status-by-repair': 'repair_by, equipment_id' },
  },
)
export type EquipmentStatusRow = RowOf<typeof equipmentStatus>
