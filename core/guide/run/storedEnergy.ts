import type { PlacedStep } from '../schema/step'
import type { Guide } from '../schema/guide'
import { stepWords } from './run'

/** Energy that stays when the pressure is gone, and the very part that comes out first. */
export interface StoredEnergy {
  readonly id: string
  /** What holds it: a spring, a suspended part. */
  readonly title: string
  /** The step that lets it out. */
  readonly step: string
  readonly says: string
  /** It is let out under control rather than relieved before. */
  readonly controlled: boolean
}

/**
 * The springs that a job meets, each with the first step that takes its load away: an adjuster, or a
 * cover that comes off evenly.
 * @param steps of the way taken, in order
 */
export function storedEnergy(guide: Guide, steps: readonly PlacedStep[]): StoredEnergy[] {
  return (guide.springs ?? []).flatMap((spring) => {
    const under = guide.parts.filter((p) => p.spring === spring.id).map((p) => p.id)
    const step = steps.find(
      (s) => s.relieve === spring.id || (s.controlled && under.includes(s.remove)),
    )
    if (!step) return []
    return [
      {
        id: spring.id,
        title: spring.title,
        step: step.id,
        says: stepWords(step),
        controlled: step.relieve !== spring.id,
      },
    ]
  })
}
