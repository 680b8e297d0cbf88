import { describe, expect, it } from 'vitest'
import { guideRun, nextStep } from '../guide'
import { shippedLibrary } from '../testing/library'
import {
  type EventKind,
  foldVisit,
  guard,
  type GuardContext,
  type PayloadOf,
  type Refusal,
  runOfGuide,
  type VisitEvent,
} from '.'

const context: GuardContext = {
  library: shippedLibrary,
  person: {
    roles: ['technician'],
    licences: [{ kind: 'backflow-tester', number: 'BT-1', expiresOn: '2030-01-01' }],
  },
}
const uuid = (n: number) => `018f0000-0000-7000-8000-${String(n).padStart(12, '0')}`

/** A visit to a double check with tower checks, event by event. */
class Visit {
  readonly events: VisitEvent[] = []
  refused: Refusal | null = null
  private count = 0

  constructor() {
    this.put('planned', {
      purpose: 'periodic-test',
      plannedOn: '2026-06-01',
      packId: 'larkhaven-relief-first',
      packVersion: 2,
      equipment: {
        id: uuid(900),
        tag: 'DC-1',
        family: 'tower-double-check',
        kind: 'DC',
        sizeIn: '2',
        serial: 'S1',
        maker: 'Maker A',
        service: 'water',
        position: 'Pit',
        site: 'Bath',
        address: '1 Seagate',
        customer: 'Bath',
      },
    })
  }
  private put<K extends EventKind>(kind: K, payload: PayloadOf<K>): void {
    this.events.push(this.event(kind, payload))
  }
  private event<K extends EventKind>(kind: K, payload: PayloadOf<K>): VisitEvent<K> {
    const n = this.count++
    const deviceTime = `2026-06-01T${String(8 + Math.floor(n / 60)).padStart(2, '0')}:${String(n % 60).padStart(2, '0')}:00.000Z`
    return {
      id: uuid(n),
      kind,
      payload,
      deviceTime,
      deviceOffset: 0,
      personId: 'p',
      personName: 'P',
    }
  }
  write<K extends EventKind>(kind: K, payload: PayloadOf<K>): this {
    const event = this.event(kind, payload)
    this.refused = guard(this.events, event, context)
    if (!this.refused) this.events.push(event)
    return this
  }
  get state() {
    return foldVisit(this.events)
  }
  get run() {
    const run = runOfGuide(this.state, shippedLibrary)
    if (!run) throw new Error('no guide')
    return run
  }
  chosen() {
    return this.write('guide-chosen', {
      guideId: 'tower-double-check',
      version: 1,
      variant: 'usual',
    })
  }
  /** Carries out what the guide has for a station. */
  carried(at: 'prepare' | 'make-safe' | 'open-up' | 'rebuild') {
    for (let step = nextStep(this.run, at); step; step = nextStep(this.run, at)) {
      if (step.slot && !this.state.guideValues.some((v) => v.slot === step?.slot)) {
        this.write('guide-value', { slot: step.slot, value: '8', source: 'Sheet, page 4' })
      }
      this.write('guide-step', {
        step: step.id,
        at,
        ...(step.verdicts ? { finding: step.verdicts[0]?.id } : {}),
      })
      if (this.refused) throw new Error(this.refused.why)
    }
    return this
  }
  toMakeSafe() {
    return this.chosen()
      .carried('prepare')
      .write('station-done', { station: 'prepare' })
      .write('identity', { outcome: 'confirmed' })
      .write('station-done', { station: 'arrive' })
      .write('as-found-impossible', { reason: 'Shut off since the flood' })
      .write('station-done', { station: 'as-found' })
  }
}

describe('choosing a guide', () => {
  it.each<[PayloadOf<'guide-chosen'>, RegExp]>([
    [{ guideId: 'nobody', version: 1, variant: 'usual' }, /no guide “nobody”/],
    [{ guideId: 'spool-valve', version: 1, variant: 'usual' }, /not for this family/],
    [{ guideId: 'tower-double-check', version: 9, variant: 'usual' }, /not in force/],
    [{ guideId: 'tower-double-check', version: 1, variant: 'odd' }, /no variant “odd”/],
  ])('%o is refused', (payload, words) => {
    expect(new Visit().write('guide-chosen', payload).refused?.why).toMatch(words)
  })
  it('cannot be changed once its steps are on record', () => {
    const visit = new Visit().chosen()
    visit.write('guide-step', { step: '1.1', at: 'prepare' })
    expect(visit.chosen().refused?.why).toMatch(/on record already/)
  })
})

describe('carrying it out', () => {
  it('goes in order; what comes before is named', () => {
    const visit = new Visit().chosen().write('guide-step', { step: '1.3', at: 'prepare' })
    expect(visit.refused?.why).toMatch(/Before it comes: Compare model/)
  })
  it('or out of order with a reason, which stays on record', () => {
    const visit = new Visit()
      .chosen()
      .write('guide-step', { step: '1.3', at: 'prepare', departure: 'Tools were laid out first' })
    expect(visit.refused).toBeNull()
    expect(visit.state.guideSteps[0]?.departure).toBe('Tools were laid out first')
  })
  it('a station is not finished while steps are left', () => {
    const visit = new Visit().chosen().write('station-done', { station: 'prepare' })
    expect(visit.refused?.why).toMatch(/steps are left here, the next: Compare model/)
    expect(
      visit.carried('prepare').write('station-done', { station: 'prepare' }).refused,
    ).toBeNull()
  })
  it('a step of another station is refused', () => {
    const later = guideRun(
      shippedLibrary.guides.find((g) => g.id === 'tower-double-check')!,
      shippedLibrary.subGuides,
      'usual',
      [],
    ).steps.find((s) => s.at === 'open-up')
    const visit = new Visit().chosen().write('guide-step', { step: later?.id ?? '', at: 'open-up' })
    expect(visit.refused?.why).toMatch(/belongs to Open up/)
  })
  it('a figure that no sheet has is wanted with its source before the step', () => {
    const visit = new Visit()
      .toMakeSafe()
      .carried('make-safe')
      .write('station-done', { station: 'make-safe' })
    const [mark, bolts] = visit.run.steps.filter((s) => s.at === 'open-up')
    visit.write('guide-step', { step: mark?.id ?? '', at: 'open-up' })
    visit.write('guide-step', { step: bolts?.id ?? '', at: 'open-up' })
    expect(visit.refused?.why).toMatch(/no value for this step/)
    visit.write('guide-value', { slot: 'cover-bolt-count', value: '8', source: 'Sheet, page 4' })
    expect(visit.write('guide-step', { step: bolts?.id ?? '', at: 'open-up' }).refused).toBeNull()
  })
  it('an inspection wants its finding', () => {
    const visit = new Visit()
      .toMakeSafe()
      .carried('make-safe')
      .write('station-done', { station: 'make-safe' })
    let step = nextStep(visit.run, 'open-up')
    while (step && !step.verdicts) {
      if (step.slot) visit.write('guide-value', { slot: step.slot, value: '8', source: 'Sheet' })
      visit.write('guide-step', { step: step.id, at: 'open-up' })
      step = nextStep(visit.run, 'open-up')
    }
    expect(visit.write('guide-step', { step: step?.id ?? '', at: 'open-up' }).refused?.why).toMatch(
      /needs its finding/,
    )
  })
  it('ends with an empty tray, and only then is Rebuild finished', () => {
    const visit = new Visit()
      .toMakeSafe()
      .carried('make-safe')
      .write('station-done', { station: 'make-safe' })
      .carried('open-up')
    expect(visit.run.tray.map((p) => p.id)).toEqual(['cover', 'cover-oring', 'check-1', 'check-2'])
    visit
      .write('station-done', { station: 'open-up' })
      .write('repair', { text: 'Wiped', parts: [] })
    expect(visit.write('station-done', { station: 'rebuild' }).refused?.why).toMatch(/left here/)
    visit.carried('rebuild')
    expect(visit.run.tray).toEqual([])
    expect(visit.write('station-done', { station: 'rebuild' }).refused).toBeNull()
  })
})

describe('hands on valves and hoses', () => {
  it('are followed, and forgotten when the next step begins', () => {
    const visit = new Visit()
    visit
      .write('valve-moved', { element: 'shutoff-2', to: 'shut' })
      .write('hose-moved', { hose: 'high', port: 'cock-2' })
    expect(visit.state).toMatchObject({
      valves: { 'shutoff-2': 'shut' },
      hoses: { high: 'cock-2' },
    })
    expect(visit.state.handsSinceStep).toHaveLength(2)
    expect(visit.write('hose-moved', { hose: 'high' }).state.hoses).toEqual({})
  })
  it.each([
    ['valve-moved', { element: 'bypass-cock-1', to: 'open' }, /no “bypass-cock-1”/],
    ['hose-moved', { hose: 'low', port: 'cock-9' }, /no “cock-9”/],
  ] as const)('%s of what the assembly does not have is refused', (kind, payload, words) => {
    expect(new Visit().write(kind, payload as never).refused?.why).toMatch(words)
  })
})
