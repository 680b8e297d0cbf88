import { api, type Endpoint } from '@uvanta/contract'
import { shallowRef } from 'vue'
import { openDevice } from '@/stores/device'

/**
 * What a technician needs in a pit, kept on the device as it was last answered: each place opens without a
 * line. What is kept belongs to the person who asked, and goes when that person signs out.
 */
const KEPT: readonly Pick<Endpoint<never, never, never, never>, 'path'>[] = [
  api.session.me,
  api.library.read,
  api.visits.list,
  api.visits.read,
  api.register.readEquipment,
  api.register.history,
  api.register.station,
  api.gauges.list,
  api.gauges.link,
  api.stock.list,
]
/** Who is signed in is asked before anybody is known: that answer belongs to the device. */
const ofDevice = (path: string) => path === api.session.me.path

export const isKept = (e: { readonly path: string; readonly method: string }): boolean =>
  e.method === 'get' && KEPT.some((k) => k.path === e.path)

/** When the answer that is shown was given, if it came from this device and not from the server. */
export const asOf = shallowRef<string | null>(null)

let owner = ''
const keyOf = (url: string) => `${ofDevice(url) ? '' : owner} ${url}`

export const keptAnswers = {
  /** Whose answers are read and written from here on. */
  belongTo(personId: string): void {
    owner = personId
  },
  /** Keeps an answer; a device without room goes on without. */
  async write(url: string, answer: unknown): Promise<void> {
    // Whose it is, is settled now: the person may have changed by the time the store is open.
    const key = keyOf(url)
    try {
      const plain = JSON.parse(JSON.stringify(answer)) as unknown
      const at = new Date().toISOString()
      await (await openDevice()).put('answers', { key, answer: plain, at })
    } catch {
      // The place is not there without a line, as before.
    }
  },
  async read(url: string): Promise<{ readonly answer: unknown; readonly at: string } | undefined> {
    try {
      return await (await openDevice()).get('answers', keyOf(url))
    } catch {
      return undefined
    }
  },
  /** Forgets everything that was answered, to whomever. */
  async clear(): Promise<void> {
    try {
      await (await openDevice()).clear('answers')
    } catch {
      // A device that keeps nothing has nothing to forget.
    }
  },
}
