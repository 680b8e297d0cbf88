import { api, type Visit } from '@uvanta/contract'
import { InvalidInput } from '@uvanta/core/schema'
import {
  checkDraft,
  currentStation,
  type EventDraft,
  type EventKind,
  foldVisit,
  guard,
  type PayloadOf,
  type Refusal,
  type RunName,
  verdictOf,
  type VisitEvent,
} from '@uvanta/core/visit'
import { defineStore } from 'pinia'
import { v7 as uuidv7 } from 'uuid'
import { computed, ref, shallowRef, watch } from 'vue'
import { ApiProblem, call } from '@/api/client'
import { useLibrary } from './library'
import { outbox, type WaitingEntry } from './outbox'
import { firstPiece } from './pieces'
import { photoOutbox } from './photoOutbox'
import { useSession } from './session'

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

const RETRY_MS = 4_000
const NOT_KEPT =
  'This device could not keep the last entry: its storage is full or shut. The entry lives in this page until it is sent; do not close it.'
const NO_STORE = 'The storage of this device cannot be read. What may wait on it is not shown here.'

function countsByName(entries: readonly WaitingEntry[]): Record<string, number> {
  const counts: Record<string, number> = {}
  for (const { personName } of entries) counts[personName] = (counts[personName] ?? 0) + 1
  return counts
}

/** Which entry of a sending the server refuses; -1 when it names none. */
function refusedAt({ details }: ApiProblem, piece: readonly EventDraft[]): number {
  if (typeof details.event === 'string') return piece.findIndex((d) => d.id === details.event)
  const place = /^events\[(\d+)\]/.exec(details.fields?.[0]?.path ?? '')
  return place ? Number(place[1]) : -1
}

/** The open visit: the server's log, what waits to be sent, and the state both fold to. */
export const useVisit = defineStore('visit', () => {
  const session = useSession()
  const library = useLibrary()
  const visit = shallowRef<Visit | null>(null)
  /** Entries of the person signed in; those of others stay on the device until they sign in. */
  const pending = shallowRef<readonly EventDraft[]>([])
  /** Who made what is pending: it is sent under that name or not at all. */
  const owner = shallowRef<{ readonly id: string; readonly name: string } | null>(null)
  /** How many entries of others wait on this device, by their names. */
  const others = shallowRef<Readonly<Record<string, number>>>({})
  const conflict = shallowRef<Conflict | null>(null)
  /** Why the last sending failed; entries stay on this device. */
  const sendProblem = ref('')
  /** The entry that the server will not take, with what it says. */
  const refused = shallowRef<RefusedEntry | null>(null)
  /** Why this device could not keep an entry; it lives on in this page, and is sent all the same. */
  const deviceProblem = ref('')
  let sending: Promise<void> | undefined
  let retry: ReturnType<typeof setTimeout> | undefined

  const stored = computed(() => (visit.value?.events ?? []) as unknown as VisitEvent[])
  const events = computed<VisitEvent[]>(() => [
    ...stored.value,
    ...pending.value.map((d) => ({
      ...d,
      personId: owner.value?.id ?? '',
      personName: owner.value?.name ?? '',
    })),
  ])
  const state = computed(() => foldVisit(events.value))
  const verdict = (run: RunName) =>
    library.library ? verdictOf(state.value, run, library.library) : null
  const mine = computed(
    () => visit.value?.technicianId === session.person?.id && session.has('technician'),
  )
  // On a shared tablet: whoever signs in next has nothing to do with what the last one left.
  watch(() => session.person?.id, close)

  function close(): void {
    clearTimeout(retry)
    visit.value = null
    pending.value = []
    owner.value = null
    others.value = {}
    conflict.value = null
    refused.value = null
    sendProblem.value = ''
  }

  async function open(id: string): Promise<void> {
    close()
    const person = session.person
    const [loaded] = await Promise.all([call(api.visits.read, { params: { id } }), library.load()])
    const known = new Set(loaded.events.map((e) => e.id))
    const waiting = (await waitingOn(id)).filter((e) => !known.has(e.id))
    const own = (e: WaitingEntry) => (e.personId || loaded.technicianId) === person?.id
    owner.value = person && { id: person.id, name: person.name }
    pending.value = waiting.filter(own).map((e) => e.draft)
    others.value = countsByName(waiting.filter((e) => !own(e)))
    visit.value = loaded
    void flush()
  }

  async function waitingOn(id: string): Promise<WaitingEntry[]> {
    try {
      return await outbox.read(id)
    } catch {
      deviceProblem.value = NO_STORE
      return []
    }
  }

  /** Why an event may not be recorded now, or null. */
  function refusal<K extends EventKind>(kind: K, payload: PayloadOf<K>): Refusal | null {
    return refusalOf(draftOf(kind, payload))
  }

  function refusalOf(draft: EventDraft): Refusal | null {
    if (!library.library || !session.person)
      return { why: 'The library is still loading.', todo: 'Wait a moment.' }
    // The same check as on the server: what it would not take is said here and now.
    try {
      checkDraft(draft)
    } catch (error) {
      if (!(error instanceof InvalidInput)) throw error
      return { why: `This entry does not fit: ${error.message}.`, todo: 'Mend it, then record it.' }
    }
    return guard(
      events.value,
      draft,
      { library: library.library, person: session.person },
      state.value,
    )
  }

  function draftOf<K extends EventKind>(kind: K, payload: PayloadOf<K>): EventDraft<K> {
    const now = new Date()
    return {
      id: uuidv7(),
      kind,
      payload,
      deviceTime: now.toISOString(),
      deviceOffset: -now.getTimezoneOffset(),
    }
  }

  /** Records an event on this device and sends it. Answers the refusal when a guard says no. */
  function record<K extends EventKind>(kind: K, payload: PayloadOf<K>): Refusal | null {
    const draft = draftOf(kind, payload)
    const refusal = refusalOf(draft)
    if (refusal) return refusal
    pending.value = [...pending.value, draft]
    void keep(draft).then(flush)
    return null
  }

  /** Keeps an entry on the device; where that fails it is said, and the sending goes on. */
  async function keep(draft: EventDraft): Promise<void> {
    const { id: visitId } = visit.value ?? {}
    const person = owner.value
    if (!visitId || !person) return
    try {
      await outbox.keep({
        id: draft.id,
        visitId,
        personId: person.id,
        personName: person.name,
        draft,
      })
      deviceProblem.value = ''
    } catch {
      deviceProblem.value = NOT_KEPT
    }
  }

  const forget = (ids: Iterable<string>) =>
    outbox.forget(ids).catch(() => {
      // What is left behind is known to the server, which takes nothing twice.
    })

  /** Sends what waits, one batch at a time. */
  function flush(): Promise<void> {
    sending ??= sendAll().finally(() => (sending = undefined))
    return sending
  }

  async function sendAll(): Promise<void> {
    clearTimeout(retry)
    await sendPhotos()
    let until = Infinity
    while (visit.value && !conflict.value && pending.value.length > 0 && until > 0) {
      // Under the name of whoever made it, or not at all.
      if (session.person?.id !== owner.value?.id) return
      const { id } = visit.value
      const piece = firstPiece(pending.value.slice(0, until))
      try {
        const { items } = await call(api.visits.append, {
          params: { id },
          body: {
            expected: stored.value.length,
            ...(owner.value ? { as: owner.value.id } : {}),
            events: piece.map((d) => ({ ...d })),
          },
        })
        if (visit.value?.id !== id) return
        accept(items as unknown as VisitEvent[])
        until -= piece.length
        sendProblem.value = ''
        refused.value = null
      } catch (error) {
        if (!(error instanceof ApiProblem)) throw error
        if (takeConflict(error)) return
        const at = refusedAt(error, piece)
        // What stands before the entry that is refused is sent by itself.
        if (at > 0) {
          until = at
          continue
        }
        sendProblem.value = error.message
        refused.value = at === 0 ? { draft: piece[0] as EventDraft, says: error.message } : null
        if (error.offline || error.status >= 500) retry = setTimeout(() => void flush(), RETRY_MS)
        return
      }
    }
    // The entry behind what was just sent is the one that was refused: it says why.
    if (until <= 0) await sendAll()
  }

  /** Photographs wait on the device for as long as it takes. */
  async function sendPhotos(): Promise<void> {
    if (!visit.value || !mine.value) return
    try {
      await photoOutbox.flush(visit.value.id, session.person?.id ?? '')
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      sendProblem.value = error.message
      if (error.offline || error.status >= 500) retry = setTimeout(() => void flush(), RETRY_MS)
    }
  }

  /** Records a photograph: the picture waits on this device until the server has it. */
  async function recordPhoto(
    content: Blob,
    about: Omit<PayloadOf<'photo'>, 'photoId'>,
  ): Promise<Refusal | null> {
    const photoId = uuidv7()
    const refused = refusal('photo', { ...about, photoId })
    if (refused || !visit.value) return refused
    try {
      const personId = owner.value?.id ?? ''
      await photoOutbox.keep({ id: photoId, visitId: visit.value.id, personId, content })
    } catch {
      return {
        why: 'This device has no room to keep the photograph.',
        todo: 'Free some, or send what waits first, then take it again.',
      }
    }
    return record('photo', { ...about, photoId })
  }

  function accept(items: readonly VisitEvent[]): void {
    if (!visit.value) return
    const known = new Set(stored.value.map((e) => e.id))
    const added = items.filter((e) => !known.has(e.id))
    const ids = new Set(items.map((e) => e.id))
    visit.value = {
      ...visit.value,
      events: [...visit.value.events, ...(added as unknown as Visit['events'])],
    }
    pending.value = pending.value.filter((d) => !ids.has(d.id))
    void forget(ids)
  }

  function takeConflict(problem: ApiProblem): boolean {
    if (problem.details.conflict !== 'newer-events') return false
    conflict.value = { theirs: problem.details.events as VisitEvent[], ours: pending.value }
    return true
  }

  /** Takes the other writer's entries in; keeps ours behind them, or withdraws them. */
  async function resolveConflict(keepOurs: boolean): Promise<void> {
    const { theirs, ours } = conflict.value ?? { theirs: [], ours: [] }
    conflict.value = null
    accept(theirs)
    if (!keepOurs) {
      const gone = new Set(ours.map((d) => d.id))
      pending.value = pending.value.filter((d) => !gone.has(d.id))
      await forget(gone)
    }
    await flush()
  }

  /** Withdraws the one entry that the server will not take; what it said stays as a note. */
  async function withdrawRefused(says: string): Promise<void> {
    const gone = refused.value?.draft
    if (!gone) return
    refused.value = null
    sendProblem.value = ''
    const note = draftOf('note', {
      station: currentStation(foldVisit(stored.value)),
      text: `Withdrawn before it was sent: ${says}`,
    })
    const closed = state.value.signed ?? state.value.stopped
    pending.value = [...(closed ? [] : [note]), ...pending.value.filter((d) => d.id !== gone.id)]
    if (!closed) await keep(note)
    await forget([gone.id])
    await flush()
  }

  /** Corrects an entry of the signed visit, with the password. @throws ApiProblem */
  async function correctSigned(payload: PayloadOf<'correction'>, password: string): Promise<void> {
    if (!visit.value) return
    visit.value = await call(api.visits.correct, {
      params: { id: visit.value.id },
      body: { expected: stored.value.length, password, event: draftOf('correction', payload) },
    })
  }

  async function sign(payload: PayloadOf<'signed'>, password: string): Promise<void> {
    await flush()
    if (!visit.value || pending.value.length > 0)
      throw new ApiProblem(unsentProblem(sendProblem.value))
    visit.value = await call(api.visits.sign, {
      params: { id: visit.value.id },
      body: { expected: stored.value.length, password, event: draftOf('signed', payload) },
    })
  }

  return {
    visit,
    events,
    state,
    pending,
    others,
    conflict,
    sendProblem,
    refused,
    deviceProblem,
    mine,
    open,
    record,
    recordPhoto,
    refusal,
    verdict,
    flush,
    resolveConflict,
    withdrawRefused,
    correctSigned,
    sign,
  }
})

const unsentProblem = (why: string) => ({
  type: 'about:blank',
  title: 'Not sent yet',
  status: 0,
  detail: why || 'Some entries are not on the server yet. Wait for the connection, then sign.',
})
