import { api, type HouseUnits, type Person, type Role } from '@uvanta/contract'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { call } from '@/api/client'

export const useSession = defineStore('session', () => {
  const person = shallowRef<Person | null>(null)
  const today = ref('')
  const known = ref(false)
  /** Units of the house, where nothing on the spot says another. */
  const units = shallowRef<HouseUnits>({ gaugePressure: 'psi', differential: 'psi' })

  async function load(): Promise<void> {
    const answer = await call(api.session.me)
    person.value = answer.person
    today.value = answer.today
    units.value = answer.units
    known.value = true
  }

  async function signIn(username: string, password: string): Promise<void> {
    await call(api.session.signIn, { body: { username, password } })
    await load()
  }

  async function signOut(): Promise<void> {
    await call(api.session.signOut)
    person.value = null
  }

  const has = (...roles: Role[]) => roles.some((r) => person.value?.roles.includes(r))
  const isOffice = computed(() => has('planner', 'reviewer', 'administrator'))

  return { person, today, units, known, load, signIn, signOut, has, isOffice }
})
