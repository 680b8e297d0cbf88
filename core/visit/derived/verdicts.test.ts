import { describe, expect, it } from 'vitest'
import type { Requirement } from '../../rules'
import { Job, shippedLibrary } from '../../testing'
import {
  draftOf,
  type EventKind,
  finalRun,
  foldVisit,
  missingItems,
  outcomeOfRun,
  passedAsLeft,
  type PayloadOf,
  type RunName,
  verdictOf,
  type VisitEvent,
} from '..'

/** What reaches the judge of what stands in the log. */
const arrived = (kind: string, packId: string) =>
  new Job({
    family: kind === 'PVB' ? 'vacuum-breaker' : 'reduced-pressure-assembly',
    kind,
    packId,
  })
    .must('station-done', { station: 'prepare' })
    .must('identity', { outcome: 'confirmed' })
    .must('station-done', { station: 'arrive' })

/** A log with entries behind it that no guard has looked at, as a hostile or old device may send them. */
class Behind {
  readonly events: VisitEvent[]
  constructor(job: Job) {
    this.events = [...job.events]
  }
  add<K extends EventKind>(kind: K, payload: PayloadOf<K>, clock = '10:00'): this {
    const id = `018f0000-0000-7000-8001-${String(this.events.length).padStart(12, '0')}`
    const about = { id, deviceTime: `2026-06-01T${clock}:00.000Z`, deviceOffset: 0 }
    this.events.push({ ...draftOf(kind, payload, about), personId: 'p', personName: 'P' })
    return this
  }
  get state() {
    return foldVisit(this.events)
  }
  item(id: string, run: RunName = 'as-found') {
    return verdictOf(this.state, run, shippedLibrary)?.items.find((i) => i.id === id)
  }
}
const RP = () => arrived('RP', 'larkhaven-relief-first')
const check1 = (value: string, more: Partial<PayloadOf<'reading'>> = {}) =>
  ({
    run: 'as-found',
    item: 'check-1',
    dimension: 'differential',
    value,
    unit: 'psi',
    source: 'typed',
    ...more,
  }) as const
const about = ({
  id,
  title,
  requirement,
}: {
  id: string
  title: string
  requirement: Requirement
}) => ({
  id,
  title,
  requirement,
})
const startOf = (job: Job) => job.events.at(-1)?.payload as PayloadOf<'test-started'>

describe('of a reading the verdict knows', () => {
  const tested = () => new Behind(RP().startTest('as-found')).add('reading', check1('7.2'))
  it('how much the needle swung: it is the less sure', () => {
    const steady = tested().item('check-1')
    const swinging = tested()
      .add('reading', check1('7.2', { deviation: 0.4 }))
      .item('check-1')
    expect(Number(swinging?.expanded)).toBeGreaterThan(Number(steady?.expanded))
  })
  it('how fast it still moved: it is none', () => {
    const moving = tested().add('reading', check1('7.2', { driftPerMinute: -0.5 }))
    expect(moving.item('check-1')).toMatchObject({
      code: 'still-moving',
      params: { perMinute: '-0.500000' },
    })
    const resting = tested().add('reading', check1('7.2', { driftPerMinute: -0.05 }))
    expect(resting.item('check-1')?.code).not.toBe('still-moving')
  })
  it('how high the gauge was held above the port', () => {
    const job = arrived('PVB', 'larkhaven-relief-first').startTest('as-found')
    const { procedure } = { procedure: startOf(job).procedureId }
    const open = shippedLibrary.procedures
      .find((p) => p.id === procedure)
      ?.steps.find((s) => s.record?.head)?.record
    const read = (mm: string) =>
      new Behind(job)
        .add('reading', {
          ...check1('1.5'),
          item: open?.item ?? '',
          gaugeAbovePort: { value: mm, unit: 'mm' },
        })
        .item(open?.item ?? '')
    // 703.1 mm of water are 1 psi.
    expect(Number(read('703.1')?.corrected)).toBeCloseTo(2.5, 2)
    expect(read('0')?.corrected).toBeUndefined()
  })
})

describe('of a test the verdict knows', () => {
  const begunWith = (more: Partial<PayloadOf<'test-started'>>) => {
    const job = RP().startTest('as-found')
    const start = startOf(job)
    const behind = new Behind(job)
    behind.events.pop()
    return behind.add('test-started', { ...start, ...more }).add('reading', check1('7.2'))
  }
  it('that its gauge was out of calibration on the day', () => {
    const gauge = {
      ...startOf(RP().startTest('as-found')).instruments[0]!,
      calibrationUntil: '2026-05-31',
    }
    const item = begunWith({ instruments: [gauge] }).item('check-1')
    expect(item).toMatchObject({
      outcome: 'not-assessed',
      code: 'out-of-calibration',
      params: { on: '2026-06-01' },
    })
    const lastDay = { ...gauge, calibrationUntil: '2026-06-01' }
    expect(begunWith({ instruments: [lastDay] }).item('check-1')?.code).not.toBe(
      'out-of-calibration',
    )
  })
  it('the pressure in the line, above which nothing can be read', () => {
    const linePressure = { dimension: 'gaugePressure', value: '6', unit: 'psi' } as const
    expect(begunWith({ linePressure }).item('check-1')?.code).toBe('impossible')
    expect(begunWith({}).item('check-1')?.code).not.toBe('impossible')
  })
})

describe('of the equipment the verdict knows', () => {
  it('its nominal values, of which a reading may be held to a percentage', () => {
    const library = {
      ...shippedLibrary,
      rulePacks: shippedLibrary.rulePacks.map((pack) => ({
        ...pack,
        tests: pack.tests.map((t) => ({
          ...t,
          items: t.items.map((i) =>
            i.id === 'check-1'
              ? ({ ...about(i), basis: 'percent', of: 'set-point', below: 10, above: 10 } as const)
              : i,
          ),
        })),
      })),
    }
    const judged = (nominals: { name: 'set-point'; value: object }[]) => {
      const behind = new Behind(RP().startTest('as-found')).add('reading', check1('7.2'))
      const [planned, ...rest] = behind.events as [VisitEvent<'planned'>, ...VisitEvent[]]
      const equipment = {
        ...planned.payload.equipment,
        nominals,
      } as typeof planned.payload.equipment
      const events = [{ ...planned, payload: { ...planned.payload, equipment } }, ...rest]
      const verdict = verdictOf(foldVisit(events as VisitEvent[]), 'as-found', library)
      const item = verdict?.items.find((i) => i.id === 'check-1')
      return item?.limit
    }
    const set = (value: string) => [
      { name: 'set-point' as const, value: { dimension: 'differential', value, unit: 'psi' } },
    ]
    // The end that is nearer to 7.2 psid: 10 % over 7, 10 % over 5, and none without a set point.
    expect([judged(set('7.0')), judged(set('5.0')), judged([])]).toEqual(['7.7', '5.5', undefined])
  })
  it('when it was repaired last: what was read before is no longer true', () => {
    const leftAt = (clock: string) => {
      const job = RP().startTest('as-found')
      return new Behind(job)
        .add('repair', { text: 'Check 1 cleaned', parts: [] }, '09:30')
        .add('test-started', { ...startOf(job), run: 'as-left' }, '08:50')
        .add('reading', { ...check1('7.2'), run: 'as-left' }, clock)
        .item('check-1', 'as-left')
    }
    expect(['before-repair', 'before-test-began']).toContain(leftAt('09:00')?.code)
    expect(leftAt('10:00')?.code).not.toBe('before-repair')
    expect(leftAt('10:00')?.code).not.toBe('before-test-began')
  })
})

describe('a test that was not made', () => {
  it('has no verdict, no outcome and nothing that is missing', () => {
    const { state } = new Behind(RP())
    expect(verdictOf(state, 'as-found', shippedLibrary)).toBeNull()
    expect(outcomeOfRun(state, 'as-found', shippedLibrary)).toBeNull()
    expect(missingItems(state, 'as-found', shippedLibrary)).toEqual([])
  })
  it('is missing from a log without a plan as well', () => {
    const empty = foldVisit([])
    expect(verdictOf(empty, 'as-found', shippedLibrary)).toBeNull()
    expect(outcomeOfRun(empty, 'as-left', shippedLibrary)).toBeNull()
    expect(finalRun(empty)).toBeNull()
    // A run without a plan, as a damaged log may have it.
    const orphan = new Behind(RP().startTest('as-found')).events.slice(-1)
    expect(verdictOf(foldVisit(orphan), 'as-found', shippedLibrary)).toBeNull()
    expect(missingItems(foldVisit(orphan), 'as-found', shippedLibrary)).toEqual([])
  })
})

describe('the run on which a certificate rests', () => {
  const found = () =>
    new Behind(RP().startTest('as-found'))
      .add('test-finished', { run: 'as-found' })
      .add('station-done', { station: 'as-found', skipTo: 'return' })
  it('is as-found where nothing was opened', () => {
    expect(finalRun(found().state)).toBe('as-found')
  })
  it('is none until it was tested again, once something was repaired', () => {
    const repaired = found().add('repair', { text: 'Relief cleaned after all', parts: [] })
    expect(finalRun(repaired.state)).toBeNull()
  })
})

describe('as-left', () => {
  it('has passed where the pass is uncertain, and not where it fails', () => {
    const passed = (kPa: string) => {
      const job = arrived('RP', 'larkhaven-metric-zone').startTest('as-found')
      const behind = new Behind(job).add('test-started', { ...startOf(job), run: 'as-left' })
      const { procedureId } = startOf(job)
      const steps = shippedLibrary.procedures.find((p) => p.id === procedureId)?.steps ?? []
      for (const { record } of steps) {
        if (record?.answers)
          behind.add('answer', {
            run: 'as-left',
            item: record.item,
            answer: record.answers[0]!.id,
            label: record.answers[0]!.label,
          })
        else if (record)
          behind.add('reading', {
            ...check1(record.item === 'check-1' ? kPa : (Number(kPa) - 0.05).toFixed(2)),
            run: 'as-left',
            item: record.item,
            unit: 'kPa',
          })
      }
      const { state } = behind.add('test-finished', { run: 'as-left' })
      return [
        verdictOf(state, 'as-left', shippedLibrary)?.items.find((i) => i.id === 'check-1')?.outcome,
        passedAsLeft(state, shippedLibrary),
      ]
    }
    expect(passed('50')).toEqual(['pass', true])
    expect(passed('14.1')).toEqual(['pass-uncertain', true])
    expect(passed('10')).toEqual(['fail', false])
  })
})
