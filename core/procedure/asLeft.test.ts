import { expect, it } from 'vitest'
import { shippedLibrary } from '../testing/library'
import { asLeftProcedure } from '.'

const kept = shippedLibrary.procedures.filter((p) => p.steps.some((s) => s.untilPassed))
const opened = ({ steps }: (typeof kept)[number], element: string) =>
  steps.some((s) => s.moves?.some((m) => m.element === element && m.to !== 'shut'))

it.each(kept.map((p) => [p.id, p] as const))(
  '%s gives the customer water as found, and as left not before the verdict',
  (_, procedure) => {
    const asLeft = asLeftProcedure(procedure)
    for (const { untilPassed } of procedure.steps) {
      if (!untilPassed) continue
      expect(opened(procedure, untilPassed.element)).toBe(true)
      expect(opened(asLeft, untilPassed.element)).toBe(false)
      expect(asLeft.steps.map((s) => s.title)).toContain(untilPassed.title)
    }
    // What is recorded is the same, in the same order.
    const items = (p: typeof procedure) => p.steps.map((s) => [s.id, s.record?.item])
    expect(items(asLeft)).toEqual(items(procedure))
  },
)

it('every assembly that feeds a customer keeps him shut off until then', () => {
  const feeds = shippedLibrary.procedures.filter((p) =>
    p.steps.some((s) => s.moves?.some((m) => m.element === 'shutoff-2' && m.to === 'open')),
  )
  expect(feeds.map((p) => p.id).filter((id) => !kept.some((p) => p.id === id))).toEqual([])
})
