import type { HouseUnits, Person, Role } from '@uvanta/contract'
import { api } from 'virtual:api'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { ApiProblem, call } from '@/api/client'
import { asOf, keptAnswers } from '@/api/kept'
import type { KeptKey } from './device'
import { renewKeptPerson } from './keptPerson'

/** As long as a session lasts on the server, so long is somebody signed in on a device without a line. */
const SHIFT_MS = 14 * 3_600_000
/** Somebody signed out without a line: the server is told when there is one again. */
const LEFT = 'uvanta-left'

const localDay = () => {
  const now = new Date()
  return new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 10)
}

export const useSession = defineStore('session', () => {
  const person = shallowRef<Person | null>(null)
  const today = ref('')
  const known = ref(false)
  /** Units of the person, else of the house, where nothing on the spot says another. */
  const units = shallowRef<HouseUnits>({ gaugePressure: 'psi', differential: 'psi' })
  const houseUnits = shallowRef<HouseUnits>(units.value)
  /** The utility, as it stands on certificates. */
  const utility = ref('')
  /** Whether certificates can be issued; what is kept without a line does not say. */
  const isSetUp = ref(true)

  async function load(): Promise<void> {
    if (localStorage.getItem(LEFT)) await leave()
    const answer = await call(api.session.me)
    const kept = asOf.value
    if (kept && Date.now() - Date.parse(kept) > SHIFT_MS) return forget()
    person.value = answer.person
    // Without a line the day goes on by the clock of the device.
    today.value = kept && localDay() > answer.today ? localDay() : answer.today
    units.value = answer.units
    houseUnits.value = answer.house
    utility.value = answer.utility
    isSetUp.value = answer.isSetUp
    known.value = true
    keptAnswers.belongTo(answer.person?.id ?? '')
    // A device whose storage is shut keeps nobody.
    if (!kept && answer.person) {
      const { person: own, units: house, utility: name } = answer
      void renewKeptPerson({ person: own, units: house, utility: name }).catch(() => undefined)
    }
  }

  /** Somebody whose key was opened goes on without a line: who he is, this device knows. */
  async function takeUp(row: Pick<KeptKey, 'person' | 'units' | 'utility'>): Promise<void> {
    const answer = {
      person: row.person,
      units: row.units,
      house: row.units,
      utility: row.utility,
      isSetUp: true,
      today: localDay(),
    }
    person.value = row.person
    today.value = answer.today
    units.value = row.units
    utility.value = row.utility
    known.value = true
    keptAnswers.belongTo(row.person.id)
    await keptAnswers.place(api.session.me.path).write(JSON.stringify(answer))
  }

  /** The device is handed to somebody else for a while; what is kept of the one before stays his. */
  function setAside(): void {
    person.value = null
    keptAnswers.belongTo('')
  }

  /** @param code of the authenticator, where there is a second factor */
  async function signIn(username: string, password: string, code = ''): Promise<void> {
    await call(api.session.signIn, { body: { username, password, ...(code ? { code } : {}) } })
    await signedIn()
  }

  /** Somebody has proved himself to the server in another way than by the password. */
  async function signedIn(): Promise<void> {
    localStorage.removeItem(LEFT)
    await load()
  }

  /** Ends the session here, and on the server as soon as that hears of it. */
  async function signOut(): Promise<void> {
    localStorage.setItem(LEFT, '1')
    await leave().catch((error: unknown) => {
      if (!(error instanceof ApiProblem && error.offline)) throw error
    })
    await forget()
  }

  async function leave(): Promise<void> {
    await call(api.session.signOut)
    localStorage.removeItem(LEFT)
  }

  /** Nothing of what was answered to somebody stays for the next one; what he recorded waits for him. */
  async function forget(): Promise<void> {
    const gone = person.value?.id ?? ''
    person.value = null
    known.value = true
    keptAnswers.belongTo('')
    await keptAnswers.clear(gone)
  }

  const has = (...roles: Role[]) => roles.some((r) => person.value?.roles.includes(r))
  const isOffice = computed(() => has('planner', 'reviewer', 'administrator'))

  return {
    person,
    today,
    units,
    houseUnits,
    utility,
    isSetUp,
    known,
    load,
    signIn,
    signedIn,
    signOut,
    takeUp,
    setAside,
    has,
    isOffice,
  }
})
