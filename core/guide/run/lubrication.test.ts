import { describe, expect, it } from 'vitest'
import { shippedLibrary } from '../../testing'
import { expandGuide, lubricationOf, proveGuide } from '..'

const { guides, subGuides } = shippedLibrary
const guideOf = (id: string) => {
  const guide = guides.find((g) => g.id === id)
  if (!guide) throw new Error(`no guide ${id}`)
  const { steps } = expandGuide(guide, subGuides)
  const lubricating = (part: string) => {
    const step = steps.find((s) => s.lubricate === part)
    if (!step) throw new Error(`${id} does not lubricate ${part}`)
    return step
  }
  return { guide, lubricating }
}

describe('the lubricant of a step', () => {
  const shuttle = guideOf('shuttle-valve')
  const outer = shuttle.lubricating('outer-rings')
  it('is held against the rubber that the sheet names', () => {
    const advice = lubricationOf(shuttle.guide, 'usual', outer, 'fkm')
    expect(advice?.rubbers.map((r) => [r.rubber, r.verdict])).toEqual([['fkm', 'fits']])
    expect(advice?.service).toBe('air')
  })
  it('is held against every rubber of the family where the sheet names none, or one it is not built with', () => {
    for (const said of [undefined, 'epdm'])
      expect(
        lubricationOf(shuttle.guide, 'usual', outer, said)?.rubbers.map((r) => r.rubber),
      ).toEqual(['nbr', 'fkm'])
  })
  it('says what would spoil the refrigerant', () => {
    const motor = guideOf('motor-control-valve')
    const advice = lubricationOf(motor.guide, 'usual', motor.lubricating('gasket'), 'nbr')
    expect(advice?.never).toContain('silicone')
    expect(advice?.never).toContain('mineral')
    expect(advice?.never).not.toContain('refrigeration')
  })
  it('is no matter of rubber on a step that lubricates none', () => {
    const motor = guideOf('motor-control-valve')
    expect(lubricationOf(motor.guide, 'usual', motor.lubricating('magnets'), undefined)).toBeNull()
    const fit = expandGuide(shuttle.guide, subGuides).steps.find((s) => s.fit)
    expect(fit && lubricationOf(shuttle.guide, 'usual', fit, undefined)).toBeNull()
  })
  it('is refused where one rubber of the family does not bear it', () => {
    const slots = shuttle.guide.slots?.map((s) =>
      s.id === 'ring-rubber' ? { ...s, rubbers: ['nbr' as const, 'silicone' as const] } : s,
    )
    const { faults } = proveGuide({ ...shuttle.guide, slots }, subGuides)
    expect(faults.map((f) => f.rule)).toContain('lubricant-clash')
    expect(proveGuide(shuttle.guide, subGuides).faults).toEqual([])
  })
  it('is asked of a slot that lists the rubbers, and of one place only', () => {
    const parts = shuttle.guide.parts.map((p) => {
      if (p.id === 'outer-rings') return { ...p, rubberOf: 'flange-torque' }
      return p.id === 'disc-ring' ? { ...p, rubber: 'nbr' as const } : p
    })
    const rules = proveGuide({ ...shuttle.guide, parts }, subGuides).faults.map((f) => f.rule)
    expect(rules).toContain('no-rubbers')
    expect(rules).toContain('two-rubbers')
  })
})
