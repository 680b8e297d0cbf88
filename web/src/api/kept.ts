import type { Call } from '@uvanta/contract'
import { api } from 'virtual:api'
import { shallowRef } from 'vue'
import { openDevice } from '@/stores/device'

/**
 * What a technician needs in a pit, kept on the device as it was last answered: each place opens without a
 * line. What is kept belongs to the person who asked, and goes when that person signs out.
 */
const KEPT: readonly Pick<Call, 'path'>[] = [
  api.session.me,
  api.library.read,
  api.library.earlier,
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

/** What a device keeps of an answer. */
export interface Kept<R = unknown> {
  /** When it came. */
  readonly at: string
  /** Reads it: most of the time nobody looks at it. */
  readonly answer: () => R
}

/** Where the answer of one address is kept, for the person who is signed in as this is asked. */
export interface KeptPlace {
  read(): Promise<Kept | undefined>
  /**
   * Keeps an answer; not any more once somebody else is signed in. A device without room goes on without.
   * @param text the answer as it came, JSON
   * @returns the moment from which it is kept; undefined where it is not
   */
  write(text: string): Promise<string | undefined>
}

export const keptAnswers = {
  /** Whose answers are read and written from here on. */
  belongTo(personId: string): void {
    owner = personId
  },
  /** @param url address of the endpoint, with what is asked */
  place(url: string): KeptPlace {
    const whose = ofDevice(url) ? '' : owner
    const key = `${whose} ${url}`
    const handedOn = () => !ofDevice(url) && whose !== owner
    return {
      async write(text) {
        try {
          const at = new Date().toISOString()
          const device = await openDevice()
          if (handedOn()) return undefined
          await device.put('answers', { key, text, at })
          return at
        } catch {
          // The place is not there without a line, as before.
          return undefined
        }
      },
      async read() {
        try {
          const row = await (await openDevice()).get('answers', key)
          if (!row) return undefined
          const { text, answer, at } = row
          return { at, answer: () => (text === undefined ? answer : (JSON.parse(text) as unknown)) }
        } catch {
          return undefined
        }
      },
    }
  },
  /** Forgets what was answered to a person, and who was signed in last. */
  async clear(personId: string): Promise<void> {
    try {
      const device = await openDevice()
      const own = IDBKeyRange.bound(`${personId} `, `${personId} \uffff`)
      await device.delete('answers', own)
      await device.delete('answers', ` ${api.session.me.path}`)
    } catch {
      // A device that keeps nothing has nothing to forget.
    }
  },
}
