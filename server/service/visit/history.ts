import type { Id } from '@uvanta/core/schema'
import type { VisitSummary } from '@uvanta/contract'
import { type Library, NotInLibrary } from '@uvanta/core/library'
import { workOn } from '@uvanta/core/certificate'
import { fails } from '@uvanta/core/rules'
import {
  foldVisit,
  runNames,
  verdictOf,
  type VisitEvent,
  type VisitState,
} from '@uvanta/core/visit'
import type { App } from '../../context'
import type { VisitTableRow } from '../../store/tables'
import { namesOf } from '../people/names'
import { readEquipment } from '../register/equipment'
import { toEvent } from './log'

/** Entries of logs, about, that are read and folded without letting others have their turn. */
const AT_ONCE = 500

/** Visits to one piece of equipment with the readings that stood at their end, newest first. */
export async function equipmentHistory(
  app: App,
  equipmentId: Id<'equipment'>,
): Promise<VisitSummary[]> {
  await readEquipment(app, equipmentId)
  const visits = await app.db.visits.findAll({
    where: { equipmentId },
    order: [
      ['plannedOn', 'DESC'],
      ['id', 'DESC'],
    ],
    limit: 200,
  })
  const names = await namesOf(
    app,
    visits.map((v) => v.technicianId),
  )
  const summaries: VisitSummary[] = []
  for (const some of portions(visits)) summaries.push(...(await summed(app, some, names)))
  return summaries
}

function portions(visits: readonly VisitTableRow[]): VisitTableRow[][] {
  const all: VisitTableRow[][] = []
  let entries = Infinity
  for (const visit of visits) {
    entries += visit.eventCount
    if (entries <= AT_ONCE) all.at(-1)?.push(visit)
    else {
      all.push([visit])
      entries = visit.eventCount
    }
  }
  return all
}

async function summed(
  app: App,
  visits: readonly VisitTableRow[],
  names: ReadonlyMap<string, string>,
): Promise<VisitSummary[]> {
  const events = await app.db.visitEvents.findAll({
    where: { visitId: visits.map((v) => v.id) },
    order: [['seq', 'ASC']],
  })
  const logs = new Map(visits.map((v) => [v.id, [] as VisitEvent[]]))
  for (const e of events) logs.get(e.visitId)?.push(toEvent(e))
  return visits.map((v) => ({
    visitId: v.id,
    plannedOn: v.plannedOn,
    state: v.state,
    outcome: v.outcome,
    technician: names.get(v.technicianId) ?? '',
    certificateId: v.certificateId,
    certificateNumber: v.certificateNumber,
    ...whatWasSeen(foldVisit(logs.get(v.id) ?? []), app.shelf.library),
  }))
}

type Seen = Pick<VisitSummary, 'found' | 'failedAsFound' | 'service' | 'remarks' | 'readings'>

/** What a visit says of its equipment; a verdict whose rules the library no longer has is left out. */
function whatWasSeen(state: VisitState, library: Library): Seen {
  const verdict = state.runs['as-found']?.finished
    ? known(() => verdictOf(state, 'as-found', library))
    : null
  const failed = verdict?.items.filter((i) => i.requirement === 'required' && fails(i.outcome))
  return {
    found: verdict?.outcome ?? null,
    failedAsFound: failed?.map((i) => i.title) ?? [],
    service: known(() => workOn(state, library)) ?? [],
    // What was packed for the day says nothing of the equipment.
    remarks: [...state.repairs, ...state.notes.filter((n) => n.station !== 'prepare')].map(
      (said) => said.text,
    ),
    readings: lastReadings(state),
  }
}

/** What the library still has the texts for. */
function known<T>(read: () => T): T | null {
  try {
    return read()
  } catch (error) {
    if (error instanceof NotInLibrary) return null
    throw error
  }
}

function lastReadings({ runs }: VisitState): VisitSummary['readings'] {
  return runNames.flatMap((run) => {
    const readings = runs[run]?.readings ?? []
    const newest = new Map(readings.map((r) => [r.item, r]))
    return [...newest.values()].map(({ item, value, unit, dimension }) => ({
      run,
      item,
      value,
      unit,
      dimension,
    }))
  })
}
