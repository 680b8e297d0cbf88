import type { HouseUnits, Person } from '@uvanta/contract'
import { openDevice } from './device'

/**
 * Who somebody is by now, kept beside the key of this device: without a line the key opens him as the
 * server knew him last, with the roles and licences of then, and not as he was when it was made.
 */
export async function renewKeptPerson(known: {
  readonly person: Person
  readonly units: HouseUnits
  readonly utility: string
}): Promise<void> {
  const device = await openDevice()
  const transaction = device.transaction('keys', 'readwrite')
  const row = await transaction.store.get(known.person.id)
  if (row) await transaction.store.put({ ...row, ...known })
  await transaction.done
}
