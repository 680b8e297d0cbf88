import type { VisitEvent } from '@uvanta/core/visit'
import { describe, expect, it } from 'vitest'
import { LogCache } from './logCache'

const log = (...hashes: string[]) => hashes.map((hash) => ({ hash }) as VisitEvent)

describe('a log that was kept', () => {
  it('counts only while the visit’s row names the same head: another server may have written', () => {
    const cache = new LogCache(2)
    const kept = log('a', 'b')
    cache.put('v', kept)
    expect(cache.get('v', 2, 'b')).toBe(kept)
    expect(cache.get('v', 2, 'x')).toBeUndefined()
    expect(cache.get('v', 3, 'b')).toBeUndefined()
    expect(cache.get('w', 2, 'b')).toBeUndefined()
  })
  it('goes when newer ones want its place', () => {
    const cache = new LogCache(2)
    for (const id of ['1', '2', '1', '3']) cache.put(id, log(id))
    expect(cache.get('2', 1, '2')).toBeUndefined()
    expect(cache.get('1', 1, '1')).toBeDefined()
  })
})
