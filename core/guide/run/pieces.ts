import type { Guide } from '../schema/guide'
import type { PlacedStep } from '../schema/step'

/** A figure of the sheet, or one that was entered on the visit, by its slot; undefined while nobody gave it. */
export type CountOf = (slot: string) => number | undefined

/**
 * Counts the pieces of a part: so many positions it stands for. One where the guide says nothing; where the number
 * differs by build, what the sheet or the visit says of it, and one while that is unknown.
 */
export function piecesOfPart(
  { parts }: Pick<Guide, 'parts'>,
  id: string | undefined,
  countOf: CountOf = () => undefined,
): number {
  const part = parts.find((p) => p.id === id)
  return part?.count ?? (part?.countSlot ? countOf(part.countSlot) : undefined) ?? 1
}

/** The part of which a step moves pieces, off or in; undefined for any other step. */
export const movedBy = ({ remove, fit, renew }: PlacedStep): string | undefined =>
  remove ?? fit ?? renew

/** Counts the pieces that a step takes off or puts in; 1 for any other step. */
export const piecesAt = (
  guide: Pick<Guide, 'parts'>,
  step: PlacedStep,
  countOf?: CountOf,
): number => piecesOfPart(guide, movedBy(step), countOf)
