import { describe, expect, it } from 'vitest'
import { type Guide, type GuideStep, placedStep } from '../../guide'
import { Job, shippedLibrary } from '../../testing'
import {
  draftOf,
  emptyLog,
  type EventKind,
  guard,
  type PayloadOf,
  type Refusal,
  type VisitEvent,
  type VisitState,
} from '..'
import { inspectionRefusal, proofRefusal } from './step'

/** What a step of a guide wants proved, each on a step made for it and a state that holds only that. */
const context = new Job({ family: 'spring-regulator', kind: 'spring regulator' }).context
const NOON = '2026-06-01T12:00:00.000Z'
const made = <K extends EventKind>(kind: K, payload: PayloadOf<K>, deviceTime = NOON) =>
  ({
    ...draftOf(kind, payload, {
      id: '018f0000-0000-7000-8003-000000000001',
      deviceTime,
      deviceOffset: 0,
    }),
    personId: 'p',
    personName: 'P',
  }) as VisitEvent<K>
/** The same, of whichever kind. */
const draft = <K extends EventKind>(kind: K, payload: PayloadOf<K>) =>
  made(kind, payload) as VisitEvent
const step = (more: object) =>
  placedStep({ say: 'Do it', ...more } as GuideStep, { id: '7', path: 'steps[6]', at: 'rebuild' })
const proof = (
  asked: object,
  payload: Partial<PayloadOf<'guide-step'>> = {},
  state: Partial<VisitState> = {},
): Refusal | null =>
  proofRefusal(
    { ...emptyLog.state, ...state },
    step(asked),
    made('guide-step', { step: '7', at: 'rebuild', ...payload }),
    context,
  )
const why = (...args: Parameters<typeof proof>) => proof(...args)?.why ?? 'allowed'

describe('a temporary repair', () => {
  const until = (date: string) =>
    why({ temporary: 'x' }, { temporary: { until: date, permittedBy: 'The authority' } })
  it('is renewed by a day after today', () => {
    expect(why({ temporary: 'x' })).toMatch(/needs the date/)
    expect(until('2026-06-01')).toMatch(/lies in the past/)
    expect(until('2026-06-02')).toBe('allowed')
  })
})

describe('throws', () => {
  const mm = (value: string) => ({ value, unit: 'mm' })
  const thrown = (one: string, other: string, more = {}) =>
    why({ measure: 'throws' }, { throws: { one: mm(one), other: mm(other) }, ...more })
  it('are both measured, and equal', () => {
    expect(why({ measure: 'throws' })).toMatch(/Both throws/)
    expect(thrown('0', '0')).toMatch(/Nothing stands out/)
    expect(thrown('0', '31')).not.toMatch(/Nothing stands out|allowed/)
    expect(thrown('31', '0')).not.toMatch(/Nothing stands out|allowed/)
    expect(thrown('31', '31')).toBe('allowed')
    expect(thrown('31', '25', { departure: 'Known of this one' })).toBe('allowed')
  })
})

describe('grooves and rings', () => {
  const counted = (grooves: number, rings: number, more = {}) =>
    why(
      { measure: 'grooves', emptyOnPurpose: 1, doubled: 1 },
      { counted: { grooves, rings }, ...more },
    )
  it('are counted before the first ring goes on, the vented groove and the doubled one with them', () => {
    expect(why({ measure: 'grooves' })).toMatch(/are counted/)
    expect(counted(4, 4)).toBe('allowed')
    expect(counted(4, 3)).toMatch(/1 missing: 4 are wanted/)
    expect(counted(4, 5)).toMatch(/1 too many/)
    expect(counted(4, 5, { departure: 'One is a spare' })).toBe('allowed')
    expect(counted(2, 2)).toBe('allowed')
    expect(counted(1, 1)).toMatch(/Fewer grooves are counted than the 2/)
    expect(why({ measure: 'grooves' }, { counted: { grooves: 3, rings: 3 } })).toBe('allowed')
  })
})

describe('a setting', () => {
  it('is written down as it was found, and blanks are nothing written', () => {
    expect(why({ snapshot: 'height' })).toMatch(/setting as found is missing/)
    expect(why({ snapshot: 'height' }, { setting: '   ' })).toMatch(/missing/)
    expect(why({ snapshot: 'height' }, { setting: '3 turns' })).toBe('allowed')
    expect(why({ do: true, writes: 'Turns of the adjuster' })).toMatch(
      /^Turns of the adjuster: missing/,
    )
    expect(why({ do: true, writes: 'Turns of the adjuster' }, { setting: '12' })).toBe('allowed')
  })
})

describe('waiting', () => {
  const begun = (at: string, of = '7') =>
    ({
      guideTimers: [{ step: of, eventId: 'e', recordedAt: at, recordedBy: 'P' }],
      guideValues: [
        {
          slot: 'hold',
          value: '10',
          source: 'sheet',
          eventId: 'v',
          recordedAt: at,
          recordedBy: 'P',
        },
      ],
    }) as unknown as Partial<VisitState>
  const held = (state?: Partial<VisitState>, more = {}) => why({ hold: 'hold' }, more, state)
  it('lasts as long as the sheet says, from when the clock of this step began', () => {
    expect(held()).toMatch(/has not begun/)
    expect(held(begun('2026-06-01T11:50:00.000Z', '6'))).toMatch(/has not begun/)
    expect(held(begun('2026-06-01T11:50:00.000Z'))).toBe('allowed')
    expect(held(begun('2026-06-01T11:50:01.000Z'))).toMatch(/1 of 10 minutes are left/)
    expect(held(begun('2026-06-01T11:55:00.000Z'), { departure: 'Cold day' })).toBe('allowed')
  })
})

describe('rounds over a soft joint', () => {
  const relaxing = { tighten: 'bolts', untilNoneMoves: true, rounds: 'rounds' }
  const rounds = (...moved: [string, boolean][]) =>
    ({
      guideRounds: moved.map(([of, m]) => ({
        step: of,
        moved: m,
        eventId: 'r',
        at: NOON,
        by: 'P',
      })),
      guideValues: [
        { slot: 'rounds', value: '2', source: 'sheet', eventId: 'v', at: NOON, by: 'P' },
      ],
    }) as unknown as Partial<VisitState>
  it('are those of the step, as many as the sheet says, the last without movement', () => {
    const state = (...moved: [string, boolean][]) => why(relaxing, {}, rounds(...moved))
    expect(state()).toMatch(/0 of at least 2/)
    expect(state(['7', true])).toMatch(/1 of at least 2/)
    expect(state(['6', true], ['7', false])).toMatch(/1 of at least 2/)
    expect(state(['7', true], ['7', true])).toMatch(/still moved/)
    expect(state(['7', true], ['7', false])).toBe('allowed')
    expect(state(['7', true], ['7', false], ['6', true])).toBe('allowed')
  })
})

describe('an inspection', () => {
  const inspected = (payload: Partial<PayloadOf<'guide-step'>>) =>
    inspectionRefusal(
      new Job({ family: 'spring-regulator', kind: 'spring regulator' }).log.state,
      step({
        inspect: 'disc',
        defects: ['cut', 'flat'],
        verdicts: [
          { id: 'keep', title: 'Sound' },
          { id: 'renew', title: 'Renew' },
        ],
      }),
      made('guide-step', { step: '7', at: 'rebuild', ...payload }),
      context,
    )
  it('has a finding of its list and defects of its list', () => {
    expect(inspected({})?.remedy).toBe('Choose one of Sound, Renew.')
    expect(inspected({ finding: 'fine' })?.remedy).toBe('Choose one of Sound, Renew.')
    expect(inspected({ finding: 'renew', defects: ['rust'] })?.remedy).toBe(
      'Choose from cut, flat.',
    )
    expect(inspected({ finding: 'renew', defects: ['cut'] })).toBeNull()
    expect(inspected({ finding: 'keep', defects: ['cut'] })?.why).toMatch(/house’s policy/)
  })
})

describe('zero, locks and hoses', () => {
  const guide = shippedLibrary.guides.find((g) => g.id === 'rp-relief') as Guide
  const job = () =>
    new Job({ family: 'reduced-pressure-assembly', kind: 'RP', packId: 'larkhaven-relief-first' })
      .choose(guide, guide.variants[0]!.id)
      .toMakeSafe()
  const asked = <K extends EventKind>(at: Job, kind: K, payload: PayloadOf<K>) =>
    guard(at.log, draft(kind, payload), at.context)
  const zone = guide.zones![0]!.id
  const zero = (more: Partial<PayloadOf<'zone-proved'>> = {}) => ({
    zone,
    reading: { dimension: 'gaugePressure' as const, value: '0', unit: 'psi' },
    heldMinutes: 2,
    by: 'P',
    ...more,
  })
  const shut = (at: Job, ...valves: string[]) => {
    for (const element of valves) at.must('valve-moved', { element, to: 'shut' })
    return at
  }
  it('zero is read as a pressure, of a zone that is there, that is shut in and vented', () => {
    expect(asked(job(), 'zone-proved', zero({ zone: 'attic' }))?.why).toMatch(/no zone “attic”/)
    const reading = { dimension: 'differential', value: '0', unit: 'psi' } as const
    expect(asked(job(), 'zone-proved', zero({ reading }))?.why).toMatch(/by a pressure/)
    expect(asked(job(), 'zone-proved', zero())?.why).toMatch(/is still fed/)
    const trapped = shut(job(), 'shutoff-2', 'shutoff-1')
    expect(asked(trapped, 'zone-proved', zero())?.why).toMatch(/shut in on all sides/)
    expect(asked(trapped, 'zone-proved', zero())?.why).not.toMatch(/undefined/)
  })
  it('a lock hangs on a valve that is there and shut, and holds it shut', () => {
    const at = shut(job(), 'shutoff-2')
    const lock = (element: string, on: boolean) => ({ element, number: 'L-1', on })
    expect(asked(at, 'lock', lock('window', true))?.why).toMatch(/no “window” here/)
    expect(asked(at, 'lock', lock('shutoff-1', true))?.why).toMatch(/not on record as shut/)
    expect(asked(at, 'lock', lock('shutoff-2', false))?.why).toMatch(/No lock is on it/)
    at.must('lock', lock('shutoff-2', true))
    const turn = (to: 'open' | 'shut') =>
      asked(at, 'valve-moved', { element: 'shutoff-2', to })?.why
    expect(turn('open')).toMatch(/Lock L-1 is on it/)
    expect(turn('shut') ?? 'allowed').not.toMatch(/Lock L-1/)
  })
  it('hoses and valves are those of the apparatus', () => {
    const at = job()
    expect(asked(at, 'hose-moved', { hose: 'garden', port: 'cock-2' })?.why).toMatch(
      /no hose “garden”/,
    )
    expect(asked(at, 'hose-moved', { hose: 'high', port: 'tap' })?.why).toMatch(/no “tap”/)
    expect(asked(at, 'hose-moved', { hose: 'high', port: 'cock-2' })).toBeNull()
    expect(asked(at, 'hose-moved', { hose: 'high' })).toBeNull()
    expect(asked(at, 'valve-moved', { element: 'tap', to: 'open' })?.remedy).toMatch(/shutoff-1/)
  })
})

describe('the work of a guide', () => {
  const guide = shippedLibrary.guides.find((g) => g.id === 'rp-relief') as Guide
  const job = () =>
    new Job({ family: 'reduced-pressure-assembly', kind: 'RP', packId: 'larkhaven-relief-first' })
  const asked = <K extends EventKind>(at: Job, kind: K, payload: PayloadOf<K>) =>
    guard(at.log, draft(kind, payload), at.context)
  it('is by a sheet of the family, in the version that is in force', () => {
    const at = job().choose(guide, guide.variants[0]!.id)
    const { eventId: _, recordedAt: __, recordedBy: ___, ...chosen } = at.state.guide!
    const sheet = chosen.sheet!
    expect(asked(job(), 'guide-chosen', chosen)).toBeNull()
    const other = { ...chosen, sheet: { ...sheet, version: sheet.version + 1 } }
    expect(asked(job(), 'guide-chosen', other)?.why).toMatch(/no spec sheet in force/)
    const foreign = shippedLibrary.specSheets.find((s) => s.family !== guide.family)!
    const wrong = { ...chosen, sheet: { id: foreign.id, version: foreign.version } }
    expect(asked(job(), 'guide-chosen', wrong)?.why).toMatch(/no spec sheet in force/)
  })
  it('is done step by step, each at its station, on a way that has it', () => {
    const at = job().choose(guide, guide.variants[0]!.id)
    const first = at.due('prepare')!
    const done = (id: string, station: PayloadOf<'guide-step'>['at']) =>
      asked(at, 'guide-step', { step: id, at: station })?.why ?? 'allowed'
    expect(asked(job(), 'guide-step', { step: '1', at: 'prepare' })?.why).toMatch(/No guide/)
    expect(done('99', 'prepare')).toMatch(/no step 99 on this way/)
    expect(done(first.id, 'rebuild')).toMatch(/belongs to Prepare/)
    const later = at.run.steps.find((s) => s.at === 'make-safe')!
    expect(done(later.id, 'make-safe')).toMatch(/belongs to Make safe/)
    expect(asked(at, 'guide-redo', { from: first.id, reason: 'x' })?.why).toMatch(/is not done in/)
    expect(asked(at, 'guide-round', { step: first.id, moved: true })?.why).toMatch(/neither rounds/)
  })
  it('holds its station until nothing of it is left, and says how much is', () => {
    const at = job().choose(guide, guide.variants[0]!.id)
    const steps = at.run.steps.filter((s) => s.at === 'prepare').length
    const left = () => asked(at, 'station-done', { station: 'prepare' })?.why ?? 'allowed'
    expect(left()).toMatch(new RegExp(`^${steps} step${steps === 1 ? ' is' : 's are'} left here`))
    at.takeKit().carryOut('prepare')
    expect(left()).toBe('allowed')
  })
  it('holds Rebuild while parts lie on the tray', () => {
    const at = job().choose(guide, guide.variants[0]!.id).toMakeSafe()
    at.carryOut('make-safe').done('make-safe').carryOut('open-up').done('open-up')
    at.must('repair', { text: 'By the guide', parts: [] })
    expect(at.run.tray.length).toBeGreaterThan(0)
    expect(asked(at, 'station-done', { station: 'rebuild' })?.why).toMatch(/left here/)
  })
})
