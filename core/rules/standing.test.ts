import { isAssemblyKind } from '../apparatus/backflow'
import { describe, expect, it } from 'vitest'
import { testPlanOf } from '../library'
import { shippedLibrary } from '../testing/library'
import { answerOf as said, readingOf as psi, testGauge as gauge } from '../testing/readings'
import { type Answer, impossible, judgeTest, type Reading, type TestRun } from '.'

type Entry = Reading | Answer
const isReading = (e: Entry): e is Reading => 'value' in e

/** A run as a visit folds it: entries in the order in which they were made, the last ones standing. */
function judge(pack: string, kind: string, entries: Entry[], more: Partial<TestRun> = {}) {
  const standing = entries.filter((e, n) => !entries.slice(n + 1).some((f) => f.item === e.item))
  return judgeTest(testPlanOf(shippedLibrary, pack, kind), {
    readings: entries.filter(isReading),
    answers: entries.filter((e): e is Answer => !isReading(e)),
    order: standing.map((e) => e.item),
    channels: [gauge],
    ...more,
  })
}
const item = (verdict: ReturnType<typeof judge>, id: string) => {
  const found = verdict.items.find((i) => i.id === id)
  if (!found) throw new Error(id)
  return found
}

const reliefFirst = (...later: Entry[]) => [
  said('relief-at-rest', 'dry'),
  said('shutoff-2', 'tight'),
  psi('relief-opening', '2.4'),
  said('check-2', 'held'),
  psi('check-1', '7.2'),
  ...later,
]
const RELIEF_FIRST = ['larkhaven-relief-first', 'RP'] as const
const checkFirst = (...later: Entry[]) => [
  said('relief-at-rest', 'dry'),
  psi('check-1', '7.2'),
  said('shutoff-2', 'tight'),
  said('check-2', 'held'),
  psi('check-2-flow', '2.0'),
  psi('relief-opening', '2.4'),
  ...later,
]
const CHECK_FIRST = ['larkhaven-check-first', 'RP'] as const
/** What a reading becomes among the entries of a run. */
const withReading = (entries: Entry[], reading: Reading) =>
  entries.map((e) => (e.item === reading.item ? reading : e))

describe('the last answer stands', () => {
  it('a check that drips a minute later has leaked', () => {
    for (const after of [[], [psi('check-1', '7.2')]]) {
      const verdict = judge(...RELIEF_FIRST, reliefFirst(said('check-2', 'leaked'), ...after))
      expect(item(verdict, 'check-2')).toMatchObject({ outcome: 'fail', answer: 'leaked' })
      expect(verdict.outcome).toBe('fail')
    }
  })
  it('a shutoff that leaks after all takes the meaning of what it disturbs', () => {
    const verdict = judge(...RELIEF_FIRST, reliefFirst(said('shutoff-2', 'leaks')))
    expect(verdict.outcome).toBe('not-assessed')
    const disturbed = ['relief-opening', 'check-1', 'check-2']
    for (const id of disturbed) expect(item(verdict, id).outcome).toBe('not-assessed')
    expect(item(verdict, 'relief-at-rest').outcome).toBe('pass')
  })
  it('and one that was mended in between does not count against it', () => {
    const entries = [said('relief-at-rest', 'drips'), ...reliefFirst()]
    expect(judge(...RELIEF_FIRST, entries).outcome).toBe('pass')
  })
})

describe('order is that of the readings and answers that stand', () => {
  it('check first: a check read again after the relief opened is not assessed', () => {
    const first = withReading(checkFirst(), psi('check-1', '4.1'))
    expect(judge(...CHECK_FIRST, first).outcome).toBe('fail')
    const verdict = judge(...CHECK_FIRST, [...first, psi('check-1', '6.5')])
    expect(verdict.outcome).toBe('not-assessed')
    expect(item(verdict, 'check-1').reason).toMatch(
      /taken after relief valve opening.*take again, in this order, check 1 differential, then relief valve opening/,
    )
    const again = [...first, psi('check-1', '6.5'), psi('relief-opening', '2.4')]
    expect(judge(...CHECK_FIRST, again).outcome).toBe('pass')
  })
  it('check first: everything taken again in the right order clears an early relief opening', () => {
    const wrong = [psi('relief-opening', '2.4'), ...checkFirst().slice(0, -1)]
    expect(judge(...CHECK_FIRST, wrong).outcome).toBe('not-assessed')
    expect(judge(...CHECK_FIRST, [...wrong, ...checkFirst()]).outcome).toBe('pass')
  })
  it('relief first: a relief opened after the checks is out of order, and says what to take again', () => {
    const verdict = judge(...RELIEF_FIRST, reliefFirst(psi('relief-opening', '2.5')))
    expect(verdict.outcome).toBe('not-assessed')
    expect(item(verdict, 'relief-opening').reason).toMatch(
      /in this order, relief valve opening, then check 2 against back-pressure, then check 1 differential/,
    )
    const again = reliefFirst(
      psi('relief-opening', '2.5'),
      said('check-2', 'held'),
      psi('check-1', '7.0'),
    )
    expect(judge(...RELIEF_FIRST, again).outcome).toBe('pass')
  })
  it('is not assessed where it is not said', () => {
    const verdict = judge(...RELIEF_FIRST, reliefFirst(), { order: ['relief-opening', 'check-1'] })
    expect(verdict.outcome).toBe('not-assessed')
    expect(item(verdict, 'check-2').code).toBe('order-unknown')
  })
})

describe('an impossible reading is not assessed', () => {
  it.each([
    ['beyond the scale', psi('check-1', '48'), {}, /48 psid on a gauge that ends at 15 psi/],
    ['beyond it in another unit', psi('check-1', '110', { unit: 'kPa' }), {}, /110 kPa on a gauge/],
    ['below zero', psi('check-1', '-0.5'), {}, /below zero/],
    [
      'above the line pressure',
      psi('check-1', '12.0'),
      { linePressure: { dimension: 'gaugePressure', value: '80', unit: 'kPa' } },
      /above the line pressure of 80 kPa/,
    ],
  ] as const)('%s', (_, reading, more, says) => {
    const verdict = judge(...RELIEF_FIRST, withReading(reliefFirst(), reading), more)
    expect(item(verdict, 'check-1').outcome).toBe('not-assessed')
    expect(item(verdict, 'check-1').reason).toMatch(says)
    expect(verdict.outcome).toBe('not-assessed')
  })
  it('on the end of the scale and at the line pressure it is still one', () => {
    const at = (value: string, more = {}) =>
      judge(...RELIEF_FIRST, withReading(reliefFirst(), psi('check-1', value)), more).outcome
    expect(at('15.0')).toBe('pass')
    expect(
      at('12.0', { linePressure: { dimension: 'gaugePressure', value: '12.0', unit: 'psi' } }),
    ).toBe('pass')
  })
  it.each([
    ['48', 'psi', '4.8'],
    ['52.0', 'psi', '5.20'],
    ['-5.4', 'psi', '5.4'],
    ['720', 'psi', '7.20'],
    ['999999', 'psi', undefined],
  ])('asks whether %s %s was meant as %s', (value, unit, meant) => {
    const doubt = impossible({ dimension: 'differential', value, unit }, { channel: gauge })
    expect(doubt?.meant).toBe(meant)
  })
  it.each([
    ['frequency', '-3', '/min', '3'],
    ['time', '0', 's', undefined],
    ['time', '-9.9', 's', '9.9'],
    ['length', '-3', 'mm', '3'],
    ['volume', '-1', 'mL', '1'],
    ['liquidFlow', '-2', 'gpm', '2'],
    ['torque', '-12', 'N·m', '12'],
    ['temperature', '-400', '°C', '400'],
    ['temperature', '4000', '°C', '400.0'],
    ['fraction', '400', '%', '40.0'],
    ['current', '40', 'mA', '4.0'],
  ] as const)('of any quantity: %s of %s %s, meant %s', (dimension, value, unit, meant) => {
    const doubt = impossible({ dimension, value, unit }, {})
    expect(doubt).not.toBeNull()
    expect(doubt?.meant).toBe(meant)
  })
  it.each([
    ['frequency', '0', '/min'],
    ['time', '0.1', 's'],
    ['length', '0', 'mm'],
    ['temperature', '-40', '°C'],
    ['fraction', '-5', '%'],
    ['fraction', '105', '%'],
    ['current', '4', 'mA'],
  ] as const)('takes %s of %s %s', (dimension, value, unit) =>
    expect(impossible({ dimension, value, unit }, {})).toBeNull(),
  )
  it('bounds a reading by the range of its channel, whatever its quantity', () => {
    const channel = {
      id: 't',
      dimension: 'temperature',
      from: -20,
      span: 120,
      unit: '°C',
      percent: 1,
      of: 'span',
    } as const
    const at = (value: string) =>
      impossible({ dimension: 'temperature', value, unit: '°C' }, { channel })
    expect([at('-20'), at('100')]).toEqual([null, null])
    expect([at('-21'), at('101')].map((d) => d === null)).toEqual([false, false])
  })
  it('takes what is within its bounds', () => {
    expect(impossible({ dimension: 'differential', value: '0.0', unit: 'psi' }, {})).toBeNull()
  })
})

describe('not assessed carries on', () => {
  it('a buffer of two readings that contradict each other', () => {
    const entries = withReading(
      withReading(checkFirst(), psi('check-1', '5.7')),
      psi('relief-opening', '6.5'),
    )
    const verdict = judge(...CHECK_FIRST, entries)
    expect(item(verdict, 'buffer')).toMatchObject({ outcome: 'not-assessed', simple: 'fail' })
    expect(item(verdict, 'buffer')).toMatchObject({
      code: 'rests-on-blocked',
      params: { item: 'check-1' },
    })
    expect(verdict.outcome).toBe('not-assessed')
  })
  it('a detector margin whose readings were stamped before the repair', () => {
    const takenAt = '2026-01-01T10:00:00.000Z'
    const verdict = judge(
      'larkhaven-check-first',
      'DCDA',
      [
        said('shutoff-2', 'tight'),
        psi('check-1', '1.0', { takenAt }),
        psi('check-2', '2.8', { takenAt }),
        said('bypass-shutoff-2', 'tight'),
        psi('bypass-check-1', '2.0', { takenAt }),
        psi('bypass-check-2', '1.8', { takenAt }),
        said('bypass-meter', 'turns'),
      ],
      { notBefore: '2026-01-01T10:30:00.000Z' },
    )
    expect(item(verdict, 'detector-margin').outcome).toBe('not-assessed')
    expect(verdict.outcome).toBe('not-assessed')
  })
  it('and stays in the advisory note of no verdict', () => {
    const entries = withReading(reliefFirst(), psi('relief-opening', '-16.8'))
    expect(judge(...RELIEF_FIRST, entries).reason).not.toMatch(/Advisory/)
  })
})

describe('what disturbs a reading takes its meaning', () => {
  const atmospheric = (cock3: string, cock4: string) =>
    judge('larkhaven-relief-first', 'DC', [
      said('shutoff-2', 'tight'),
      psi('check-1', '4.6', { gaugeAbovePortM: 0 }),
      said('cock-3-stopped', cock3),
      psi('check-2', '2.0', { gaugeAbovePortM: 0 }),
      said('cock-4-stopped', cock4),
    ])
  it('a cock that runs on: shutoff 1 leaks, and the broken check reads its flow', () => {
    expect(atmospheric('stopped', 'stopped').outcome).toBe('pass')
    const verdict = atmospheric('runs-on', 'stopped')
    expect(verdict.outcome).toBe('not-assessed')
    expect(item(verdict, 'check-1').code).toBe('invalidated')
    expect(item(verdict, 'check-2').outcome).toBe('pass')
    expect(item(verdict, 'cock-3-stopped')).toMatchObject({
      requirement: 'recorded',
      reason: 'Cock 3 runs on, which a tight shutoff 1 would not let it',
    })
  })
  it.each(['PVB', 'SVB'])('%s: either shutoff', (kind) => {
    const entries = (one: string, two: string) => [
      said('shutoff-2', two),
      psi('air-inlet', '0.0', { gaugeAbovePortM: 0 }),
      said('air-inlet-open', 'part'),
      said('shutoff-1', one),
      psi('check', '2.0', { gaugeAbovePortM: 0 }),
      said(kind === 'PVB' ? 'cock-2-stopped' : 'vent-stopped', 'stopped'),
    ]
    const of = (one: string, two: string) =>
      judge('larkhaven-relief-first', kind, entries(one, two))
    expect(of('stopped', 'tight').outcome).toBe('fail')
    expect(of('runs-on', 'tight').outcome).toBe('not-assessed')
    expect(of('stopped', 'leaks').outcome).toBe('not-assessed')
  })
  it('every test of every pack judges each shutoff, cock and relief that its procedure asks about', () => {
    const asked = ['shutoff-tight', 'water-stops', 'relief-dry']
    for (const pack of shippedLibrary.rulePacks) {
      for (const { kind } of pack.tests.filter((t) => isAssemblyKind(t.kind))) {
        const { test, procedure } = testPlanOf(shippedLibrary, pack.id, kind)
        const disturbing = procedure.steps.filter((s) => asked.includes(s.record?.observe ?? ''))
        expect(disturbing.length, `${pack.id} ${kind}`).toBeGreaterThan(0)
        for (const { record } of disturbing) {
          const found = test.items.find((i) => i.id === record?.item)
          expect(found?.invalidates?.length, `${pack.id} ${kind} ${record?.item}`).toBeGreaterThan(
            0,
          )
        }
      }
    }
  })
  it('a question that was never answered leaves what depends on it open', () => {
    const verdict = judge(
      ...RELIEF_FIRST,
      reliefFirst().filter((e) => e.item !== 'shutoff-2'),
    )
    expect(verdict.outcome).toBe('not-assessed')
    expect(item(verdict, 'check-1')).toMatchObject({
      code: 'invalidated',
      params: { item: 'shutoff-2' },
    })
  })
})

describe('a needle that still moves', () => {
  const falling = (value: string, driftPerMinute: number) =>
    judge(...RELIEF_FIRST, withReading(reliefFirst(), psi('check-1', value, { driftPerMinute })))
  it('is no reading while it is over the limit', () => {
    expect(falling('6.7', -0.4).outcome).toBe('not-assessed')
    for (const perMinute of [-0.4, 0.4])
      expect(item(falling('6.7', perMinute), 'check-1')).toMatchObject({
        code: 'still-moving',
        params: { perMinute: perMinute.toFixed(6) },
      })
  })
  it('has failed once it is under it, wherever it comes to rest', () => {
    expect(falling('4.9', -0.4).outcome).toBe('fail')
    expect(falling('4.9', 0.4).outcome).toBe('not-assessed')
  })
  it('rests within what the procedure allows', () =>
    expect(falling('6.7', -0.1).outcome).toBe('pass'))
})

describe('a reading of another kind than is asked for', () => {
  it.each([
    ['gauge pressure', { dimension: 'gaugePressure', value: '65', unit: 'psi' }],
    ['a torque', { dimension: 'torque', value: '65', unit: 'lbf·in' }],
    ['a height with both hoses on', { value: '4.5', gaugeAbovePortM: 0.5 }],
  ] as const)('%s is not assessed', (_, more) => {
    const verdict = judge(...RELIEF_FIRST, withReading(reliefFirst(), psi('check-1', '6', more)))
    expect(item(verdict, 'check-1').outcome).toBe('not-assessed')
    expect(item(verdict, 'buffer').outcome).toBe('not-assessed')
    expect(verdict.outcome).toBe('not-assessed')
  })
  it('an answer that the step does not know is not assessed', () => {
    const verdict = judge(
      ...RELIEF_FIRST,
      reliefFirst(said('check-2', 'banana'), psi('check-1', '7')),
    )
    expect(item(verdict, 'check-2').outcome).toBe('not-assessed')
  })
})

describe('a sentence lets the miss be seen', () => {
  const dc = (value: string, unit: string) =>
    item(
      judge('larkhaven-check-first', 'DC', [
        said('shutoff-2', 'tight'),
        psi('check-1', value, { unit }),
        psi('check-2', '2.0'),
      ]),
      'check-1',
    )
  it.each([
    ['27.6', 'inH2O', 'fail'],
    ['27.7', 'inH2O', 'pass'],
    ['6.89', 'kPa', 'fail'],
    ['703', 'mmH2O', 'fail'],
    ['704', 'mmH2O', 'pass'],
    ['0.068', 'bar', 'fail'],
  ])('%s %s: %s', (value, unit, outcome) => {
    const { reason, margin, limit, outcome: came } = dc(value, unit)
    expect(came).toBe(outcome)
    expect(Number(margin)).not.toBe(0)
    expect(Number(limit)).not.toBe(Number(value))
    expect(reason).not.toMatch(/ is 0 (under|over)/)
  })
  it('says why an outcome within the uncertainty is uncertain', () => {
    const zone = (value: string) =>
      item(
        judge('larkhaven-metric-zone', 'RP', [
          said('relief-at-rest', 'dry'),
          said('shutoff-2', 'tight'),
          psi('check-1', '52.0', { unit: 'kPa' }),
          said('check-2', 'held'),
          psi('relief-opening', value, { unit: 'kPa' }),
        ]),
        'relief-opening',
      ).code
    expect(zone('13.9')).toBe('beyond-uncertainty')
    expect(zone('14.1')).toBe('within-uncertainty')
  })
  it('puts the unit behind every number', () => {
    const verdict = judge('larkhaven-relief-first', 'DC', [
      said('shutoff-2', 'tight'),
      psi('check-1', '0.069', { unit: 'bar', gaugeAbovePortM: -0.38 }),
      said('cock-3-stopped', 'stopped'),
      psi('check-2', '2.0', { gaugeAbovePortM: 0 }),
      said('cock-4-stopped', 'stopped'),
    ])
    expect(item(verdict, 'check-1').reason).toMatch(
      /^0\.0317 bar \(shown 0\.069 bar, head corrected\) is/,
    )
  })
})
