import {
  type Elastomer,
  type Lubricant,
  type LubricantAdvice,
  lubricantAdvice,
  lubricants,
  type LubricantService,
} from '../../craft'
import type { GuidePart } from '../schema/equipment'
import { type Guide, variantOf } from '../schema/guide'
import type { PlacedStep } from '../schema/step'

/** The rubbers that a part may be of: its own, else those that its family is built with. */
export function rubbersOf(guide: Guide, part: GuidePart): readonly Elastomer[] {
  if (part.rubber) return [part.rubber]
  return guide.slots?.find((s) => s.id === part.rubberOf)?.rubbers ?? []
}

/** What a lubricant does to the part that a step puts it on. */
export interface Lubrication {
  readonly service: LubricantService
  /** One line for each rubber that the part may be of; a single one where it is known. */
  readonly rubbers: readonly (LubricantAdvice & { readonly rubber: Elastomer })[]
  /** Lubricants that one of these rubbers or the service does not bear. */
  readonly never: readonly Lubricant[]
}

/**
 * Advice on the lubricant of a step, by rubber, service and sheet.
 *
 * @param said The rubber that the sheet names, where the guide leaves it to the sheet.
 * @returns null where the step lubricates no rubber, or where what it touches is not said.
 */
export function lubricationOf(
  guide: Guide,
  variant: string,
  step: PlacedStep,
  said: string | undefined,
): Lubrication | null {
  const part = guide.parts.find((p) => p.id === step.lubricate)
  const service = variantOf(guide, variant).contact
  const { with: lubricant } = step
  if (!part || !service || !lubricant) return null
  const all = rubbersOf(guide, part)
  const named = all.filter((r) => r === said)
  const rubbers = named.length > 0 ? named : all
  if (rubbers.length === 0) return null
  return {
    service,
    rubbers: rubbers.map((rubber) => ({ rubber, ...lubricantAdvice(rubber, lubricant, service) })),
    never: (Object.keys(lubricants) as Lubricant[]).filter((other) =>
      rubbers.some((r) => lubricantAdvice(r, other, service).verdict === 'clash'),
    ),
  }
}
