import { describe, expect, it } from 'vitest'
import { Job, type JobOptions, shippedLibrary } from '../testing'
import { orderedOn, stockChanges } from '.'

/** Sub-jobs that combine, findings that widen the work, the kits of both, and a part that is to come. */
const guide = shippedLibrary.guides.find((g) => g.id === 'dome-regulator')
if (!guide) throw new Error('there is no guide of the dome regulator')
const dome = (findings: JobOptions['findings'] = {}, jobs: readonly string[] = []) =>
  new Job({ family: 'dome-regulator', kind: 'dome regulator', service: 'gas', findings }).choose(
    guide,
    'gas',
    true,
    jobs,
  )
const says = (job: Job) => job.run.steps.map((s) => s.say ?? '').join('\n')

describe('sub-jobs', () => {
  it('that are not chosen are not done, and need no kit', () => {
    const seats = dome()
    expect(says(seats)).not.toMatch(/diaphragm assembly/i)
    expect(seats.run.kit.map((k) => k.job)).toEqual([undefined, undefined, undefined])
  })
  it('bring what they cannot be done without', () => {
    expect(dome({}, ['stem']).run.jobs.toSorted()).toEqual(['diaphragm', 'stem'])
  })
  it('combine, each with the kit of its own', () => {
    const job = dome({}, ['stem', 'diaphragm']).takeKit()
    expect(job.state.kit?.number).toBe('K-DDR-081')
    expect(job.state.jobKits.diaphragm?.number).toBe('K-DDR-082')
    expect(job.state.jobKits.stem?.number).toBe('K-DDR-083')
    job.toMakeSafe().toAsLeft()
    expect(job.run.tray).toEqual([])
  })
  it('are not prepared while a kit of one of them is not counted', () => {
    const job = dome({}, ['diaphragm'])
    const items = ['kit-seat-plate', 'kit-seat-disc', 'kit-disc-guide']
    job.must('kit-taken', {
      number: 'K-DDR-081',
      how: 'typed',
      items: items.map((item) => ({ item, count: 1 })),
    })
    job.carryOut('prepare', (s) => s.count === 'kit')
    const due = job.due('prepare')
    const step = { step: due?.id ?? '', at: 'prepare' } as const
    expect(job.write('guide-step', step).refused?.why).toBe('The kit is not counted.')
  })
  it('are refused when the guide has none of that name', () => {
    const job = new Job({ family: 'dome-regulator', kind: 'dome regulator' })
    const chosen = { guideId: guide.id, version: guide.version, variant: 'gas', jobs: ['paint'] }
    expect(job.write('guide-chosen', chosen).refused?.code).toBe('sub-job-unknown')
  })
  it('a part of another bag than its own is no part of that kit', () => {
    const job = dome({}, ['diaphragm'])
    const taken = {
      number: 'K-DDR-082',
      how: 'typed',
      job: 'diaphragm',
      items: [{ item: 'kit-seat-plate', count: 1 }],
    } as const
    expect(job.write('kit-taken', { ...taken, items: [...taken.items] }).refused?.code).toBe(
      'kit-item-unknown',
    )
  })
})

describe('a finding', () => {
  it('widens a seats-only job: the bent pin is renewed, with the diaphragm that comes off for it', () => {
    const job = dome({ 'disc-pin': 'renew' }).toMakeSafe()
    expect(job.run.jobs).toEqual([])
    job.carryOut('make-safe').done('make-safe').carryOut('open-up')
    expect(job.run.jobs.toSorted()).toEqual(['diaphragm', 'stem'])
    job.done('open-up').must('repair', { text: 'By the guide', parts: [] })
    // The first part of the pin kit wants that kit counted.
    const renew = job.due('rebuild')
    expect(renew?.renew).toBe('disc-pin')
    const step = { step: renew?.id ?? '', at: 'rebuild' } as const
    expect(job.write('guide-step', step).refused?.code).toBe('kit-not-counted')
    job.carryOut('rebuild').closeKit().done('rebuild')
    expect(job.run.kit.filter((k) => k.used > 0).map((k) => k.id)).toEqual([
      'kit-diaphragm',
      'kit-pin',
    ])
    expect(job.run.steps.some((s) => s.set === 'stroke')).toBe(true)
  })
  it('of a pin that has turned widens it to the stroke, not to the stem', () => {
    const job = dome({ 'pin-turned': 'turned' }).toMakeSafe().toAsLeft()
    expect(job.run.jobs).toEqual(['diaphragm'])
    expect(job.run.tray).toEqual([])
  })
  it('that orders a part ends the work until it has come, and is stopped with the day', () => {
    const job = dome({ 'disc-pin': 'order' }).toMakeSafe()
    job.carryOut('make-safe').done('make-safe')
    job.carryOut('open-up', (s) => s.inspect === 'disc-pin')
    const pin = job.due('open-up')
    job.must('guide-step', { step: pin?.id ?? '', at: 'open-up', finding: 'order' })
    expect(orderedOn(job.state, shippedLibrary)?.inspect).toBe('disc-pin')
    const next = job.due('open-up')
    expect(job.write('guide-step', { step: next?.id ?? '', at: 'open-up' }).refused?.code).toBe(
      'work-halted',
    )
    expect(job.write('stopped', { reason: 'Pin bent' }).refused?.why).toBe(
      'A part is to be ordered.',
    )
    const order = { what: 'Pin kit K-DDR-083', comeBackOn: '2020-01-01' }
    expect(job.write('stopped', { reason: 'Pin bent', order }).refused?.code).toBe(
      'order-date-past',
    )
    job.must('stopped', { reason: 'Pin bent', order: { ...order, comeBackOn: '2099-01-01' } })
    expect(job.state.stopped?.order?.what).toBe('Pin kit K-DDR-083')
  })
})

describe('the stock', () => {
  it('gives each kit out, and takes back the one that was not opened', () => {
    const job = dome({}, ['diaphragm']).toMakeSafe()
    job.carryOut('make-safe').done('make-safe').carryOut('open-up').done('open-up')
    job.must('repair', { text: 'By the guide', parts: [] }).carryOut('rebuild')
    const before = job.state
    job.closeKit()
    const closed = job.log.events.at(-1)
    expect(closed && stockChanges(before, closed)).toEqual([
      { number: 'K-DDR-081', change: 1, reason: 'Came back unopened' },
    ])
  })
})
