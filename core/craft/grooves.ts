import { CannotCompute } from '../errors'
export interface Grooves {
  /** Grooves counted on the part. */
  readonly grooves: number
  /** Grooves that stay empty on purpose: a vent. */
  readonly emptyOnPurpose: number
  /** Grooves that take two parts in order: a ring, then a slide ring over it. */
  readonly doubled: number
  /** Rings at hand, of both kinds. */
  readonly rings: number
}

export interface GrooveVerdict {
  readonly wanted: number
  readonly says: string
  readonly fits: boolean
}

/**
 * Whether the rings at hand fill the grooves that are to be filled: rings are counted before the
 * first goes on, since one in the vented groove is not seen any more.
 * @throws CannotCompute when a count is none
 */
export function countGrooves({ grooves, emptyOnPurpose, doubled, rings }: Grooves): GrooveVerdict {
  for (const count of [grooves, emptyOnPurpose, doubled, rings]) {
    if (!Number.isInteger(count) || count < 0)
      throw new CannotCompute(
        'groove-count',
        'A count is a whole number from 0 up.',
        'Count again.',
      )
  }
  if (emptyOnPurpose + doubled > grooves)
    throw new CannotCompute(
      'groove-sum',
      'More grooves are empty or doubled than there are.',
      'Count again.',
    )
  const wanted = grooves - emptyOnPurpose + doubled
  const empty = emptyOnPurpose > 0 ? ` ${emptyOnPurpose} stay empty on purpose.` : ''
  if (rings === wanted)
    return { wanted, fits: true, says: `${wanted} rings for ${grooves} grooves.${empty}` }
  return {
    wanted,
    fits: false,
    says:
      rings < wanted
        ? `${wanted - rings} missing: ${wanted} are wanted, ${rings} are there.${empty}`
        : `${rings - wanted} too many: ${wanted} are wanted, ${rings} are there. Do not fill a vented groove with it.${empty}`,
  }
}
