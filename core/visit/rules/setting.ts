import { apparatusOf } from '../../apparatus'
import { dimensionTitles } from '../../quantity'
import type { VisitEvent } from '../log/events'
import { currentStation } from '../log/current'
import type { VisitState } from '../log/state'
import type { Station } from '../log/stations'
import { type Refusal, refuse } from './refusal'

/** What was found must be on record before anything is set anew. */
const SET_AT: readonly Station[] = ['rebuild', 'return', 'as-left']

/** Only what the equipment takes is put on it. */
export function guardApplied(
  state: VisitState,
  { payload }: VisitEvent<'applied'>,
): Refusal | null {
  const kind = state.plan?.equipment.kind ?? ''
  const sources = apparatusOf(kind)?.sources ?? []
  const source = sources.find((s) => s.id === payload.source)
  if (!source) {
    const known = sources.map((s) => s.id).join(', ')
    return refuse(
      'source-unknown',
      `A ${kind} takes no “${payload.source}”.`,
      known ? `Choose one of ${known}.` : 'Leave it out.',
      undefined,
      { kind, source: payload.source },
    )
  }
  if (payload.to.dimension === source.dimension) return null
  return refuse(
    'dimension-differs',
    `${source.label} is a ${dimensionTitles[source.dimension]}, not a ${dimensionTitles[payload.to.dimension]}.`,
    'Choose a unit that fits.',
    undefined,
    { source: source.label },
  )
}

/** An adjuster that the equipment has is turned once the as-found readings stand. */
export function guardAdjusted(
  state: VisitState,
  { payload }: VisitEvent<'adjusted'>,
): Refusal | null {
  const kind = state.plan?.equipment.kind ?? ''
  const adjusters = apparatusOf(kind)?.adjusters ?? []
  if (!adjusters.some((a) => a.id === payload.adjuster)) {
    const known = adjusters.map((a) => a.id).join(', ')
    return refuse(
      'adjuster-unknown',
      `A ${kind} has no adjuster “${payload.adjuster}”.`,
      known ? `Choose one of ${known}.` : 'Leave it out.',
      undefined,
      { kind, adjuster: payload.adjuster },
    )
  }
  if (!(Number(payload.turns) > 0)) {
    return refuse(
      'turns-missing',
      'The turns are missing.',
      'Say by how much it was turned, as 0.25.',
    )
  }
  const station = currentStation(state)
  if (SET_AT.includes(station)) return null
  return refuse(
    'setting-too-early',
    'Nothing is set anew before what was found is on record and the equipment is back under pressure.',
    'Finish the as-found test; turn the adjuster at Return or in the as-left test.',
    station,
  )
}
