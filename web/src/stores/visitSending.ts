import type { Id } from '@uvanta/core/schema'
import type { Visit } from '@uvanta/contract'
import { api } from 'virtual:api'
import type { EventDraft, VisitEvent } from '@uvanta/core/visit'
import { ref, type Ref, shallowRef, type ShallowRef } from 'vue'
import { ApiProblem, call } from '@/api/client'
import { askForSync } from './backgroundSync'
import { firstPiece, type Sendable } from './pieces'

/** Someone else wrote meanwhile: what they added, and what of ours waits. */
export interface Conflict {
  readonly theirs: readonly VisitEvent[]
  readonly ours: readonly EventDraft[]
}

/** An entry that the server will not take, and its words. */
export interface RefusedEntry {
  readonly draft: EventDraft
  readonly says: string
}

/** What the sending works on; the visit’s store holds it. */
interface Desk {
  readonly visit: ShallowRef<Visit | null>
  readonly pending: ShallowRef<readonly Sendable[]>
  readonly owner: Ref<{ readonly id: string } | null>
  /** Whether whoever made the entries is the one signed in. */
  readonly ownerIsHere: () => boolean
  readonly sendPhotos: (visitId: Id<'visit'>) => Promise<void>
  /** Reads the visit anew: what follows from a signature is written by the server. */
  readonly reload: (visitId: Id<'visit'>) => Promise<void>
  readonly forget: (ids: Iterable<string>) => Promise<void>
}

const RETRY_MS = 4_000

/** Which entry of a sending the server refuses; -1 when it names none. */
function refusedAt({ details }: ApiProblem, piece: readonly Sendable[]): number {
  if (typeof details.event === 'string') {
    const { event } = details
    return piece.findIndex((s) => s.draft.id === event)
  }
  const place = /^events\[(\d+)\]/.exec(details.fields?.[0]?.path ?? '')
  return place ? Number(place[1]) : -1
}

const mayComeBack = (problem: ApiProblem) => problem.offline || problem.status >= 500

/** Sends what waits of one visit, piece by piece, and says what became of it. */
export function visitSending(desk: Desk) {
  const { visit, pending } = desk
  const conflict = shallowRef<Conflict | null>(null)
  /** Why the last sending failed; entries stay on this device. */
  const problem = ref('')
  /** The entry that the server will not take, with what it says. */
  const refused = shallowRef<RefusedEntry | null>(null)
  let sending: Promise<void> | undefined
  let retry: ReturnType<typeof setTimeout> | undefined

  /** Asked anew after every wait: another visit may have been opened meanwhile. */
  const openVisit = () => visit.value?.id

  function reset(): void {
    clearTimeout(retry)
    conflict.value = null
    refused.value = null
    problem.value = ''
  }

  /** Sends what waits, one batch at a time. */
  function flush(): Promise<void> {
    sending ??= sendAll().finally(() => (sending = undefined))
    return sending
  }

  function fail(error: ApiProblem): void {
    problem.value = error.message
    if (error.offline) void askForSync()
    if (mayComeBack(error)) retry = setTimeout(() => void flush(), RETRY_MS)
  }

  async function sendAll(): Promise<void> {
    clearTimeout(retry)
    await sendPhotos()
    let until = Infinity
    while (visit.value && !conflict.value && pending.value.length > 0 && until > 0) {
      // Under the name of whoever made it, or not at all.
      if (!desk.ownerIsHere()) return
      const { id } = visit.value
      const piece = firstPiece(pending.value.slice(0, until))
      try {
        const { items } = await call(api.visits.append, {
          params: { id },
          body: {
            expected: visit.value.events.length,
            sentAt: new Date().toISOString(),
            ...(desk.owner.value ? { as: desk.owner.value.id } : {}),
            events: piece.map((s) => ({ ...s.draft })),
          },
        })
        if (openVisit() !== id) return
        accept(items as unknown as VisitEvent[])
        if (piece.some((s) => s.draft.kind === 'signed')) await desk.reload(id)
        until -= piece.length
        problem.value = ''
        refused.value = null
      } catch (error) {
        if (!(error instanceof ApiProblem)) throw error
        if (takeOwn(error)) continue
        if (takeConflict(error)) return
        const at = refusedAt(error, piece)
        // The presses before the one that is refused are sent by themselves.
        const before = piece.findIndex((s) => s.press === piece[at]?.press)
        if (before > 0) {
          until = before
          continue
        }
        const entry = piece[at]
        refused.value = entry ? { draft: entry.draft, says: error.message } : null
        return fail(error)
      }
    }
    // The entry behind what was just sent is the one that was refused: it says why.
    if (until <= 0) await sendAll()
  }

  /** Photographs wait on the device for as long as it takes. */
  async function sendPhotos(): Promise<void> {
    if (!visit.value) return
    try {
      await desk.sendPhotos(visit.value.id)
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      fail(error)
    }
  }

  function accept(items: readonly VisitEvent[]): void {
    if (!visit.value) return
    const known = new Set(visit.value.events.map((e) => e.id))
    const added = items.filter((e) => !known.has(e.id))
    const ids = new Set(items.map((e) => e.id))
    visit.value = {
      ...visit.value,
      events: [...visit.value.events, ...(added as unknown as Visit['events'])],
    }
    pending.value = pending.value.filter((s) => !ids.has(s.draft.id))
    void desk.forget(ids)
  }

  /** What the same person recorded on another device, or in another tab, is no conflict. */
  function takeOwn({ code, details }: ApiProblem): boolean {
    if (code !== 'newer-events') return false
    const theirs = details.events as VisitEvent[]
    if (!theirs.every((e) => e.personId === desk.owner.value?.id)) return false
    accept(theirs)
    return true
  }

  function takeConflict({ code, details }: ApiProblem): boolean {
    if (code !== 'newer-events') return false
    conflict.value = {
      theirs: details.events as VisitEvent[],
      ours: pending.value.map((s) => s.draft),
    }
    return true
  }

  /** Takes the other writer's entries in; keeps ours behind them, or withdraws them. */
  async function resolveConflict(keepOurs: boolean): Promise<void> {
    const { theirs, ours } = conflict.value ?? { theirs: [], ours: [] }
    conflict.value = null
    accept(theirs)
    if (!keepOurs) await withdraw(new Set(ours.map((d) => d.id)))
    await flush()
  }

  async function withdraw(gone: ReadonlySet<string>): Promise<void> {
    pending.value = pending.value.filter((s) => !gone.has(s.draft.id))
    await desk.forget(gone)
  }

  /** Takes the press out whose entry the server will not take. @returns whether there was one */
  async function withdrawRefused(): Promise<boolean> {
    const entry = pending.value.find((s) => s.draft.id === refused.value?.draft.id)
    reset()
    if (!entry) return false
    const together = pending.value.filter((s) => s.press === entry.press)
    await withdraw(new Set(together.map((s) => s.draft.id)))
    return true
  }

  return { conflict, problem, refused, reset, flush, resolveConflict, withdrawRefused }
}
