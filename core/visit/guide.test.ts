import { describe, expect, it } from 'vitest'
import { type Guide, type InspectionVerdict } from '../guide'
import { Job, type JobOptions } from '../testing/job'
import { shippedLibrary } from '../testing/library'
import {
  type EventDraft,
  guard,
  kitDoubts,
  outcomeOf,
  type PayloadOf,
  runOfGuide,
  settingAsFound,
  slotFigure,
  standingAfter,
  temporaryUntil,
  workDone,
} from '.'

const guide = (id: string) => shippedLibrary.guides.find((g) => g.id === id) as Guide
const tower = guide('tower-double-check')
const PACK = 'larkhaven-relief-first'
const visit = (options: Partial<JobOptions> = {}) =>
  new Job({ family: 'tower-double-check', kind: 'DC', packId: PACK, ...options })
const chosen = (options: Partial<JobOptions> = {}) => visit(options).choose(tower, 'usual')
/** As far as the parts: made safe, opened. */
const opened = (options: Partial<JobOptions> = {}) =>
  chosen(options).toMakeSafe().carryOut('make-safe').done('make-safe')

describe('choosing a guide', () => {
  const { version } = tower
  it.each<[PayloadOf<'guide-chosen'>, string]>([
    [{ guideId: 'nobody', version: 1, variant: 'usual' }, 'guide-unknown'],
    [{ guideId: 'spool-valve', version: 1, variant: 'usual' }, 'guide-other-family'],
    [
      { guideId: 'tower-double-check', version: 99, variant: 'usual' },
      'guide-version-not-in-force',
    ],
    [{ guideId: 'tower-double-check', version, variant: 'odd' }, 'variant-unknown'],
    [
      {
        guideId: 'tower-double-check',
        version,
        variant: 'usual',
        sheet: { id: 'a-spool-valve', version: 1 },
      },
      'sheet-not-in-force',
    ],
  ])('%o is refused', (payload, code) => {
    expect(visit().write('guide-chosen', payload).refused?.code).toBe(code)
  })
  it('is changed while nothing is opened, and not any more once the equipment is shut in by it', () => {
    const payload = { guideId: tower.id, version, variant: 'usual' }
    const looked = chosen().must('guide-step', { step: '1.1', at: 'prepare' })
    expect(looked.write('guide-chosen', payload).refused).toBeNull()
    // Its steps begin anew.
    expect(looked.state.guideSteps).toEqual([])
    const job = chosen().toMakeSafe().carryOut('make-safe')
    expect(job.write('guide-chosen', payload).refused?.code).toBe('guide-begun')
  })
  it('keeps the version it was begun with when another comes into force', () => {
    const job = chosen()
    const later = { ...tower, version: version + 1, steps: tower.steps.slice(0, 1) }
    const kept = { guide: tower, subGuides: shippedLibrary.subGuides }
    const library = {
      ...shippedLibrary,
      guides: [later],
      earlier: { ...shippedLibrary.earlier, guides: [kept] },
    }
    const before = runOfGuide(job.state, shippedLibrary)?.steps.length
    expect(runOfGuide(job.state, library)?.steps.length).toBe(before)
    expect(runOfGuide(job.state, { ...library, earlier: shippedLibrary.earlier })).toBeNull()
  })
})

describe('carrying it out', () => {
  it('goes in order; what comes before is named', () => {
    const job = chosen().write('guide-step', { step: '1.3', at: 'prepare' })
    expect(job.refused?.code).toBe('step-out-of-order')
  })
  it('or out of order with a reason, which stays on record', () => {
    const step = { step: '1.3', at: 'prepare', departure: 'Tools were laid out first' } as const
    const job = chosen().must('guide-step', step)
    expect(job.state.guideSteps[0]?.departure).toBe('Tools were laid out first')
  })
  it('a station is not finished while steps are left', () => {
    const job = chosen().takeKit().write('station-done', { station: 'prepare' })
    expect(job.refused?.code).toBe('steps-left')
    expect(job.carryOut('prepare').write('station-done', { station: 'prepare' }).refused).toBeNull()
  })
  it('a step of another station is refused', () => {
    const later = chosen().run.steps.find((s) => s.at === 'open-up')
    const job = chosen().write('guide-step', { step: later?.id ?? '', at: 'open-up' })
    expect(job.refused?.code).toBe('step-other-station')
  })
  it('a figure of the sheet holds; one that no sheet has is wanted with its source', () => {
    const withSheet = chosen()
    expect(slotFigure(withSheet.state, shippedLibrary, 'cover-bolt-count')).toMatchObject({
      value: '8',
      source: expect.stringMatching(/Maker B service sheet/) as string,
    })
    const bare = visit().choose(tower, 'usual', false).toMakeSafe().carryOut('make-safe')
    bare.done('make-safe').carryOut('open-up', (s) => s.loosen === 'cover-bolts')
    const step = bare.due('open-up')?.id ?? ''
    expect(bare.write('guide-step', { step, at: 'open-up' }).refused?.code).toBe('figure-missing')
    bare.must('guide-value', { slot: 'cover-bolt-count', value: '8', source: 'Sheet, page 4' })
    expect(bare.write('guide-step', { step, at: 'open-up' }).refused).toBeNull()
  })
  it('ends with an empty tray, and only then is Rebuild finished', () => {
    const job = opened().carryOut('open-up')
    expect(job.run.tray.map((p) => p.id)).toEqual([
      'washers',
      'cover',
      'cover-oring',
      'check-1',
      'seat-ring-1',
      'check-2',
      'seat-ring-2',
    ])
    job.done('open-up').must('repair', { text: 'Wiped', parts: [] })
    expect(job.write('station-done', { station: 'rebuild' }).refused?.code).toBe('steps-left')
    job.carryOut('rebuild').closeKit()
    expect(job.run.tray).toEqual([])
    expect(job.write('station-done', { station: 'rebuild' }).refused).toBeNull()
  })
  it('is taken up again from an earlier step when a check fails', () => {
    const job = opened().carryOut('open-up')
    const from = job.run.steps.find((s) => s.remove === 'cover')?.id ?? ''
    const before = job.state.guideSteps.length
    job.must('guide-redo', { from, reason: 'The cover jammed' })
    expect(job.due('open-up')?.id).toBe(from)
    expect(job.state.guideSteps.length).toBeLessThan(before)
    expect(job.run.tray.map((p) => p.id)).toEqual(['washers'])
    expect(job.write('guide-redo', { from: '1.1', reason: 'Again' }).refused?.code).toBe(
      'step-not-done',
    )
  })
  it('leads from Rebuild back to the open parts, and to nothing before them', () => {
    const job = opened().carryOut('open-up').done('open-up')
    job.must('repair', { text: 'Wiped', parts: [] }).carryOut('rebuild', (s) => s.fit === 'cover')
    const lifted = job.run.steps.find((s) => s.remove === 'check-2')?.id ?? ''
    const vented = job.run.steps.find((s) => s.vent)?.id ?? ''
    expect(job.write('guide-redo', { from: vented, reason: 'Wrong way' }).refused?.code).toBe(
      'step-not-done',
    )
    job.must('guide-redo', { from: lifted, reason: 'The towers are exchanged' })
    expect(job.state.done).not.toContain('open-up')
    expect(job.state.done).toContain('make-safe')
    expect(job.due('open-up')?.id).toBe(lifted)
    expect(job.run.tray.map((p) => p.id)).not.toContain('check-2')
    expect(job.run.tray.map((p) => p.id)).toContain('cover')
    // Once it is under pressure again the way back is by a test that failed.
    const later = opened().carryOut('open-up').done('open-up')
    later.must('repair', { text: 'Wiped', parts: [] }).carryOut('rebuild').closeKit()
    later.done('rebuild')
    expect(later.write('guide-redo', { from: lifted, reason: 'x' }).refused?.code).toBe(
      'step-not-done',
    )
  })
  it('goes back to a pressure that is proved anew when the as-left test fails', () => {
    const job = chosen().toMakeSafe().toAsLeft()
    job.must('reopened', { reason: 'It still leaks' })
    expect(job.due('make-safe')).not.toBeNull()
    expect(job.state.proofs).toEqual([])
  })
})

describe('an inspection', () => {
  const atDisc = (options: Partial<JobOptions> = {}) =>
    opened(options).carryOut('open-up', (s) => s.inspect === 'disc-1')
  const found = (finding: InspectionVerdict, defects: string[], departure?: string) => {
    const job = atDisc()
    return job.write('guide-step', {
      step: job.due('open-up')?.id ?? '',
      at: 'open-up',
      finding,
      defects,
      ...(departure ? { departure } : {}),
    }).refused
  }
  it('wants a finding of its list', () => {
    expect(found('renew-body', [])?.code).toBe('finding-missing')
  })
  it('takes defects of its closed list only', () => {
    expect(found('renew', ['ugly'])?.code).toBe('defect-unknown')
  })
  it('cleans what is only fouled, renews what is damaged', () => {
    expect(found('clean', ['debris'])).toBeNull()
    expect(found('renew', ['debris', 'cut'])).toBeNull()
    expect(found('clean', ['cut'])?.code).toBe('against-policy')
    expect(found('renew', ['debris'])?.code).toBe('against-policy')
  })
  it('departs from the policy with a reason', () => {
    expect(found('renew', ['debris'], 'Kit open anyway')).toBeNull()
  })
  it('that ends the work lets nothing follow but a stop', () => {
    const job = opened({ defects: { 'disc-1': ['debris'] } }).carryOut(
      'open-up',
      (s) => s.inspect === 'seat-1',
    )
    const step = job.due('open-up')?.id ?? ''
    job.must('guide-step', { step, at: 'open-up', finding: 'order', defects: ['nick'] })
    const next = job.due('open-up')?.id ?? ''
    expect(job.write('guide-step', { step: next, at: 'open-up' }).refused?.code).toBe('work-halted')
    const order = { what: 'Seat of check 1', comeBackOn: '2026-07-01' }
    expect(job.write('stopped', { reason: 'Seat damaged', order }).refused).toBeNull()
  })
})

describe('what a step proves by itself', () => {
  const regulator = () =>
    new Job({ family: 'sleeve-pilot-regulator', kind: 'pilot regulator' })
      .choose(guide('sleeve-regulator-actuator'), 'spring-to-close')
      .toMakeSafe()
      .carryOut('make-safe')
      .done('make-safe')
      .carryOut('open-up')
      .done('open-up')
      .carryOut('rebuild', (s) => s.steps?.some((i) => i.untilNoneMoves) ?? false)
  it('rounds go on until no screw moves, and at least as often as the sheet says', () => {
    const job = regulator()
    const step = job.due('rebuild')?.id ?? ''
    const done = () => job.write('guide-step', { step, at: 'rebuild' }).refused
    expect(done()?.code).toBe('rounds-too-few')
    for (let n = 0; n < 5; n++) job.must('guide-round', { step, moved: true })
    expect(done()?.code).toBe('rounds-still-moving')
    job.must('guide-round', { step, moved: false })
    expect(done()).toBeNull()
  })
  it('a waiting time passes before the step is done', () => {
    const job = new Job({ family: 'pulse-valve', kind: 'pulse valve' })
      .choose(guide('pulse-valve'), 'usual')
      .toMakeSafe()
      .carryOut('make-safe')
      .done('make-safe')
      .carryOut('open-up')
      .done('open-up')
      .carryOut('rebuild', (s) => s.hold === 'sizing-minutes')
    const step = job.due('rebuild')?.id ?? ''
    const done = () => job.write('guide-step', { step, at: 'rebuild' }).refused
    expect(done()?.code).toBe('timer-not-started')
    expect(job.write('guide-round', { step, moved: false }).refused?.code).toBe(
      'step-without-rounds',
    )
    job.must('guide-timer', { step }).wait(4)
    expect(done()?.code).toBe('timer-running')
    job.wait(6)
    expect(done()).toBeNull()
  })
  it('unequal throws say that the shaft is in backwards', () => {
    const job = new Job({ family: 'shuttle-valve', kind: 'transfer valve' })
      .choose(guide('shuttle-valve'), 'usual')
      .toMakeSafe()
      .carryOut('make-safe')
      .done('make-safe')
      .carryOut('open-up')
      .done('open-up')
      .carryOut('rebuild', (s) => s.measure === 'throws')
    const step = job.due('rebuild')?.id ?? ''
    const thrown = (one: string, other: string) =>
      job.write('guide-step', {
        step,
        at: 'rebuild',
        throws: { one: { value: one, unit: 'mm' }, other: { value: other, unit: 'mm' } },
      }).refused
    expect(job.write('guide-step', { step, at: 'rebuild' }).refused?.code).toBe('throws-missing')
    expect(thrown('0', '0')?.code).toBe('throws-zero')
    expect(thrown('30', '18')?.code).toBe('throws-unequal')
    expect(thrown('30', '29')).toBeNull()
  })
})

describe('a setting', () => {
  const regulator = () =>
    new Job({ family: 'spring-regulator', kind: 'spring regulator' }).choose(
      guide('spring-regulator'),
      'gas',
    )
  it('is written down as found, and shown where it is restored', () => {
    const job = regulator().takeKit().carryOut('prepare').done('prepare')
    job.must('identity', { outcome: 'confirmed' }).carryOut('arrive', (s) => Boolean(s.snapshot))
    const step = { step: job.due('arrive')?.id ?? '', at: 'arrive' } as const
    expect(job.write('guide-step', step).refused?.code).toBe('setting-missing')
    job.must('guide-step', { ...step, setting: '4 turns' })
    const restore = job.run.steps.find((s) => s.restore)
    expect(restore && settingAsFound(job.state, job.run, restore)).toBe('4 turns')
  })
})

describe('qualified work', () => {
  it('is confirmed by whoever holds the licence, or by somebody beside him with a reason', () => {
    const job = new Job({ family: 'spring-regulator', kind: 'spring regulator' })
      .choose(guide('spring-regulator'), 'gas')
      .toMakeSafe()
      .carryOut('make-safe', (s) => s.gate === 'qualified')
    const step = { step: job.due('make-safe')?.id ?? '', at: 'make-safe' } as const
    const unlicensed = { ...job.context, person: { roles: ['technician'], licences: [] } }
    const ask = (payload: PayloadOf<'guide-step'>) => {
      const last = job.events.at(-1)
      const draft = { ...last, id: 'x', kind: 'guide-step', payload } as unknown as EventDraft
      return guard(job.log, draft, unlicensed)
    }
    expect(ask(step)?.code).toBe('license-needed')
    expect(ask({ ...step, departure: 'Teo, GR-0655, stands beside me' })).toBeNull()
    expect(job.write('guide-step', step).refused).toBeNull()
  })
})

describe('a temporary repair', () => {
  const turnedOver = () =>
    new Job({
      family: 'double-check-detector',
      kind: 'DCDA',
      packId: PACK,
      defects: { 'rubber-1': ['embossed'] },
      findings: { 'rubber-1': 'turn-over' },
    })
      .choose(guide('double-check-detector'), 'two-checks')
      .toMakeSafe()
      .carryOut('make-safe')
      .done('make-safe')
      .carryOut('open-up', (s) => Boolean(s.temporary))
  it('wants who permitted it and a date after today', () => {
    const job = turnedOver()
    const step = { step: job.due('open-up')?.id ?? '', at: 'open-up' } as const
    expect(job.write('guide-step', step).refused?.code).toBe('temporary-incomplete')
    const past = { until: '2026-05-01', permittedBy: 'The authority' }
    expect(job.write('guide-step', { ...step, temporary: past }).refused?.code).toBe('date-past')
  })
  it('sets the date by which the equipment is renewed', () => {
    const job = turnedOver().carryOut('open-up')
    expect(temporaryUntil(job.state)).toBe('2026-07-01')
  })
})

describe('making safe', () => {
  const shutIn = () => chosen().toMakeSafe()
  it('refuses a move out of order, and takes it as a departure', () => {
    const job = shutIn().write('valve-moved', { element: 'shutoff-1', to: 'shut' })
    expect(job.refused?.code).toBe('move-out-of-order')
    job.must('valve-moved', { element: 'shutoff-1', to: 'shut', departure: 'Handle 2 was stuck' })
    expect(job.state.valves['shutoff-1']).toBe('shut')
  })
  it('goes by what is on record, not by what a step says', () => {
    const job = shutIn().carryOut('make-safe', (s) => Boolean(s.isolate))
    const step = job.due('make-safe')?.id ?? ''
    expect(job.write('guide-step', { step, at: 'make-safe' }).refused?.code).toBe(
      'valve-position-differs',
    )
  })
  const vented = () => shutIn().carryOut('make-safe', (s) => Boolean(s.prove))
  const reading = (value: string) => ({ dimension: 'gaugePressure', value, unit: 'psi' }) as const
  const proof = (value: string) => ({
    zone: 'body',
    reading: reading(value),
    heldMinutes: 2,
    by: 'Odda',
  })
  it('proves zero only where it is vented, and only at zero', () => {
    expect(shutIn().write('zone-proved', proof('0')).refused?.code).toBe('zone-fed')
    expect(vented().write('zone-proved', proof('3.0')).refused?.code).toBe('not-zero')
    const job = vented()
    const step = job.due('make-safe')?.id ?? ''
    expect(job.write('guide-step', { step, at: 'make-safe' }).refused?.code).toBe('zone-not-proved')
    job.must('zone-proved', proof('0.0'))
    expect(job.write('guide-step', { step, at: 'make-safe' }).refused).toBeNull()
  })
  it('what is to be locked has the number of its lock on record, each of them', () => {
    const job = shutIn().carryOut('make-safe', (s) => s.locked === true)
    const step = job.due('make-safe')?.id ?? ''
    const locked = () => job.write('guide-step', { step, at: 'make-safe' }).refused?.code
    expect(locked()).toBe('lock-missing')
    job.must('lock', { element: 'shutoff-1', number: '14', on: true })
    expect(locked()).toBe('lock-missing')
    job.must('lock', { element: 'shutoff-2', number: '15', on: true })
    expect(locked()).toBeUndefined()
  })
  it('the proof lapses when what was shut is opened', () => {
    const job = opened()
    const { number = '' } = job.state.locks['shutoff-1'] ?? {}
    job.must('lock', { element: 'shutoff-1', number, on: false })
    job.must('valve-moved', { element: 'shutoff-1', to: 'crack', departure: 'Flushed' })
    expect(job.state.proofs).toEqual([])
    job.carryOut('open-up', (s) => s.remove === 'cover')
    const step = job.due('open-up')?.id ?? ''
    expect(job.write('guide-step', { step, at: 'open-up' }).refused?.code).toBe('zone-not-proved')
  })
  it('a lock holds what it is on', () => {
    const job = shutIn()
    const lock = { element: 'shutoff-2', number: '14', on: true }
    expect(job.write('lock', lock).refused?.code).toBe('valve-not-shut')
    job.must('valve-moved', { element: 'shutoff-2', to: 'shut' }).must('lock', lock)
    const open = { element: 'shutoff-2', to: 'open', departure: 'Hurry' } as const
    expect(job.write('valve-moved', open).refused?.code).toBe('lock-on')
    job.must('lock', { ...lock, on: false })
    expect(job.write('valve-moved', open).refused).toBeNull()
    expect(job.write('lock', { ...lock, on: false }).refused?.code).toBe('lock-off')
  })
})

describe('the kit', () => {
  it('is counted before setting off', () => {
    const job = chosen().carryOut('prepare', (s) => s.count === 'kit')
    const step = { step: job.due('prepare')?.id ?? '', at: 'prepare' } as const
    expect(job.write('guide-step', step).refused?.code).toBe('kit-not-counted')
    // Nor does a departure at the step let the van leave with an uncounted kit.
    job.must('guide-step', { ...step, departure: 'Later' }).carryOut('prepare')
    expect(job.write('station-done', { station: 'prepare' }).refused?.code).toBe('kit-not-counted')
  })
  const taken = (number: string, discs: number, departure?: string) => ({
    number,
    how: 'typed' as const,
    items: [
      { item: 'kit-disc', count: discs },
      { item: 'kit-cover-oring', count: 1 },
      { item: 'kit-seat-ring', count: 2 },
    ],
    ...(departure ? { departure } : {}),
  })
  it('is held against number and list; a short one needs a reason', () => {
    const job = chosen()
    expect(kitDoubts(job.state, shippedLibrary, taken('K-BTDC-021', 2))).toEqual([])
    expect(job.write('kit-taken', taken('K-OTHER', 1)).refused?.code).toBe('kit-differs')
    const strange = { ...taken('K-BTDC-021', 2), items: [{ item: 'kit-moon', count: 1 }] }
    expect(job.write('kit-taken', strange).refused?.code).toBe('kit-item-unknown')
    job.must('kit-taken', taken('K-BTDC-021', 1, 'Only one disc is worn'))
  })
  const rebuilt = () =>
    opened({ defects: { 'disc-1': ['cut'], 'disc-2': ['debris'], 'cover-oring': ['flat'] } })
      .carryOut('open-up')
      .done('open-up')
      .must('repair', { text: 'New disc', parts: [] })
      .carryOut('rebuild')
  const lines = (used: number, left: number, missing: number) => ({
    lines: [
      { item: 'kit-disc', used, spare: 0, left, missing, empty: 0 },
      { item: 'kit-cover-oring', used: 1, spare: 0, left: 0, missing: 0, empty: 0 },
      { item: 'kit-seat-ring', used: 0, spare: 2, left: 0, missing: 0, empty: 0 },
    ],
  })
  it('is what the entry of the repair is made from, with numbers and places', () => {
    expect(workDone(rebuilt().state, shippedLibrary)).toEqual({
      text: 'Renewed: Disc of check 1, Cover O-ring. Cleaned: Disc of check 2.',
      parts: [
        { name: 'Disc', number: 'BTDC-02101', quantity: 1 },
        { name: 'Cover O-ring', number: 'BTDC-02102', quantity: 1 },
      ],
      services: [
        { element: 'check-2', service: 'cleaned' },
        { element: 'check-1', service: 'renewed' },
      ],
    })
  })
  it('says so when everything went back as it came', () => {
    const job = opened().carryOut('open-up').done('open-up')
    job.must('repair', { text: 'Looked at', parts: [] }).carryOut('rebuild')
    expect(workDone(job.state, shippedLibrary)).toEqual({
      text: 'Opened, looked at and put back: nothing renewed.',
      parts: [],
      services: [],
    })
  })
  it('is accounted for before Rebuild is finished', () => {
    const job = rebuilt().write('station-done', { station: 'rebuild' })
    expect(job.refused?.code).toBe('kit-not-closed')
    expect(job.write('kit-closed', lines(1, 0, 0)).refused?.code).toBe('kit-sum-differs')
    expect(job.write('kit-closed', lines(2, 0, 0)).refused?.code).toBe('kit-use-differs')
    expect(job.write('kit-closed', lines(1, 0, 1)).refused).toBeNull()
    expect(job.write('station-done', { station: 'rebuild' }).refused).toBeNull()
  })
})

describe('equipment without a field test', () => {
  const job = () => new Job({ family: 'spring-cylinder-actuator', kind: 'actuator' })
  const works = { run: 'as-found', outcome: 'works', text: 'Strokes both ways' } as const
  const arrived = () =>
    job().done('prepare').must('identity', { outcome: 'confirmed' }).done('arrive')
  it('is judged by its function check', () => {
    const visit = arrived()
    expect(visit.write('station-done', { station: 'as-found' }).refused?.code).toBe(
      'as-found-missing',
    )
    visit.must('checked', works).done('as-found', 'return').done('return')
    expect(outcomeOf(visit.state, shippedLibrary)).toBe('pass')
    expect(
      standingAfter(visit.state, shippedLibrary, 'overhaul-three-years', '2026-06-01'),
    ).toEqual({
      condition: 'in-order',
      testedOn: '2026-06-01',
      dueOn: '2029-06-01',
      lawfulUntil: '2029-12-01',
    })
  })
  it('does not go straight to Return when it does not work', () => {
    const visit = arrived().must('checked', { ...works, outcome: 'works-not' })
    const skip = { station: 'as-found', skipTo: 'return' } as const
    expect(visit.write('station-done', skip).refused?.code).toBe('not-passed-as-found')
  })
  it('has no field test to begin; what has one has no function check', () => {
    const field = visit().done('prepare').must('identity', { outcome: 'confirmed' }).done('arrive')
    expect(field.write('checked', works).refused?.code).toBe('has-field-test')
  })
  it('is tried as left where the guide asks for it, and not asked about again', () => {
    const visit = job().choose(guide('spring-cylinder'), 'to-open').toMakeSafe().toAsLeft()
    expect(visit.run.steps.filter((s) => s.at === 'as-left' && s.test)).toEqual([])
    visit.carryOut('as-left')
    const signed = { signature: 'M 10 10 L 200 90', name: 'P', outcome: 'pass' } as const
    expect(visit.write('signed', signed).refused?.code).toBe('as-left-missing')
    visit.must('checked', { ...works, run: 'as-left' })
    expect(visit.write('signed', signed).refused).toBeNull()
  })
})

describe('hands on valves and hoses', () => {
  it('are followed, and forgotten when the next step begins', () => {
    const job = visit()
      .must('valve-moved', { element: 'shutoff-2', to: 'shut' })
      .must('hose-moved', { hose: 'high', port: 'cock-2' })
    expect(job.state).toMatchObject({
      valves: { 'shutoff-2': 'shut' },
      hoses: { high: 'cock-2' },
    })
    expect(job.state.handsSinceStep).toHaveLength(2)
    expect(job.write('hose-moved', { hose: 'high' }).state.hoses).toEqual({})
  })
  it.each([
    ['valve-moved', { element: 'bypass-cock-1', to: 'open' }, 'element-unknown'],
    ['hose-moved', { hose: 'low', port: 'cock-9' }, 'element-unknown'],
  ] as const)('%s of what the assembly does not have is refused', (kind, payload, code) => {
    expect(visit().write(kind, payload as never).refused?.code).toBe(code)
  })
})
