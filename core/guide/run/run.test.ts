import { describe, expect, it } from 'vitest'
import { shippedGuides, shippedSubGuides } from '../../testing/guides'
import { endsWork, type Guide, guideRun, nextStep, passedOver, slotsOf, type StepDone } from '..'

const towers = shippedGuides.find((g) => g.id === 'tower-double-check') as Guide
const runOf = (record: readonly StepDone[], guide = towers, variant = 'usual') =>
  guideRun(guide, shippedSubGuides, variant, record)

/** Carries a guide out to its end with one finding for every inspection, one answer to every question. */
function carryOut(guide: Guide, variant: string, finding: 'first' | 'last') {
  const record: StepDone[] = []
  const most = { tray: 0 }
  for (let n = 0; n < 400; n++) {
    const run = runOf(record, guide, variant)
    most.tray = Math.max(most.tray, run.tray.length)
    const next = run.steps.find((s) => !run.done.has(s.id))
    if (!next) return { record, run, most }
    const choices = (next.verdicts ?? next.answers)?.filter((v) => !endsWork(v.id))
    const found = finding === 'first' ? choices?.[0]?.id : choices?.at(-1)?.id
    record.push({ step: next.id, ...(found ? { finding: found } : {}) })
  }
  throw new Error(`${guide.id} does not end`)
}

describe('carrying a guide out', () => {
  it.each(shippedGuides.flatMap((g) => g.variants.map((v) => [g.id, v.id, g] as const)))(
    '%s, %s: to its end, whatever is found, with an empty tray and no kit item used too often',
    (_, variant, guide) => {
      for (const finding of ['first', 'last'] as const) {
        const { run, most } = carryOut(guide, variant, finding)
        expect(run.tray).toEqual([])
        expect(most.tray).toBeGreaterThan(0)
        for (const k of run.kit) expect(k.used).toBeLessThanOrEqual(k.count)
      }
    },
  )
  it('lays parts down in the order they come off, and marks what is thrown away', () => {
    const record: StepDone[] = []
    for (;;) {
      const next =
        nextStep(runOf(record), 'prepare') ??
        nextStep(runOf(record), 'make-safe') ??
        nextStep(runOf(record), 'open-up')
      if (!next || next.remove === 'check-2') break
      record.push({ step: next.id, ...(next.verdicts ? { finding: next.verdicts[0]?.id } : {}) })
    }
    expect(runOf(record).tray.map((p) => [p.id, p.fate])).toEqual([
      ['washers', 'refit'],
      ['cover', 'refit'],
      ['cover-oring', 'refit'],
      ['check-1', 'refit'],
      ['seat-ring-1', 'refit'],
    ])
  })
  it('takes the way that a finding opens: a damaged disc is renewed, a fouled one is wiped', () => {
    const renewed = carryOut(towers, 'usual', 'last').run
    const wiped = carryOut(towers, 'usual', 'first').run
    expect(renewed.kit.find((k) => k.id === 'kit-disc')?.used).toBe(2)
    expect(wiped.kit.find((k) => k.id === 'kit-disc')?.used).toBe(0)
    const disc = wiped.steps.find((s) => s.inspect === 'disc-1')?.id ?? ''
    const fouled = runOf([
      ...wiped.steps.map((s) => ({ step: s.id })),
      { step: disc, finding: 'clean' },
    ])
    expect(fouled.steps.some((s) => s.clean === 'disc-1')).toBe(true)
  })
  it('says where the guide’s own order is not the tray walked back', () => {
    const detector = shippedGuides.find((g) => g.id === 'double-check-detector') as Guide
    const over = new Map<string, string | undefined>()
    const record: StepDone[] = []
    for (;;) {
      const run = runOf(record, detector, 'two-checks')
      const next = run.steps.find((s) => !run.done.has(s.id))
      if (!next) break
      if (next.fit) over.set(next.fit, passedOver(run, next)?.id)
      record.push({ step: next.id, ...(next.verdicts ? { finding: next.verdicts[0]?.id } : {}) })
    }
    // The main checks are closed one after the other; both bypass checks lie there, the second on top.
    expect(over.get('disc-2')).toBeUndefined()
    expect(over.get('bypass-seat-1')).toBe('bypass-seat-2')
    expect(over.get('bypass-connector')).toBeUndefined()
    const backwards = runOf([], towers, 'usual').steps.filter((s) => s.fit)
    expect(backwards.map((s) => s.fit)).toEqual(['check-2', 'check-1', 'cover', 'washers'])
  })
  it('names the figures that a step needs', () => {
    const relief = shippedGuides.find((g) => g.id === 'rp-relief') as Guide
    const tighten = runOf([], relief, 'usual').steps.find((s) => s.tighten === 'cover-bolts')
    expect(tighten && slotsOf(tighten)).toEqual(['relief-torque'])
  })
})
