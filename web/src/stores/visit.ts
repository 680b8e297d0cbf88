import { api, type Visit } from '@uvanta/contract'
import { InvalidInput } from '@uvanta/core/schema'
import {
  checkDraft,
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
import { computed, ref, shallowRef } from 'vue'
import { ApiProblem, call } from '@/api/client'
import { useLibrary } from './library'
import { outbox } from './outbox'
import { photoOutbox } from './photoOutbox'
import { useSession } from './session'

/** Someone else wrote meanwhile: what they added, and what of ours waits. */
export interface Conflict {
  readonly theirs: readonly VisitEvent[]
  readonly ours: readonly EventDraft[]
}

const RETRY_MS = 4_000

/** The open visit: the server's log, what waits to be sent, and the state both fold to. */
export const useVisit = defineStore('visit', () => {
  const session = useSession()
  const library = useLibrary()
  const visit = shallowRef<Visit | null>(null)
  const pending = shallowRef<readonly EventDraft[]>([])
  const conflict = shallowRef<Conflict | null>(null)
  /** Why the last sending failed; entries stay on this device. */
  const sendProblem = ref('')
  let sending: Promise<void> | undefined
  let retry: ReturnType<typeof setTimeout> | undefined

  const stored = computed(() => (visit.value?.events ?? []) as unknown as VisitEvent[])
  const events = computed<VisitEvent[]>(() => [
    ...stored.value,
    ...pending.value.map((d) => ({
      ...d,
      personId: session.person?.id ?? '',
      personName: session.person?.name ?? '',
    })),
  ])
  const state = computed(() => foldVisit(events.value))
  const verdict = (run: RunName) =>
    library.library ? verdictOf(state.value, run, library.library) : null
  const mine = computed(
    () => visit.value?.technicianId === session.person?.id && session.has('technician'),
  )

  async function open(id: string): Promise<void> {
    visit.value = null
    conflict.value = null
    sendProblem.value = ''
    const [loaded] = await Promise.all([call(api.visits.read, { params: { id } }), library.load()])
    const known = new Set(loaded.events.map((e) => e.id))
    pending.value = (await outbox.read(id)).filter((d) => !known.has(d.id))
    visit.value = loaded
    void flush()
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
    const refused = refusalOf(draft)
    if (refused) return refused
    pending.value = [...pending.value, draft]
    void keep().then(flush)
    return null
  }

  const keep = () => outbox.write(visit.value?.id ?? '', pending.value)

  /** Sends what waits, one batch at a time. */
  function flush(): Promise<void> {
    sending ??= sendAll().finally(() => (sending = undefined))
    return sending
  }

  async function sendAll(): Promise<void> {
    clearTimeout(retry)
    await sendPhotos()
    while (visit.value && pending.value.length > 0 && !conflict.value) {
      const { id } = visit.value
      const batch = pending.value
      try {
        const { items } = await call(api.visits.append, {
          params: { id },
          body: { expected: stored.value.length, events: batch.map((d) => ({ ...d })) },
        })
        if (visit.value?.id !== id) return
        accept(items as unknown as VisitEvent[])
        sendProblem.value = ''
      } catch (error) {
        if (!(error instanceof ApiProblem)) throw error
        if (!takeConflict(error, batch)) {
          sendProblem.value = error.message
          if (error.offline || error.status >= 500) retry = setTimeout(() => void flush(), RETRY_MS)
          return
        }
      }
    }
  }

  /** Photographs wait on the device for as long as it takes. */
  async function sendPhotos(): Promise<void> {
    if (!visit.value || !mine.value) return
    try {
      await photoOutbox.flush(visit.value.id)
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
    await photoOutbox.keep({ id: photoId, visitId: visit.value.id, content })
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
    void keep()
  }

  function takeConflict(problem: ApiProblem, ours: readonly EventDraft[]): boolean {
    if (problem.details.conflict !== 'newer-events') return false
    conflict.value = { theirs: problem.details.events as VisitEvent[], ours }
    return true
  }

  /** Takes the other writer's entries in; keeps ours behind them, or withdraws them. */
  async function resolveConflict(keepOurs: boolean): Promise<void> {
    const { theirs } = conflict.value ?? { theirs: [] }
    conflict.value = null
    accept(theirs)
    if (!keepOurs) pending.value = []
    await keep()
    await flush()
  }

  /** Withdraws entries that the server will not take. */
  async function dropPending(): Promise<void> {
    pending.value = []
    sendProblem.value = ''
    await keep()
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
    conflict,
    sendProblem,
    mine,
    open,
    record,
    recordPhoto,
    refusal,
    verdict,
    flush,
    resolveConflict,
    dropPending,
    sign,
  }
})

const unsentProblem = (why: string) => ({
  type: 'about:blank',
  title: 'Not sent yet',
  status: 0,
  detail: why || 'Some entries are not on the server yet. Wait for the connection, then sign.',
})
