import 'fake-indexeddb/auto'
import { Job } from '@uvanta/core/testing'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { OneVisitServer, openOnScreen, PERSON, problem } from '@/testing/visitOnScreen'
import { keptAnswers } from '@/api/kept'
import { outbox } from './outbox'
import { useSession } from './session'
import { useWaiting } from './waiting'

const OFTEN = { timeout: 5_000, interval: 5 }
type Tab = Awaited<ReturnType<typeof openOnScreen>>

/** Numbers that look like chance and are the same in every run (a linear congruential generator). */
function chance(seed: number) {
  let state = seed
  const next = () => (state = (state * 1_664_525 + 1_013_904_223) % 4_294_967_296) / 4_294_967_296
  return { below: (n: number) => Math.floor(next() * n) }
}

let server: OneVisitServer
beforeEach(async () => {
  await outbox.forget((await outbox.of(PERSON.id)).map((e) => e.id))
  await keptAnswers.clear(PERSON.id)
  server = new OneVisitServer(
    new Job({ family: 'reduced-pressure-assembly', kind: 'RP', packId: 'larkhaven-relief-first' }),
  )
})
const notes = () =>
  server.log.flatMap((e) =>
    'text' in e.payload && e.kind === 'note' ? [{ text: e.payload.text, by: e.personName }] : [],
  )
const kept = async () => (await outbox.of(PERSON.id)).length

/** A day in which everything that can go wrong does, in an order of chance. */
async function day(seed: number, interruptions: number) {
  const dice = chance(seed)
  let tabs: Tab[] = [await openOnScreen(server)]
  let made = 0
  const tab = () => tabs[dice.below(tabs.length)] as Tab
  const drained = (t: Tab) => vi.waitFor(() => expect(t.store.pending).toHaveLength(0), OFTEN)

  const write = async () => {
    const { store } = tab()
    for (let n = 0; n < 1 + dice.below(3); n++) {
      made += 1
      expect(store.record('note', { station: 'prepare', text: `note ${made}` })).toBeNull()
    }
    // A person sees that it is kept, or sent, before the battery can die.
    await vi.waitFor(
      async () => expect((await kept()) + notes().length).toBeGreaterThanOrEqual(made),
      OFTEN,
    )
  }
  const happenings: (() => Promise<unknown> | unknown)[] = [
    // The line goes, and comes.
    () => (server.online = !server.online),
    // The tab or the whole browser is killed, and opened again.
    async () => (tabs = [await openOnScreen(server)]),
    // A second tab, or the same visit on another device of hers.
    async () => {
      if (tabs.length < 3) tabs.push(await openOnScreen(server))
    },
    // The server breaks off in the middle.
    () => (server.fails = problem(500, 'failure', 'Something broke.', 'Try again.')),
    // The clock of the device jumps.
    () => vi.setSystemTime(Date.now() + (dice.below(2) * 2 - 1) * 3_600_000),
    // Somebody else signs in on the device, looks, and sends what he thinks is his.
    async () => {
      const session = useSession()
      const own = session.person
      session.person = { ...PERSON, id: 'teo', name: 'Teo Branwick' } as never
      await useWaiting().send()
      session.person = own
      tabs = [await openOnScreen(server)]
    },
    // The place is left, and what waits is sent from elsewhere.
    async () => {
      const { store } = tab()
      await store.flush()
      await useWaiting().send()
    },
    // The storage refuses: the entry lives in the page until it is sent.
    async () => {
      const refusing = vi.spyOn(outbox, 'keep').mockRejectedValueOnce(new Error('quota'))
      server.online = true
      server.fails = null
      const here = tab()
      made += 1
      here.store.record('note', { station: 'prepare', text: `note ${made}` })
      await drained(here)
      refusing.mockRestore()
    },
  ]
  for (let n = 0; n < interruptions; n++) {
    await write()
    await happenings[dice.below(happenings.length)]?.()
  }
  server.online = true
  server.fails = null
  await drained(await openOnScreen(server))
  await vi.waitFor(async () => expect(await kept()).toBe(0), OFTEN)
  return made
}

describe('a day that is interrupted again and again', () => {
  it.each([1, 2, 3, 4, 5, 6, 7, 8, 9, 10])(
    'loses nothing, doubles nothing, and writes nothing under another name (day %i, 20 times)',
    async (seed) => {
      vi.useFakeTimers({ toFake: ['Date'] })
      try {
        const made = await day(seed, 20)
        const there = notes()
        expect(there.map((n) => n.text).sort()).toEqual(
          Array.from({ length: made }, (_, n) => `note ${n + 1}`).sort(),
        )
        expect(new Set(there.map((n) => n.by))).toEqual(new Set([PERSON.name]))
      } finally {
        vi.useRealTimers()
      }
    },
    60_000,
  )
})
