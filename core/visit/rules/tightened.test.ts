import { describe, expect, it } from 'vitest'
import { type GuideStep, placedStep } from '../../guide'
import { Job } from '../../testing'
import { draftOf, emptyLog, type PayloadOf, type VisitEvent, type VisitState } from '..'
import { tightenedRefusal } from './tightened'

const context = new Job({ family: 'spring-regulator', kind: 'spring regulator' }).context
const sheet = (slot: string, value: string, unit?: string): VisitState['guideValues'][number] => ({
  slot,
  value,
  source: 'Sheet, page 4',
  eventId: 'e',
  recordedAt: '2026-06-01T11:00:00.000Z',
  recordedBy: 'P',
  ...(unit ? { unit } : {}),
})
const state: VisitState = {
  ...emptyLog.state,
  guideValues: [
    sheet('cover-torque', '40', 'N·m'),
    sheet('cover-most', '50', 'N·m'),
    sheet('in-words', 'one turn'),
  ],
}
type Payload = Partial<PayloadOf<'guide-step'>>
const why = (to: object, payload: Payload, fastener = 'bolts') => {
  const step = placedStep({ tighten: fastener, to, say: 'Tighten' } as GuideStep, {
    id: '7',
    path: 'steps[6]',
    at: 'rebuild',
  })
  const event = {
    ...draftOf(
      'guide-step',
      { step: '7', at: 'rebuild', ...payload },
      {
        id: '018f0000-0000-7000-8003-000000000001',
        deviceTime: '2026-06-01T12:00:00.000Z',
        deviceOffset: 0,
      },
    ),
    personId: 'p',
    personName: 'P',
  } as VisitEvent<'guide-step'>
  return tightenedRefusal(state, step, event, context)?.code ?? 'allowed'
}
const set = (value: string, unit = 'N·m') => ({ tightened: { fastener: 'bolts', value, unit } })
const torque = { torque: 'cover-torque' }

describe('what fasteners were tightened to', () => {
  it('need not be said, but is of the fasteners of its step', () => {
    expect(why(torque, {})).toBe('allowed')
    expect(why(torque, set('40'), 'screws')).toBe('fastener-unknown')
  })
  it('is the figure of the sheet, in whichever unit, as near as a wrench clicks', () => {
    expect(why(torque, set('40'))).toBe('allowed')
    expect(why(torque, set('29.5', 'lbf·ft'))).toBe('allowed')
    expect(why(torque, set('36'))).toBe('allowed')
    expect(why(torque, set('44'))).toBe('allowed')
    expect(why(torque, set('35.9'))).toBe('torque-differs')
    expect(why(torque, set('44.1'))).toBe('torque-differs')
    // The commonest slip: the figure of one unit on the scale of another.
    expect(why(torque, set('40', 'lbf·ft'))).toBe('torque-differs')
  })
  it('is never over a ceiling', () => {
    const most = { ceiling: 'cover-most' }
    expect(why(most, set('50'))).toBe('allowed')
    expect(why(most, set('10'))).toBe('allowed')
    expect(why(most, set('50.1'))).toBe('torque-over-ceiling')
    expect(why({ ...torque, ceiling: 'cover-most' }, set('51'))).toBe('torque-over-ceiling')
  })
  it('may be another with a reason, and where the sheet has no torque', () => {
    expect(why(torque, { ...set('60'), departure: 'New gasket, maker asked' })).toBe('allowed')
    expect(why(torque, { ...set('60'), departure: 'x' }, 'screws')).toBe('fastener-unknown')
    expect(why({ torque: 'in-words' }, set('60'))).toBe('allowed')
    expect(why({ torque: 'unknown' }, set('60'))).toBe('allowed')
    expect(why({ snug: true }, set('60'))).toBe('allowed')
  })
})
