import { api } from 'virtual:api'
import type { Id } from '@uvanta/core/schema'
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { ApiProblem, call } from '@/api/client'
import { askForSync } from './backgroundSync'
import type { WaitingEntry } from './device'
import { openVisitId } from './openVisit'
import { outbox } from './outbox'
import { sendEntries, sendingAlone } from './sendEntries'
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

  function send(): Promise<void> {
    sending ??= sendingAlone(sendAll).finally(() => (sending = undefined))
    return sending
  }
  async function sendAll(): Promise<void> {
    const rows = await waiting()
    const { person } = session
    if (!person) return
    for (const visitId of new Set(rows.map((e) => e.visitId))) {
      if (visitId === openVisitId.value) continue
      try {
        const own = rows.filter((e) => e.visitId === visitId)
        const { equipment } = await sendEntries(visitId, person.id, own)
        tags.set(visitId, equipment.tag)
        says.delete(visitId)
      } catch (error) {
        if (!(error instanceof ApiProblem)) throw error
        if (error.offline) {
          void askForSync()
          break
        }
        says.set(visitId, error.message)
      }
    }
    await refresh()
  }

  /** Watches the line and the clock, from when the application stands. */
  function begin(): void {
    useEventListener(window, 'online', () => void send())
    useIntervalFn(() => void send(), EVERY_MS)
  }

  return { visits, total, begin, send, refresh }
})
