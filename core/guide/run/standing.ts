import type { PlacedStep, PlacedVerb } from '../schema/step'
import type { GuideRun } from './run'

/** How a machine stands after the steps on record. */
export interface Standing {
  /** How it lies or stands, in words; undefined as it was found, and once it is lifted to its place. */
  readonly position?: string
  readonly air?: 'on' | 'off'
  readonly power?: 'on' | 'off'
  /** What was put in to lift or to guard, and has not come out. */
  readonly aids: readonly string[]
}

const HANDS: readonly PlacedVerb[] = [
  'remove',
  'discard',
  'inspect',
  'clean',
  'lubricate',
  'treat',
  'renew',
  'fit',
]

/** Whether hands are in the equipment at a step. */
export const needsHands = ({ verb }: Pick<PlacedStep, 'verb'>): boolean => HANDS.includes(verb)

const words = (name: string) => name.replaceAll('-', ' ')

/** How the machine stands now: position, air, power, and what is in it. */
export function standingOf({ steps, done }: Pick<GuideRun, 'steps' | 'done'>): Standing {
  return steps
    .filter((s) => done.has(s.id))
    .reduce<Standing>(
      ({ position: before, ...now }, { position, air, power, people, liftIn, liftOut }) => ({
        ...now,
        ...(before && !people && !liftIn ? { position: before } : {}),
        ...(position ? { position } : {}),
        ...(air ? { air } : {}),
        ...(power ? { power } : {}),
        aids: [...now.aids, ...(liftIn ? [words(liftIn)] : [])].filter(
          (aid) => !liftOut || aid !== words(liftOut),
        ),
      }),
      { aids: [] },
    )
}
