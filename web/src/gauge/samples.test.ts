import { describe, expect, it } from 'vitest'
import { Samples } from './samples'

describe('samples', () => {
  it('grow beyond any size they began with, and keep their order', () => {
    const samples = new Samples()
    for (let n = 1; n <= 5_000; n++) samples.add(n, n / 10, 600)
    expect(samples.length).toBe(5_000)
    expect([...samples.since().slice(-3)]).toEqual([499.8, 499.9, 500])
    expect(samples.since()[0]).toBe(0.1)
  })
  it('mark what was lost, but never more than is worth it', () => {
    const samples = new Samples()
    samples.add(1, 1, 5)
    samples.add(100, 2, 5)
    expect(samples.length).toBe(7)
    expect([...samples.since()].filter(Number.isNaN)).toHaveLength(5)
  })
  it('take up the counting of a gauge that began anew', () => {
    const samples = new Samples()
    samples.add(50, 1, 600)
    samples.restart(1)
    samples.add(1, 2, 600)
    expect([...samples.since()]).toEqual([1, NaN, 2])
  })
  it('are handed out from any of them on', () => {
    const samples = new Samples()
    for (let n = 1; n <= 5; n++) samples.add(n, n, 600)
    expect([...samples.since(3)]).toEqual([4, 5])
    expect([...samples.since(9)]).toEqual([])
  })
  it('are handed out as copies', () => {
    const samples = new Samples()
    samples.add(1, 1, 600)
    const copy = samples.since()
    copy[0] = 99
    expect(samples.since()[0]).toBe(1)
  })
})
