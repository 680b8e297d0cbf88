import type { PlacedVerb, StepOf } from '../schema/step'
import type { ProofState } from './state'
import type { GuidePart } from '../schema/equipment'
import { type IsolationSite, shutFor, spaceStates, zoneSite } from '../../pressure'
import type { Guide } from '../schema/guide'

/** One thing wrong with a guide: the step, why, and how to mend it. */
export interface Fault {
  /** Place of the step; empty for the guide as a whole. */
  readonly step: string
  /** Path in the file. */
  readonly path: string
  /** Short name of the rule that was broken. */
  readonly rule: string
  readonly message: string
}

/** Says what is wrong: short name of the rule, and the sentence with its remedy. */
export type Say = (rule: string, message: string) => void
/** What a step of a verb presupposes, and what it changes. */
export type Rule<V extends PlacedVerb> = (
  guide: Guide,
  step: StepOf<V>,
  state: ProofState,
  say: Say,
) => void

export const partOf = (guide: Guide, id: string | undefined): GuidePart | undefined =>
  guide.parts.find((p) => p.id === id)
export const title = (guide: Guide, id: string) => partOf(guide, id)?.title ?? id

const sites = new WeakMap<Guide, IsolationSite>()
/** A guide’s zones as spaces between their valves: what the drawing and making safe ask too. */
export function pressureSite(guide: Guide): IsolationSite {
  const known = sites.get(guide) ?? zoneSite(guide.zones ?? [])
  sites.set(guide, known)
  return known
}

/** The valves through which a zone is still fed; none when it is cut off. */
export function fedBy(guide: Guide, state: Pick<ProofState, 'shut' | 'openVents'>, zone: string) {
  const site = pressureSite(guide)
  const openings = Object.fromEntries([
    ...[...state.shut].map((v) => [v, 'shut'] as const),
    ...[...state.openVents].map((v) => [v, 'open'] as const),
  ])
  if (spaceStates(site, openings)[zone] !== 'live') return []
  return shutFor(site, zone).filter((v) => !state.shut.has(v))
}
