import type { PlacedStep } from '../../guide'
import { piecesWanted } from '../derived/pieces'
import type { VisitEvent } from '../log/events'
import type { VisitState } from '../log/state'
import { type GuardContext, type Refusal, refuse } from './refusal'

/** Where there is more than one place, each piece is accounted for as it comes off, as it goes in, and in between. */
export function piecesRefusal(
  state: VisitState,
  step: PlacedStep,
  { payload }: VisitEvent<'guide-step'>,
  { library }: GuardContext,
): Refusal | null {
  const wanted = piecesWanted(state, library, step)
  if (wanted === undefined) return null
  const { pieces, departure } = payload
  if (pieces === undefined)
    return refuse(
      'pieces-missing',
      'How many they are is not counted.',
      'Count them, and enter the number.',
      undefined,
      { wanted },
    )
  if (pieces === wanted || departure) return null
  return refuse(
    'pieces-differ',
    `${pieces} counted, and there are ${wanted}.`,
    pieces < wanted
      ? 'Look in its place, in what came off with it, on the bench and in the rag.'
      : 'One belongs to another place, or was left over from before: look which.',
    undefined,
    { pieces, wanted },
  )
}
