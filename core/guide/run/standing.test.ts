import { describe, expect, it } from 'vitest'
import { type GuideStep, placedStep } from '..'
import { needsHands, standingOf } from './standing'

const steps = (...list: object[]) =>
  list.map((s, n) => placedStep(s as GuideStep, { id: String(n + 1), path: '', at: 'rebuild' }))
const after = (...list: object[]) => {
  const all = steps(...list)
  return standingOf({ steps: all, done: new Set(all.map((s) => s.id)) })
}

describe('how a machine stands', () => {
  it('is as the last step on record left it', () => {
    expect(after()).toEqual({ aids: [] })
    expect(after({ air: 'on' }, { power: 'off' }, { air: 'off' })).toEqual({
      air: 'off',
      power: 'off',
      aids: [],
    })
    const all = steps({ air: 'on' }, { air: 'off' })
    expect(standingOf({ steps: all, done: new Set(['1']) }).air).toBe('on')
  })
  it('keeps its position until it is lifted to its place', () => {
    const turned = { position: 'Nose down' }
    expect(after(turned, { fit: 'bush' }).position).toBe('Nose down')
    expect(after(turned, { fit: 'body', people: 2 }).position).toBeUndefined()
    expect(after(turned, { liftIn: 'sling' }).position).toBeUndefined()
    expect(after(turned, { liftIn: 'sling' }, { position: 'Upright' }).position).toBe('Upright')
  })
  it('says what is in it and has not come out', () => {
    expect(after({ liftIn: 'cap-eyes' }, { liftIn: 'sling' }).aids).toEqual(['cap eyes', 'sling'])
    expect(
      after({ liftIn: 'cap-eyes' }, { liftIn: 'sling' }, { liftOut: 'cap-eyes' }).aids,
    ).toEqual(['sling'])
  })
  it('asks for hands where parts are handled, not where screws are turned or looked at', () => {
    const [renew, tighten, trial] = steps(
      { renew: 'seal', from: 'kit' },
      { tighten: 'bolts', to: { snug: true } },
      { trial: 'It is dry' },
    )
    expect([renew, tighten, trial].map((s) => s && needsHands(s))).toEqual([true, false, false])
  })
})
