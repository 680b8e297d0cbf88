import { describe, expect, it } from 'vitest'
import { shippedLibrary } from '../../testing'
import { expandGuide, isFouling, mendedBy, renewalAdvice } from '..'

describe('what the house makes of damage', () => {
  it('is to order the part where the inspection offers nothing else, never to keep it', () => {
    expect(renewalAdvice('inspect', ['keep', 'order'], ['cracked']).verdict).toBe('order')
    expect(renewalAdvice('inspect', ['keep', 'order', 'renew'], ['cracked']).verdict).toBe('renew')
  })
  const inspections = shippedLibrary.guides.flatMap((g) =>
    expandGuide(g, shippedLibrary.subGuides).steps.flatMap((s) =>
      s.verdicts ? [{ guide: g.id, step: s, offered: s.verdicts.map((v) => v.id) }] : [],
    ),
  )
  it('is in no shipped inspection that the part stays, unless it is mended', () => {
    expect(inspections.length).toBeGreaterThan(100)
    const kept = inspections.flatMap(({ guide, step, offered }) =>
      step.defects
        .filter((d) => !isFouling(d) && !mendedBy(step).includes(d))
        .filter((d) =>
          ['keep', 'clean'].includes(
            renewalAdvice('inspect', offered, [d], mendedBy(step)).verdict,
          ),
        )
        .map((d) => `${guide} ${step.id} ${d}`),
    )
    expect(kept).toEqual([])
  })
})
