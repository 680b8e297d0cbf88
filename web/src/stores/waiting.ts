import { api } from '@uvanta/contract'
import type { Id } from '@uvanta/core/schema'
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { ApiProblem, call } from '@/api/client'
import type { WaitingEntry } from './device'
import { openVisitId } from './openVisit'
import { outbox } from './outbox'
import { photoOutbox } from './photoOutbox'
import { firstPiece } from './pieces'
import { useSession } from './session'

/** What waits of one visit: how much, since when, and why the server would not take it. */
export interface WaitingVisit {
  readonly visitId: Id<'visit'>
  readonly tag: string
  readonly count: number
  readonly since: string
  /** In the server’s words; the visit has to be opened to mend it. */
  readonly says?: string
}

const EVERY_MS = 20_000

/**
 * Everything that the person signed in has recorded and the server has not got, of every visit. It is sent
 * in the order in which it was made, whichever place is open; the open visit sends its own.
 */
export const useWaiting = defineStore('waiting', () => {
  const session = useSession()
  const visits = shallowRef<readonly WaitingVisit[]>([])
  const says = new Map<string, string>()
  const tags = new Map<string, string>()
  const total = computed(() => visits.value.reduce((sum, v) => sum + v.count, 0))
  let sending: Promise<void> | undefined

  async function waiting(): Promise<WaitingEntry[]> {
    const person = session.person?.id
    // A device whose storage is shut says so where something is recorded.
    return person ? outbox.of(person).catch(() => []) : []
  }

  async function refresh(): Promise<void> {
    const rows = await waiting()
    const ids = [...new Set(rows.map((e) => e.visitId))]
    for (const id of ids) if (!tags.has(id)) await learnTag(id)
    visits.value = ids.map((visitId) => {
      const own = rows.filter((e) => e.visitId === visitId)
      const why = says.get(visitId)
      return {
        visitId,
        tag: tags.get(visitId) ?? 'a visit',
        count: own.length,
        since: own[0]?.draft.deviceTime ?? '',
        ...(why ? { says: why } : {}),
      }
    })
  }

  /** The visit may be known to this device alone. */
  async function learnTag(id: Id<'visit'>): Promise<void> {
    try {
      tags.set(id, (await call(api.visits.read, { params: { id } })).equipment.tag)
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
    }
  }

  /** One tab sends at a time; the server takes nothing twice in any case. */
  function send(): Promise<void> {
    sending ??= alone(sendAll).finally(() => (sending = undefined))
    return sending
  }
  // Where the browser has no locks, the server sorts out what is sent twice.
  const locks = navigator.locks as LockManager | null | undefined
  const alone = (work: () => Promise<void>): Promise<void> =>
    locks ? locks.request('uvanta-sending', work) : work()

  async function sendAll(): Promise<void> {
    const rows = await waiting()
    for (const visitId of new Set(rows.map((e) => e.visitId))) {
      if (visitId === openVisitId.value) continue
      try {
        await sendVisit(
          visitId,
          rows.filter((e) => e.visitId === visitId),
        )
        says.delete(visitId)
      } catch (error) {
        if (!(error instanceof ApiProblem)) throw error
        if (error.offline) break
        says.set(visitId, error.message)
      }
    }
    await refresh()
  }

  async function sendVisit(id: Id<'visit'>, rows: readonly WaitingEntry[]): Promise<void> {
    const visit = await call(api.visits.read, { params: { id }, live: true })
    tags.set(id, visit.equipment.tag)
    await photoOutbox.flush(id, session.person?.id ?? '')
    const known = new Set<string>(visit.events.map((e) => e.id))
    await outbox.forget(rows.filter((e) => known.has(e.id)).map((e) => e.id))
    let left = rows
      .filter((e) => !known.has(e.id))
      .map((e) => ({ draft: e.draft, press: e.press ?? e.id }))
    let expected = visit.events.length
    while (left.length > 0) {
      const piece = firstPiece(left)
      const { items } = await call(api.visits.append, {
        params: { id },
        body: {
          expected,
          ...(session.person ? { as: session.person.id } : {}),
          events: piece.map((s) => ({ ...s.draft })),
        },
      })
      expected += items.length
      left = left.slice(piece.length)
      await outbox.forget(items.map((e) => e.id))
    }
  }

  /** Watches the line and the clock, from when the application stands. */
  function begin(): void {
    useEventListener(window, 'online', () => void send())
    useIntervalFn(() => void send(), EVERY_MS)
  }

  return { visits, total, begin, send, refresh }
})
