import { appended, emptyLog, type VisitEvent } from '@uvanta/core/visit'
import { describe, expect, it } from 'vitest'
import { LogCache } from './logCache'

const note = (hash: string): VisitEvent => ({
  id: hash,
  kind: 'note',
  payload: { station: 'prepare', text: 'x'.repeat(1000) },
  deviceTime: '2026-06-01T08:00:00.000Z',
  deviceOffset: 0,
  personId: 'p',
  personName: 'P',
  hash,
})
const log = (...hashes: string[]) => appended(emptyLog, hashes.map(note))

describe('a log that was kept', () => {
  it('counts only while the visit’s row names the same head: another server may have written', () => {
    const cache = new LogCache(10_000)
    const kept = log('a', 'b')
    cache.put('v', kept)
    expect(cache.get('v', 2, 'b')).toBe(kept)
    expect(cache.get('v', 2, 'x')).toBeUndefined()
    expect(cache.get('v', 3, 'b')).toBeUndefined()
    expect(cache.get('w', 2, 'b')).toBeUndefined()
  })
  it('goes when newer ones want its room, the one that was used longest ago first', () => {
    const cache = new LogCache(4000)
    for (const id of ['1', '2', '1', '3']) cache.put(id, log(id))
    expect(cache.get('2', 1, '2')).toBeUndefined()
    expect(cache.get('1', 1, '1')).toBeDefined()
  })
  it('is counted by what it holds: a log that grew takes more room', () => {
    const cache = new LogCache(6000)
    const grown = (n: number) => log(...Array.from({ length: n }, (_, k) => String(k)))
    cache.put('other', log('a'))
    for (let n = 1; n <= 3; n++) cache.put('v', grown(n))
    expect(cache.get('v', 3, '2')).toBeDefined()
    expect(cache.get('other', 1, 'a')).toBeUndefined()
  })
})
