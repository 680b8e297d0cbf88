import 'fake-indexeddb/auto'
import type { Id } from '@uvanta/core/schema'
import { describe, expect, it } from 'vitest'
import type { Person } from '@uvanta/contract'
import { type KeptKey, openDevice } from './device'
import { renewKeptPerson } from './keptPerson'

const PERSON: Person = {
  id: '018f0000-0000-7000-8000-000000000001' as Id<'person'>,
  username: 'odda',
  name: 'Odda Marrin',
  roles: ['technician'],
  active: true,
  version: 1,
  licences: [],
}
const units = { gaugePressure: 'psi', differential: 'psi' } as const
const row = (wrong: number): KeptKey => ({
  personId: PERSON.id,
  person: { ...PERSON, roles: ['technician', 'planner'] },
  units,
  utility: 'Larkhaven',
  device: 'a device',
  sealed: {} as KeptKey['sealed'],
  wrong,
})

describe('who a key of this device opens', () => {
  it('is the person as the server knew him last; the key and its wrong tries stay', async () => {
    const device = await openDevice()
    await device.put('keys', row(3))
    const person: Person = { ...PERSON, name: 'Odda Vale' }
    await renewKeptPerson({ person, units, utility: 'Larkhaven Gas & Water' })
    expect(await device.get('keys', PERSON.id)).toEqual({
      ...row(3),
      person,
      utility: 'Larkhaven Gas & Water',
    })
  })
  it('is nobody new: who has no key here gets none', async () => {
    const device = await openDevice()
    const other = { ...PERSON, id: '018f0000-0000-7000-8000-00000000000a' as Id<'person'> }
    await renewKeptPerson({ person: other, units, utility: '' })
    expect(await device.get('keys', other.id)).toBeUndefined()
  })
})
