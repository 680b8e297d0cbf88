import { describe, expect, it } from 'vitest'
import { changedFields, changedValues } from './changedFields'

describe('what a change changes', () => {
  const petra = { name: 'Petra Holm', roles: ['administrator'], active: true, lastSeen: null }
  it('is only what is other than before, in words', () => {
    expect(
      changedFields(petra, { name: 'Petra Holm', roles: ['administrator'], active: false }),
    ).toBe('active')
    expect(changedFields({ specSheet: 'a-1' }, { specSheet: 'a-2', tag: undefined })).toBe(
      'spec sheet',
    )
  })
  it('counts what nobody may see of the record, as a password', () => {
    expect(changedFields(petra, { name: 'Petra Holm', password: 'a new one' })).toBe('password')
  })
  it('is nothing where all stayed', () => {
    expect(changedFields(petra, { roles: ['administrator'], lastSeen: null })).toBe('nothing')
  })
})

describe('what a change was and is', () => {
  it('is said with both values, and of what did not change nothing', () => {
    expect(
      changedValues(
        { number: 'BT-1', expiresOn: '2026-01-01', roles: ['technician'] },
        { number: 'BT-1', expiresOn: '2027-01-01', roles: ['technician', 'reviewer'] },
      ),
    ).toBe('expires on: 2026-01-01 → 2027-01-01; roles: ["technician"] → ["technician","reviewer"]')
    expect(changedValues({ a: 1 }, { a: 1, b: undefined })).toBe('nothing')
  })
  it('says of a secret that it changed, and not what it is', () => {
    const words = changedValues({ access: 'key under the pot' }, { access: 'code 4711' })
    expect(words).toBe('access')
  })
})
