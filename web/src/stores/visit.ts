import type { Visit } from '@uvanta/contract'
import { api } from 'virtual:api'
import { type Id, InvalidInput } from '@uvanta/core/schema'
import {
  appended,
  checkDraft,
  currentStation,
  decide,
  draftOf,
  type EventDraft,
  type EventKind,
  foldVisit,
  type PayloadOf,
  type Notice,
  restsOnEarlier,
  type RunName,
  signedText,
  traitsOf,
  verdictOf,
  type VisitEvent,
} from '@uvanta/core/visit'
import { defineStore } from 'pinia'
import { v7 as uuidv7 } from 'uuid'
import { computed, ref, shallowRef, watch } from 'vue'
import { ApiProblem, call, urlOf } from '@/api/client'
import { keptAnswers } from '@/api/kept'
import { useLibrary } from './library'
import type { WaitingEntry } from './device'
import { openVisitId } from './openVisit'
import { outbox } from './outbox'
import { photoOutbox } from './photoOutbox'
import type { Sendable } from './pieces'
import { useLock } from './lock'
import { useSession } from './session'
import { carriedOn } from './carriedOn'
import { visitSending } from './visitSending'

const NOT_KEPT =
  'This device could not keep the last entry: its storage is full or shut. The entry lives in this page until it is sent; do not close it.'
const NO_STORE = 'The storage of this device cannot be read. What may wait on it is not shown here.'
const NO_ROOM: Notice = {
  why: 'This device has no room to keep the photograph.',
  remedy: 'Free some, or send what waits first, then take it again.',
}

/** An entry that a press writes: its kind, and what it says. */
/** What is recorded, and how many seconds before now it happened, where that is known. */
export type Spec = {
  [K in EventKind]: readonly [K, PayloadOf<K>, secondsAgo?: number | undefined]
}[EventKind]

function countsByName(entries: readonly WaitingEntry[]): Record<string, number> {
  const counts: Record<string, number> = {}
  for (const { personName } of entries) counts[personName] = (counts[personName] ?? 0) + 1
  return counts
}

/** The open visit: the server's log, what waits to be sent, and the state both fold to. */
export const useVisit = defineStore('visit', () => {
  const session = useSession()
  const lock = useLock()
  const library = useLibrary()
  const visit = shallowRef<Visit | null>(null)
  /** Entries of the person signed in; those of others stay on the device until they sign in. */
  const pending = shallowRef<readonly Sendable[]>([])
  /** Who made what is pending: it is sent under that name or not at all. */
  const owner = shallowRef<{ readonly id: string; readonly name: string } | null>(null)
  /** How many entries of others wait on this device, by their names. */
  const others = shallowRef<Readonly<Record<string, number>>>({})
  /** What the last press on this screen wrote, while it can be taken back. */
  const lastPress = shallowRef<readonly EventDraft[] | null>(null)
  /** Why this device could not keep an entry; it lives on in this page, and is sent all the same. */
  const deviceProblem = ref('')

  const mine = computed(
    () => visit.value?.technicianId === session.person?.id && session.has('technician'),
  )
  const forget = (ids: Iterable<string>) =>
    outbox.forget(ids).catch(() => {
      // What is left behind is known to the server, which takes nothing twice.
    })
  const sending = visitSending({
    visit,
    pending,
    owner,
    ownerIsHere: () => session.person?.id === owner.value?.id,
    sendPhotos: async (id) => {
      if (mine.value) await photoOutbox.flush(id, session.person?.id ?? '')
    },
    reload: async (id) => {
      const read = await call(api.visits.read, { params: { id }, live: true })
      if (visit.value?.id === id) visit.value = read
    },
    forget,
  })

  // Folded once and carried on: only what is new is folded onto what was folded before.
  const stored = carriedOn(() => (visit.value?.events ?? []) as unknown as VisitEvent[])
  const named = (draft: EventDraft): VisitEvent => ({
    ...draft,
    personId: owner.value?.id ?? '',
    personName: owner.value?.name ?? '',
  })
  const log = computed(() =>
    appended(
      stored.value,
      pending.value.map((s) => named(s.draft)),
    ),
  )
  const events = computed(() => log.value.events)
  const state = computed(() => log.value.state)
  const verdict = (run: RunName) =>
    library.library ? verdictOf(state.value, run, library.library) : null
  watch(visit, (v) => (openVisitId.value = v?.id ?? ''), { flush: 'sync' })
  // What the server took is on the device too: the visit opens as it is, though the line goes now.
  watch(visit, (v) => {
    if (v)
      void keptAnswers
        .place(urlOf(api.visits.read, { id: v.id }, undefined))
        .write(JSON.stringify(v))
  })
  // The way to the server is free again: somebody signed in, or unlocked the device.
  watch(
    () => lock.openings,
    () => void sending.flush(),
  )
  // On a shared tablet: whoever signs in next has nothing to do with what the last one left.
  watch(() => session.person?.id, close)

  function close(): void {
    sending.reset()
    visit.value = null
    pending.value = []
    owner.value = null
    others.value = {}
    lastPress.value = null
  }

  async function open(id: string): Promise<void> {
    close()
    const person = session.person
    // What waits first: it may be sent behind this page meanwhile, and would then stand in neither of them.
    const waits = waitingOn(id)
    const [kept, loaded, inForce] = await Promise.all([
      waits,
      waits.then(() => call(api.visits.read, { params: { id } })),
      library.load(),
    ])
    const known = new Set(loaded.events.map((e) => e.id))
    const waiting = kept.filter((e) => !known.has(e.id))
    const own = (e: WaitingEntry) => (e.personId || loaded.technicianId) === person?.id
    owner.value = person && { id: person.id, name: person.name }
    pending.value = waiting.filter(own).map(({ draft, press }) => ({
      draft,
      press: press ?? draft.id,
    }))
    others.value = countsByName(waiting.filter((e) => !own(e)))
    // It is judged by what it was begun with, or not shown at all.
    const written = [
      ...(loaded.events as unknown as VisitEvent[]),
      ...pending.value.map((s) => named(s.draft)),
    ]
    if (restsOnEarlier(foldVisit(written), inForce)) await library.loadEarlier()
    visit.value = loaded
    void sending.flush()
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
  const refusal = <K extends EventKind>(kind: K, payload: PayloadOf<K>): Notice | null =>
    refusalOf([newDraft(kind, payload)])

  function refusalOf(drafts: readonly EventDraft[]): Notice | null {
    const { library: known } = library
    const { person } = session
    if (!known || !person) return { why: 'The library is still loading.', remedy: 'Wait a moment.' }
    // The same check as on the server: what it would not take is said here and now.
    try {
      for (const draft of drafts) checkDraft(draft)
    } catch (error) {
      if (!(error instanceof InvalidInput)) throw error
      return {
        why: `This entry does not fit: ${error.why}`,
        remedy: 'Mend it, then record it.',
      }
    }
    const by = { personId: person.id, personName: person.name }
    const decision = decide(log.value, drafts, by, () => ({ library: known, person }))
    return 'refusal' in decision ? decision.refusal : null
  }

  function newDraft<K extends EventKind>(
    kind: K,
    payload: PayloadOf<K>,
    secondsAgo = 0,
  ): EventDraft {
    const now = new Date(Date.now() - secondsAgo * 1_000)
    return draftOf(kind, payload, {
      id: uuidv7(),
      deviceTime: now.toISOString(),
      deviceOffset: -now.getTimezoneOffset(),
    })
  }

  /** Records an event on this device and sends it. Answers the refusal when a guard says no. */
  const record = <K extends EventKind>(kind: K, payload: PayloadOf<K>): Notice | null =>
    recordDrafts([newDraft(kind, payload)])

  /** Records what one press writes: all of it, or nothing and the refusal. */
  const recordAll = (specs: readonly Spec[]): Notice | null =>
    recordDrafts(specs.map(([kind, payload, secondsAgo]) => newDraft(kind, payload, secondsAgo)))

  function recordDrafts(drafts: readonly EventDraft[]): Notice | null {
    const refusal = refusalOf(drafts)
    if (refusal) return refusal
    const press = drafts[0]?.id ?? ''
    const entries = drafts.map((draft) => ({ draft, press }))
    // Before it is shown: what is seen on the screen is on its way to the disk.
    const kept = keep(entries)
    pending.value = [...pending.value, ...entries]
    lastPress.value = drafts.every((d) => traitsOf(d.kind).undone) ? drafts : null
    void kept.then(sending.flush)
    return null
  }

  /** Takes back what the last press wrote; both stay in the log. */
  const undo = (): Notice | null =>
    record('undone', { of: (lastPress.value ?? []).map((d) => d.id) as Id<'event'>[] })

  /** Keeps entries on the device; where that fails it is said, and the sending goes on. */
  async function keep(entries: readonly Sendable[]): Promise<void> {
    const { id: visitId } = visit.value ?? {}
    const person = owner.value
    if (!visitId || !person) return
    try {
      await outbox.keep(
        entries.map(({ draft, press }) => ({
          id: draft.id,
          visitId,
          personId: person.id,
          personName: person.name,
          draft,
          press,
        })),
      )
      deviceProblem.value = ''
    } catch {
      deviceProblem.value = NOT_KEPT
    }
  }

  /** Records a photograph: the picture waits on this device until the server has it. */
  async function recordPhoto(
    content: Blob,
    about: Omit<PayloadOf<'photo'>, 'photoId'>,
  ): Promise<Notice | null> {
    const photoId = uuidv7()
    const refused = refusal('photo', { ...about, photoId })
    if (refused || !visit.value) return refused
    try {
      const personId = owner.value?.id ?? ''
      await photoOutbox.keep({ id: photoId, visitId: visit.value.id, personId, content })
    } catch {
      return NO_ROOM
    }
    return record('photo', { ...about, photoId })
  }

  /** Withdraws what the server will not take; what it said stays as a note. */
  async function withdrawRefused(says: string): Promise<void> {
    if (!(await sending.withdrawRefused())) return
    if (!state.value.signed && !state.value.stopped) {
      const note = newDraft('note', {
        station: currentStation(foldVisit(stored.value.events)),
        text: `Withdrawn before it was sent: ${says}`,
      })
      const entry = { draft: note, press: note.id }
      pending.value = [entry, ...pending.value]
      await keep([entry])
    }
    await sending.flush()
  }

  /** Corrects an entry of the signed visit, with the password. @throws ApiProblem */
  async function correctSigned(payload: PayloadOf<'correction'>, password: string): Promise<void> {
    if (!visit.value) return
    visit.value = await call(api.visits.correct, {
      params: { id: visit.value.id },
      body: {
        expected: stored.value.events.length,
        password,
        event: newDraft('correction', payload),
      },
    })
  }

  /**
   * Signs with the key of this device: the visit is closed here and now, and at the server when the
   * signature arrives there, line or no line.
   * @throws WrongPin
   */
  async function signByKey(
    payload: Omit<PayloadOf<'signed'>, 'byKey'>,
    signed: (text: string) => Promise<NonNullable<PayloadOf<'signed'>['byKey']>>,
  ): Promise<Notice | null> {
    const draft = newDraft('signed', payload)
    const refusal = refusalOf([draft])
    if (refusal || !visit.value || !owner.value) return refusal
    const { id } = visit.value
    const text = signedText(id, log.value.events, owner.value.id, draft as EventDraft<'signed'>)
    const byKey = await signed(text)
    return visit.value.id === id
      ? recordDrafts([{ ...draft, payload: { ...payload, byKey } } as EventDraft])
      : null
  }

  async function sign(payload: PayloadOf<'signed'>, password: string): Promise<void> {
    await sending.flush()
    if (!visit.value || pending.value.length > 0)
      throw new ApiProblem(unsentProblem(sending.problem.value))
    visit.value = await call(api.visits.sign, {
      params: { id: visit.value.id },
      body: { expected: stored.value.events.length, password, event: newDraft('signed', payload) },
    })
  }

  return {
    visit,
    events,
    state,
    pending: computed(() => pending.value.map((s) => s.draft)),
    others,
    conflict: sending.conflict,
    sendProblem: sending.problem,
    refused: sending.refused,
    deviceProblem,
    lastPress,
    undo,
    mine,
    open,
    close,
    record,
    recordAll,
    recordPhoto,
    refusal,
    verdict,
    flush: sending.flush,
    resolveConflict: sending.resolveConflict,
    withdrawRefused,
    correctSigned,
    sign,
    signByKey,
  }
})

const unsentProblem = (why: string) => ({
  type: 'urn:uvanta:problem:not-sent-yet',
  title: 'Not sent yet',
  status: 0,
  detail: why || 'Some entries are not on the server yet. Wait for the connection, then sign.',
})
