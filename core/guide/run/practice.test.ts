import { describe, expect, it } from 'vitest'
import { shippedLibrary } from '../../testing'
import { expandGuide, type PlacedStep, practiceAt, practiceAtLarge, verbs } from '..'

const { machines, guides, subGuides } = shippedLibrary
const all = (steps: readonly PlacedStep[]): PlacedStep[] =>
  steps.flatMap((s) => [s, ...(s.steps ? all(s.steps) : [])])

describe('where practitioners differ', () => {
  it.each(machines.map((m) => [m.id, m] as const))(
    '%s: every point of a part comes up at a step of a guide',
    (id, machine) => {
      const met = new Set(
        guides
          .filter((g) => g.machine === id)
          .flatMap((g) =>
            all(expandGuide(g, subGuides).steps).flatMap((s) =>
              practiceAt(machine, g, s).map((d) => d.point),
            ),
          ),
      )
      const points = machine.differ ?? []
      expect(
        points.flatMap((d) => d.doing ?? []).filter((v) => !verbs.includes(v as never)),
      ).toEqual([])
      expect(points.filter((d) => d.at && !met.has(d.point)).map((d) => d.point)).toEqual([])
    },
  )
  it('is not told where it does not matter', () => {
    const machine = machines.find((m) => m.id === 'nose-seal-coupler')
    const guide = guides.find((g) => g.id === 'nose-seal-coupler')
    if (!machine || !guide) throw new Error('no coupler')
    const at = (words: RegExp) => {
      const step = expandGuide(guide, subGuides).steps.find((s) => words.test(s.say ?? ''))
      if (!step) throw new Error(String(words))
      return practiceAt(machine, guide, step).map((d) => d.point)
    }
    expect(at(/New split pin|new split pin|New split|Shut\. New/)).toContain(
      'Split pin bent again, or new',
    )
    expect(at(/Arm valve shut/)).toEqual([])
    expect(practiceAtLarge(machine).map((d) => d.point)).toEqual(['In place or on the bench'])
  })
})
