import type { VisitStateName } from '@uvanta/contract'
import type { EventKind, Station } from '@uvanta/core/visit'
import {
  belongsTo,
  blob,
  day,
  hash,
  int,
  json,
  key,
  longText,
  moment,
  nullable,
  since,
  smallint,
  text,
  unique,
  uuid,
  withDefault,
} from '../column'
import { type RowOf, table } from '../table'

export const visit = table(
  'visit',
  {
    id: key(uuid<'visit'>()),
    equipmentId: belongsTo(uuid<'equipment'>(), 'equipment', 'subject', 'visits'),
    technicianId: belongsTo(uuid<'person'>(), 'person', 'technician', 'visits'),
    plannedOn: day(),
    purpose: text(30),
    state: text<VisitStateName>(20),
    done: json<Station[]>(),
    skipped: json<Station[]>(),
    outcome: nullable(text(20)),
    certificateId: nullable(uuid<'certificate'>()),
    certificateNumber: nullable(text(40)),
    /** Equipment as it was when the visit was planned. */
    equipment: json<object>(),
    eventCount: int(),
    headHash: hash(),
    /** Time of day at which the customer expects us. */
    time: since('visit-time', nullable(text(5))),
    /** When the office last planned it, or planned it otherwise. */
    replannedAt: since('visit-replanned', nullable(moment())),
    /** What the technician asked the office for, while it is open. */
    replanAsked: since('visit-replan-asked', nullable(text(500))),
  },
  {
    keys: [
      'INDEX (planned_on, id)',
      'INDEX (technician_id, planned_on)',
      'INDEX (equipment_id, planned_on)',
    ],
    laterKeys: { 'visit-by-state': 'state, planned_on, id' },
  },
)
export type VisitTableRow = RowOf<typeof visit>

export const visitEvent = table(
  'visit_event',
  {
    visitId: belongsTo(key(uuid<'visit'>()), 'visit', 'visit', 'events'),
    seq: key(int()),
    id: unique(uuid<'event'>()),
    kind: text<EventKind>(40),
    payload: longText(),
    personId: uuid<'person'>(),
    personName: text(120),
    deviceTime: text(30),
    deviceOffset: int(),
    serverTime: text(30),
    hash: hash(),
    /** Form of the payload, from 1. */
    version: since('visit_event-version', withDefault(smallint(), 1)),
    /** By how much the device’s clock was ahead when it sent, s; null while that is little. */
    clockAheadS: since('visit_event-clock-ahead', nullable(int())),
  },
  { appendOnly: true },
)
export type VisitEventRow = RowOf<typeof visitEvent>

export const photo = table(
  'photo',
  {
    id: key(uuid<'photo'>()),
    visitId: belongsTo(uuid<'visit'>(), 'visit', 'visit', 'photos'),
    mime: text(40),
    content: blob(),
    personId: uuid<'person'>(),
    at: moment(),
  },
  { keys: ['INDEX (visit_id)'], appendOnly: true },
)
export type PhotoRow = RowOf<typeof photo>
