import { figureFault } from '../../library'
import { guideOfVisit, sheetOfVisit } from '../derived/guide'
import type { VisitEvent } from '../log/events'
import type { VisitState } from '../log/state'
import { type GuardContext, type Refusal, refuse } from './refusal'

/** A figure is entered for a slot of the guide that the sheet leaves open, and can be what it says. */
export function guardFigure(
  state: VisitState,
  { payload }: VisitEvent<'guide-value'>,
  { library }: GuardContext,
): Refusal | null {
  const guide = guideOfVisit(state, library)?.guide
  const slot = guide?.slots?.find((s) => s.id === payload.slot)
  if (!guide || !slot)
    return refuse(
      'slot-unknown',
      `The guide has no figure “${payload.slot}”.`,
      'Reload to see which figures it asks for.',
      undefined,
      { slot: payload.slot },
    )
  if (sheetOfVisit(state, library)?.figures.some((f) => f.slot === payload.slot))
    return refuse(
      'figure-on-sheet',
      `The spec sheet has a figure for “${slot.title}”.`,
      'Use the figure of the sheet. If it is wrong, have the sheet corrected.',
      undefined,
      { slot: payload.slot },
    )
  const fault = figureFault(guide, slot, payload)
  return fault
    ? refuse(
        fault.code,
        `${fault.message}.`,
        'Check the figure and its unit on the sheet.',
        undefined,
        {
          slot: payload.slot,
        },
      )
    : null
}
