import { describe, expect, it } from 'vitest'
import { changedFields } from './changedFields'

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
