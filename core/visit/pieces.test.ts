import { describe, expect, it } from 'vitest'
import type { Guide, PlacedStep } from '../guide'
import { Job, shippedLibrary } from '../testing'

const guide = (id: string) => shippedLibrary.guides.find((g) => g.id === id) as Guide
const shuttle = (until: (s: PlacedStep) => boolean) =>
  new Job({ family: 'shuttle-valve', kind: 'transfer valve' })
    .choose(guide('shuttle-valve'), 'usual')
    .toMakeSafe()
    .carryOut('make-safe')
    .done('make-safe')
    .carryOut('open-up', until)
const press = (job: Job, more: object = {}) =>
  job.write('guide-step', { step: job.due('open-up')?.id ?? '', at: 'open-up', ...more }).refused

describe('parts of several places', () => {
  it('are counted as they come off: one of two wipers stays in its cap', () => {
    const job = shuttle((s) => s.remove === 'wipers')
    expect(press(job)).toMatchObject({ code: 'pieces-missing', params: { wanted: 2 } })
    expect(press(job, { pieces: 1 })).toMatchObject({ code: 'pieces-differ' })
    expect(press(job, { pieces: 3 })).toMatchObject({ code: 'pieces-differ' })
    expect(press(job, { pieces: 2 })).toBeNull()
  })
  it('are counted once more together, and held against what came off', () => {
    const job = shuttle((s) => s.count !== undefined)
    // 2 wipers, 2 shaft rings, 4 outer rings, 2 seats, 2 flange seals, the disc’s and the end cap’s.
    expect(press(job, { pieces: 13 })).toMatchObject({
      code: 'pieces-differ',
      params: { wanted: 14 },
    })
    expect(press(job, { pieces: 14 })).toBeNull()
  })
  it('take as many pieces out of the kit as there are places', () => {
    const job = shuttle(() => false)
    const used = (item: string) => job.run.kit.find((k) => k.id === item)?.used
    job.done('open-up').carryOut('rebuild')
    expect([used('kit-wiper'), used('kit-outer'), used('kit-seat')]).toEqual([2, 4, 2])
  })
  it('whose number differs by build are as many as the sheet says, or as somebody enters', () => {
    const spool = (withSheet: boolean) =>
      new Job({ family: 'spool-valve', kind: 'spool valve' })
        .choose(guide('spool-valve'), 'usual', withSheet)
        .toMakeSafe()
        .carryOut('make-safe')
        .done('make-safe')
        .carryOut('open-up', (s) => s.remove === 'port-seals')
    const known = spool(true)
    expect(press(known, { pieces: 4 })).toMatchObject({ params: { wanted: 5 } })
    expect(press(known, { pieces: 5 })).toBeNull()
    const bare = spool(false)
    expect(press(bare, { pieces: 5 })?.code).toBe('figure-missing')
    bare.must('guide-value', {
      slot: 'port-seal-count',
      value: '3',
      source: 'Counted on the valve',
    })
    expect(press(bare, { pieces: 3 })).toBeNull()
  })
  it('are no number of a step that counts none', () => {
    const job = new Job({ family: 'spool-valve', kind: 'spool valve' })
      .choose(guide('spool-valve'), 'usual')
      .toMakeSafe()
    expect(
      job.write('guide-step', { step: job.due('make-safe')?.id ?? '', at: 'make-safe', pieces: 3 })
        .refused?.code,
    ).toBe('pieces-not-asked')
  })
})
