import { createHash } from 'node:crypto'
import type { Person } from '@uvanta/contract'
import { CHAIN_START, chainInput, type EventDraft, type VisitEvent } from '@uvanta/core/visit'
import type { Transaction } from 'sequelize'
import type { App } from '../app'
import { readEvents } from './log'

const sha256 = (text: string) => createHash('sha256').update(text).digest('hex')

/** Numbers, stamps, chains and inserts events behind the head of a visit's log. */
export async function appendRows(
  app: App,
  actor: Pick<Person, 'id' | 'name'>,
  visitId: string,
  head: { count: number; headHash: string },
  drafts: readonly EventDraft[],
  transaction: Transaction,
): Promise<VisitEvent[]> {
  const serverTime = app.now().toISO()
  const events = chained(visitId, head, drafts, {
    personId: actor.id,
    personName: actor.name,
    serverTime,
  })
  await app.db.visitEvents.bulkCreate(
    events.map((e) => ({
      visitId,
      seq: e.seq as number,
      id: e.id,
      kind: e.kind,
      payload: JSON.stringify(e.payload),
      personId: e.personId,
      personName: e.personName,
      deviceTime: e.deviceTime,
      deviceOffset: e.deviceOffset,
      serverTime: e.serverTime as string,
      hash: e.hash as string,
    })),
    { transaction },
  )
  return events
}

/** The events as they will stand in the log, without writing them. */
export function chained(
  visitId: string,
  head: { count: number; headHash: string },
  drafts: readonly EventDraft[],
  stamp: { personId: string; personName: string; serverTime: string },
): VisitEvent[] {
  let { headHash } = head
  return drafts.map((draft, index) => {
    const { id, kind, payload, deviceTime, deviceOffset } = draft
    const event: VisitEvent = {
      id,
      kind,
      payload,
      deviceTime,
      deviceOffset,
      ...stamp,
      seq: head.count + index + 1,
    }
    headHash = sha256(chainInput(headHash, visitId, event))
    return { ...event, hash: headHash }
  })
}

export interface ChainFault {
  readonly visitId: string
  readonly seq: number
  readonly what: string
}

/** Recomputes one visit's chain. */
export async function verifyVisitChain(
  app: App,
  visit: { id: string; eventCount: number; headHash: string },
): Promise<ChainFault | null> {
  const events = await readEvents(app, visit.id)
  let previous = CHAIN_START
  for (const [index, event] of events.entries()) {
    const seq = index + 1
    if (event.seq !== seq) return { visitId: visit.id, seq, what: 'an event is missing' }
    const hash = sha256(chainInput(previous, visit.id, event))
    if (hash !== event.hash) return { visitId: visit.id, seq, what: 'the event was altered' }
    previous = hash
  }
  if (events.length !== visit.eventCount || previous !== visit.headHash) {
    return { visitId: visit.id, seq: events.length, what: 'the visit list and the log disagree' }
  }
  return null
}

/** Recomputes every chain. */
export async function verifyChains(
  app: App,
): Promise<{ visits: number; events: number; faults: ChainFault[] }> {
  const visits = await app.db.visits.findAll({ order: [['id', 'ASC']] })
  const faults: ChainFault[] = []
  let events = 0
  for (const visit of visits) {
    events += visit.eventCount
    const fault = await verifyVisitChain(app, visit)
    if (fault) faults.push(fault)
  }
  return { visits: visits.length, events, faults }
}
