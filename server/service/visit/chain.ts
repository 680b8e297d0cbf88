import type { Id } from '@uvanta/core/schema'
import { createHash } from 'node:crypto'
import type { Person } from '@uvanta/contract'
import { chainInput, CHAIN_START, type EventDraft, type VisitEvent } from '@uvanta/core/visit'
import type { Transaction } from 'sequelize'
import type { App } from '../../context'

const sha256 = (text: string) => createHash('sha256').update(text).digest('hex')

/** Numbers, stamps, chains and inserts events behind the head of a visit's log. */
export async function appendRows(
  app: App,
  actor: Pick<Person, 'id' | 'name'>,
  visitId: Id<'visit'>,
  head: { count: number; headHash: string },
  drafts: readonly EventDraft[],
  transaction: Transaction,
): Promise<VisitEvent[]> {
  const events = chainedNow(app, actor, visitId, head, drafts)
  await insertRows(app, visitId, events, transaction)
  return events
}

/** The events as they will stand in the log from now on, without writing them. */
export const chainedNow = (
  app: App,
  actor: Pick<Person, 'id' | 'name'>,
  visitId: Id<'visit'>,
  head: { count: number; headHash: string },
  drafts: readonly EventDraft[],
): VisitEvent[] =>
  chained(visitId, head, drafts, {
    personId: actor.id,
    personName: actor.name,
    serverTime: app.now().toISO(),
  })

export async function insertRows(
  app: App,
  visitId: Id<'visit'>,
  events: readonly VisitEvent[],
  transaction: Transaction,
): Promise<void> {
  // Without a model's detours: nothing is written more often.
  await app.db.sequelize.query(
    `INSERT INTO visit_event (visit_id, seq, id, kind, payload, version, person_id, person_name, device_time,
       device_offset, server_time, hash, clock_ahead_s) VALUES ?`,
    {
      replacements: [
        events.map((e) => [
          visitId,
          e.seq,
          e.id,
          e.kind,
          JSON.stringify(e.payload),
          e.version ?? 1,
          e.personId,
          e.personName,
          e.deviceTime,
          e.deviceOffset,
          e.serverTime,
          e.hash,
          e.clockAheadS ?? null,
        ]),
      ],
      transaction,
    },
  )
}

/** The events as they will stand in the log, without writing them. */
export function chained(
  visitId: Id<'visit'>,
  head: { count: number; headHash: string },
  drafts: readonly EventDraft[],
  stamp: { personId: Id<'person'>; personName: string; serverTime: string },
): VisitEvent[] {
  let { headHash } = head
  return drafts.map((draft, index) => {
    const event: VisitEvent = { ...draft, ...stamp, seq: head.count + index + 1 }
    headHash = hashOf(headHash, visitId, event)
    return { ...event, hash: headHash }
  })
}

export const hashOf = (previous: string, visitId: Id<'visit'>, event: VisitEvent): string =>
  sha256(chainInput(previous, visitId, event))

/** Where the chain of a log is broken; null where it holds. */
export function chainFault(visitId: Id<'visit'>, events: readonly VisitEvent[]): string | null {
  let previous = CHAIN_START
  for (const [index, event] of events.entries()) {
    if (event.seq !== index + 1) return `event ${index + 1} is missing`
    if (hashOf(previous, visitId, event) !== event.hash) return `event ${index + 1} was altered`
    previous = event.hash ?? ''
  }
  return null
}
