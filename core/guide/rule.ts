import type { PlacedStep } from './expand'
import type { ProofState } from './state'
import type { GuidePart } from './equipment'
import type { Guide } from './types'

/** Says what is wrong: short name of the rule, and the sentence with its remedy. */
export type Say = (rule: string, message: string) => void
export type Rule = (guide: Guide, step: PlacedStep, state: ProofState, say: Say) => void

export const partOf = (guide: Guide, id: string | undefined): GuidePart | undefined =>
  guide.parts.find((p) => p.id === id)
export const title = (guide: Guide, id: string) => partOf(guide, id)?.title ?? id
