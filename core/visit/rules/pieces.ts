import type { PlacedStep } from '../../guide'
import { piecesWanted } from '../derived/pieces'
import type { VisitEvent } from '../log/events'
import type { VisitState } from '../log/state'
import { type GuardContext, type Refusal, refuse } from './refusal'

/** Checks the number of pieces that come off, go in or are counted, where a part has more than one position. */
export function piecesRefusal(
  state: VisitState,
  step: PlacedStep,
  { payload }: VisitEvent<'guide-step'>,
  { library }: GuardContext,
): Refusal | null {
  const wanted = piecesWanted(state, library, step)
  const { pieces, departure } = payload
  if (wanted === undefined)
    return pieces === undefined
      ? null
      : refuse(
          'pieces-not-asked',
          'This step counts no pieces.',
          'Record it without a number.',
          undefined,
          { pieces },
        )
  if (pieces === undefined)
    return refuse(
      'pieces-missing',
      'The number of pieces is missing.',
      'Count them and enter the number.',
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
