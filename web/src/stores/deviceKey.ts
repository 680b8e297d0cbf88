import { signInText } from '@uvanta/contract/signInText'
import { api } from 'virtual:api'
import { defineStore } from 'pinia'
import { v7 as uuidv7 } from 'uuid'
import { shallowRef } from 'vue'
import { call } from '@/api/client'
import { makeSealedKey, openSealedKey, signText } from '@/device/sealedKey'
import { type KeptKey, openDevice } from './device'
import { useSession } from './session'

/** After so many wrong PINs in a row the key of the person is gone from this device. */
const MOST_WRONG = 10

/** A PIN that opens nothing, with what is left to try. */
export class WrongPin extends Error {
  constructor(readonly left: number) {
    super(
      left > 0
        ? `That is not the PIN. ${left} ${left === 1 ? 'try is' : 'tries are'} left.`
        : 'Ten wrong PINs: the key is gone from this device. Sign in with the password, then set a new PIN.',
    )
  }
}

/** The keys that people have on this device: each signs, and signs in, for its person alone. */
export const useDeviceKey = defineStore('device-key', () => {
  const session = useSession()
  /** Everybody who has a key here. */
  const kept = shallowRef<readonly KeptKey[]>([])
  const own = () => kept.value.find((k) => k.personId === session.person?.id)

  /** A device whose storage is shut has no keys. */
  async function refresh(): Promise<void> {
    kept.value = await openDevice()
      .then((device) => device.getAll('keys'))
      .catch(() => [])
  }

  /** Registers this device for the person signed in. @throws ApiProblem */
  async function setUp(
    proof: { readonly password: string; readonly code?: string | undefined },
    pin: string,
  ): Promise<void> {
    const { person, units, utility } = session
    if (!person) return
    const { publicKey, sealed } = await makeSealedKey(pin)
    const device = uuidv7()
    await call(api.devices.register, {
      body: { id: device, label: deviceLabel(), publicKey, ...proof },
    })
    const row: KeptKey = { personId: person.id, person, units, utility, device, sealed, wrong: 0 }
    await (await openDevice()).put('keys', row)
    await refresh()
  }

  /** @throws WrongPin */
  async function open(row: KeptKey, pin: string): Promise<CryptoKey> {
    const key = await openSealedKey(row.sealed, pin)
    const wrong = key ? 0 : row.wrong + 1
    if (wrong !== row.wrong) await count(row, wrong)
    if (!key) throw new WrongPin(MOST_WRONG - wrong)
    return key
  }

  async function count(row: KeptKey, wrong: number): Promise<void> {
    const device = await openDevice()
    if (wrong >= MOST_WRONG) await device.delete('keys', row.personId)
    else await device.put('keys', { ...row, wrong })
    await refresh()
  }

  /** What the person signed in signs on this device. @throws WrongPin */
  async function sign(pin: string, text: string): Promise<{ device: string; signature: string }> {
    const row = own()
    if (!row) throw new Error('There is no key on this device.')
    return { device: row.device, signature: await signText(await open(row, pin), text) }
  }

  /** Signs the person of an opened key in at the server. @throws ApiProblem */
  async function signIn(row: KeptKey, key: CryptoKey): Promise<void> {
    const { challenge } = await call(api.devices.challenge)
    const signature = await signText(key, signInText(challenge))
    await call(api.devices.signIn, { body: { device: row.device, signature } })
  }

  /** Takes the key off this device and revokes it at the server. @throws ApiProblem */
  async function remove(): Promise<void> {
    const row = own()
    if (!row) return
    await call(api.devices.revoke, { params: { id: row.device } })
    await forget(row)
  }

  async function forget(row: KeptKey): Promise<void> {
    await (await openDevice()).delete('keys', row.personId)
    await refresh()
  }

  return { kept, own, refresh, setUp, open, sign, signIn, remove, forget }
})

/** What the list of devices calls this one. */
function deviceLabel(): string {
  const { userAgent } = navigator
  const kind =
    /Android|iPhone|iPad/.exec(userAgent)?.[0] ?? /Windows|Macintosh|Linux/.exec(userAgent)?.[0]
  return `${kind ?? 'Device'}, ${screen.width} × ${screen.height}`
}
