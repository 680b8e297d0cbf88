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
const why = (...args: Parameters<typeof proof>) => proof(...args)?.code ?? 'allowed'

describe('a temporary repair', () => {
  const until = (date: string) =>
    why({ temporary: 'x' }, { temporary: { until: date, permittedBy: 'The authority' } })
  it('is renewed by a day after today', () => {
    expect(why({ temporary: 'x' })).toBe('temporary-incomplete')
    expect(until('2026-06-01')).toBe('date-past')
    expect(until('2026-06-02')).toBe('allowed')
  })
})

describe('throws', () => {
  const mm = (value: string) => ({ value, unit: 'mm' })
  const thrown = (one: string, other: string, more = {}) =>
    why({ measure: 'throws' }, { throws: { one: mm(one), other: mm(other) }, ...more })
  it('are both measured, and equal', () => {
    expect(why({ measure: 'throws' })).toBe('throws-missing')
    expect(thrown('0', '0')).toBe('throws-zero')
    expect(thrown('0', '31')).toBe('throws-unequal')
    expect(thrown('31', '0')).toBe('throws-unequal')
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
    expect(why({ measure: 'grooves' })).toBe('counts-missing')
    expect(counted(4, 4)).toBe('allowed')
    expect(counted(4, 3)).toBe('counts-differ')
    expect(counted(4, 5)).toBe('counts-differ')
    expect(counted(4, 5, { departure: 'One is a spare' })).toBe('allowed')
    expect(counted(2, 2)).toBe('allowed')
    expect(counted(1, 1)).toBe('counts-too-few')
    expect(why({ measure: 'grooves' }, { counted: { grooves: 3, rings: 3 } })).toBe('allowed')
  })
})

describe('a setting', () => {
  it('is written down as it was found, and blanks are nothing written', () => {
    expect(why({ snapshot: 'height' })).toBe('setting-missing')
    expect(why({ snapshot: 'height' }, { setting: '   ' })).toBe('setting-missing')
    expect(why({ snapshot: 'height' }, { setting: '3 turns' })).toBe('allowed')
    expect(why({ do: true, writes: 'Turns of the adjuster' })).toBe('writing-missing')
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
    expect(held()).toBe('timer-not-started')
    expect(held(begun('2026-06-01T11:50:00.000Z', '6'))).toBe('timer-not-started')
    expect(held(begun('2026-06-01T11:50:00.000Z'))).toBe('allowed')
    expect(held(begun('2026-06-01T11:50:01.000Z'))).toBe('timer-running')
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
    expect(state()).toBe('rounds-too-few')
    expect(state(['7', true])).toBe('rounds-too-few')
    expect(state(['6', true], ['7', false])).toBe('rounds-too-few')
    expect(state(['7', true], ['7', true])).toBe('rounds-still-moving')
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
    expect(inspected({ finding: 'keep', defects: ['cut'] })?.code).toBe('against-policy')
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
    expect(asked(job(), 'zone-proved', zero({ zone: 'attic' }))?.code).toBe('zone-unknown')
    const reading = { dimension: 'differential', value: '0', unit: 'psi' } as const
    expect(asked(job(), 'zone-proved', zero({ reading }))?.code).toBe('not-a-pressure')
    expect(asked(job(), 'zone-proved', zero())?.code).toBe('zone-fed')
    const trapped = shut(job(), 'shutoff-2', 'shutoff-1')
    expect(asked(trapped, 'zone-proved', zero())?.code).toBe('zone-trapped')
    expect(asked(trapped, 'zone-proved', zero())?.why).not.toMatch(/undefined/)
  })
  it('a lock hangs on a valve that is there and shut, and holds it shut', () => {
    const at = shut(job(), 'shutoff-2')
    const lock = (element: string, on: boolean) => ({ element, number: 'L-1', on })
    expect(asked(at, 'lock', lock('window', true))?.code).toBe('element-unknown')
    expect(asked(at, 'lock', lock('shutoff-1', true))?.code).toBe('valve-not-shut')
    expect(asked(at, 'lock', lock('shutoff-2', false))?.code).toBe('lock-off')
    at.must('lock', lock('shutoff-2', true))
    const turn = (to: 'open' | 'shut') =>
      asked(at, 'valve-moved', { element: 'shutoff-2', to })?.code
    expect(turn('open')).toBe('lock-on')
    expect(turn('shut')).not.toBe('lock-on')
  })
  it('hoses and valves are those of the apparatus', () => {
    const at = job()
    expect(asked(at, 'hose-moved', { hose: 'garden', port: 'cock-2' })?.code).toBe('hose-unknown')
    expect(asked(at, 'hose-moved', { hose: 'high', port: 'tap' })?.code).toBe('element-unknown')
    expect(asked(at, 'hose-moved', { hose: 'high', port: 'cock-2' })).toBeNull()
    expect(asked(at, 'hose-moved', { hose: 'high' })).toBeNull()
    expect(asked(at, 'valve-moved', { element: 'tap', to: 'open' })?.code).toBe('element-unknown')
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
    expect(asked(job(), 'guide-chosen', other)?.code).toBe('sheet-not-in-force')
    const foreign = shippedLibrary.specSheets.find((s) => s.family !== guide.family)!
    const wrong = { ...chosen, sheet: { id: foreign.id, version: foreign.version } }
    expect(asked(job(), 'guide-chosen', wrong)?.code).toBe('sheet-not-in-force')
  })
  it('is done step by step, each at its station, on a way that has it', () => {
    const at = job().choose(guide, guide.variants[0]!.id)
    const first = at.due('prepare')!
    const done = (id: string, station: PayloadOf<'guide-step'>['at']) =>
      asked(at, 'guide-step', { step: id, at: station })?.code ?? 'allowed'
    expect(asked(job(), 'guide-step', { step: '1', at: 'prepare' })?.code).toBe('guide-not-chosen')
    expect(done('99', 'prepare')).toBe('step-unknown')
    expect(done(first.id, 'rebuild')).toBe('step-other-station')
    const later = at.run.steps.find((s) => s.at === 'make-safe')!
    expect(done(later.id, 'make-safe')).toBe('step-other-station')
    expect(asked(at, 'guide-redo', { from: first.id, reason: 'x' })?.code).toBe('step-not-done')
    expect(asked(at, 'guide-round', { step: first.id, moved: true })?.code).toBe(
      'step-without-rounds',
    )
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
    expect(asked(at, 'station-done', { station: 'rebuild' })?.code).toBe('steps-left')
  })
})
