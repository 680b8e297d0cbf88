import { useIdle, useIntervalFn, useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import { ApiProblem, whenSessionEnds } from '@/api/client'
import { asOf, keptAnswers } from '@/api/kept'
import { useDeviceKey } from './deviceKey'
import type { KeptKey } from './device'
import { useSession } from './session'

/** Without a touch for so long, a device with a PIN is locked. */
const IDLE_MS = 15 * 60_000
const EVERY_MS = 30_000

/** Why the screen is shut: by hand, since nobody touched it, as it was started, or the session has ended. */
export type LockReason = 'hand' | 'idle' | 'start' | 'ended'

/** The lock of the screen: opened with the PIN of whoever is signed in, or with the password. */
export const useLock = defineStore('lock', () => {
  const session = useSession()
  const keys = useDeviceKey()
  /** Outlives the page: what was locked is locked after a reload. */
  const locked = useLocalStorage('uvanta-locked', false)
  const touched = useLocalStorage('uvanta-touched', 0)
  const reason = ref<LockReason | null>(null)

  /** Counts up whenever the way to the server is free again. */
  const openings = ref(0)
  /** The key of the shift, in memory alone: an ended session is taken up again without a question. */
  let shift: { readonly row: KeptKey; readonly key: CryptoKey } | null = null
  let renewing = false

  function lock(why: LockReason): void {
    if (!session.person || reason.value) return
    shift = null
    reason.value = why
    locked.value = true
    // Whoever was let go elsewhere and has no key here leaves nothing for the next one to read; what was recorded
    // waits to be sent.
    if (why === 'ended' && !keys.own()) void keptAnswers.clear(session.person.id)
  }
  function opened(): void {
    reason.value = null
    locked.value = false
    touched.value = Date.now()
    openings.value += 1
  }

  /** The server knows nobody, or somebody else: by the key of the shift, or whoever is here is asked. */
  async function renew(): Promise<void> {
    if (renewing) return
    if (shift?.row.personId !== session.person?.id) return lock('ended')
    renewing = true
    try {
      if (shift) await keys.signIn(shift.row, shift.key)
      openings.value += 1
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      if (!error.offline) lock('ended')
    } finally {
      renewing = false
    }
  }

  /** Looks, once the person is known, whether the device was left locked or lying about. */
  async function begin(): Promise<void> {
    await keys.refresh()
    whenSessionEnds(() => void renew())
    const { idle } = useIdle(IDLE_MS)
    watch(idle, (is) => is && keys.own() && lock('idle'))
    useIntervalFn(() => {
      if (!idle.value && !reason.value) touched.value = Date.now()
    }, EVERY_MS)
    watch(() => session.person?.id, look, { immediate: true })
  }
  let looked = false
  function look(): void {
    if (!session.person || looked) return
    looked = true
    const lay = Date.now() - touched.value > IDLE_MS
    if (locked.value || (keys.own() && (lay || asOf.value))) lock('start')
  }

  /** @throws WrongPin, ApiProblem when the server does not know the key any more */
  async function openWithPin(row: KeptKey, pin: string): Promise<void> {
    looked = true
    const key = await keys.open(row, pin)
    try {
      await keys.signIn(row, key)
      await session.load()
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error
      if (!error.offline) {
        // A key that was revoked is of no use here either.
        if (error.status === 401) {
          await keys.forget(row)
          await keptAnswers.clear(row.personId)
        }
        throw error
      }
      await session.takeUp(row)
    }
    shift = { row, key }
    opened()
  }

  /** @throws ApiProblem */
  async function openWithPassword(
    username: string,
    password: string,
    code?: string,
  ): Promise<void> {
    looked = true
    await session.signIn(username, password, code)
    opened()
  }

  /** @throws NotProved, ApiProblem */
  async function openWithPasskey(): Promise<void> {
    looked = true
    const { signInByPasskey } = await import('@/composables/passkey')
    await signInByPasskey()
    await session.signedIn()
    opened()
  }

  /** Somebody else takes the device. */
  function leaveTo(): void {
    shift = null
    session.setAside()
    opened()
  }

  return {
    reason,
    openings,
    lock,
    begin,
    openWithPin,
    openWithPassword,
    openWithPasskey,
    leaveTo,
  }
})
