import { describe, expect, it } from 'vitest'
import type { PlacedStep } from '../schema/step'
import { handsTogether, isByHand } from './byHand'

const step = (said: Partial<PlacedStep> & Pick<PlacedStep, 'verb'>): PlacedStep =>
  ({ id: JSON.stringify(said), at: 'rebuild', path: '', ...said }) as PlacedStep
const cap = step({ verb: 'fit', fit: 'cap' })
const washer = step({ verb: 'fit', fit: 'washer' })
const nuts = step({ verb: 'tighten', tighten: 'nuts', to: { snug: true } })
const press = step({ verb: 'trial', trial: 'Press the cap' })
const clean = step({ verb: 'clean', clean: 'ring' })
const off = step({ verb: 'remove', remove: 'ring' })
const judged = step({ verb: 'inspect', inspect: 'ring' })

describe('what hands do in one go', () => {
  it('is neither judged nor read, has no hazard, and no way round', () => {
    expect([cap, washer, nuts, clean, off].every(isByHand)).toBe(true)
    const others = [
      press,
      judged,
      step({ verb: 'fit', fit: 'ring', verify: ['look'] }),
      step({ verb: 'fit', fit: 'lip', orient: 'lip to the pressure' }),
      step({ verb: 'remove', remove: 'spring-cover', hazard: 'The spring pushes.' }),
      step({ verb: 'tighten', tighten: 'bolts', to: { torque: 'cover-torque' } }),
      step({ verb: 'tighten', tighten: 'bolts', to: { ceiling: 'most' } }),
      step({ verb: 'do', do: true, locked: true }),
      step({ verb: 'do', do: true, say: 'Relief dry at rest?' }),
      step({ verb: 'do', do: true, writes: 'Turns' }),
      step({ verb: 'fit', fit: 'bonnet', people: 2 }),
      step({ verb: 'remove', remove: 'lid', withAir: true }),
      step({ verb: 'prove', prove: 'body' }),
      step({ verb: 'reopen', reopen: 'shutoff-1' }),
      step({ verb: 'air', air: 'on' }),
    ]
    expect(others.filter(isByHand)).toEqual([])
  })
  it('ends before what is judged, and stays together while it is done', () => {
    const steps = [cap, washer, nuts, press, clean]
    for (const due of [cap, washer, nuts])
      expect(handsTogether(steps, due)).toEqual([cap, washer, nuts])
    expect(handsTogether(steps, press)).toEqual([])
  })
  it('is nothing where a step stands alone', () => {
    expect(handsTogether([press, clean, press], clean)).toEqual([])
  })
  it('leaves a part that is judged as it comes off to its verdict', () => {
    expect(handsTogether([cap, washer, off, judged], cap)).toEqual([cap, washer])
    expect(handsTogether([off, judged], off)).toEqual([])
  })
  it('begins anew where something differs from the first time', () => {
    const other = step({ verb: 'fit', fit: 'second', differs: 'It has a handle.' })
    const steps = [cap, washer, other, nuts]
    expect(handsTogether(steps, cap)).toEqual([cap, washer])
    expect(handsTogether(steps, nuts)).toEqual([other, nuts])
  })
  it('leaves out what has something else to be asked first', () => {
    expect(handsTogether([cap, washer, nuts], cap, (s) => s !== nuts)).toEqual([cap, washer])
  })
})
