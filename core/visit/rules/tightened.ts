import type { PlacedStep } from '../../guide'
import { formatQuantity, isUnitOf, toSi } from '../../quantity'
import { slotFigure } from '../derived/guide'
import type { VisitEvent } from '../log/events'
import type { VisitState } from '../log/state'
import { type GuardContext, type Refusal, refuse } from './refusal'

/** A wrench clicks within some percent of what it is set to; farther off, another figure was set. */
const WRENCH_PERCENT = 10

const torque = ({ value, unit }: { readonly value: string; readonly unit: string }) => {
  const quantity = { dimension: 'torque', value, unit } as const
  return { si: toSi(quantity), words: formatQuantity(quantity) }
}

/** What fasteners were tightened to: theirs, no more than their ceiling, and what the sheet has. */
export function tightenedRefusal(
  state: VisitState,
  step: PlacedStep,
  { payload }: VisitEvent<'guide-step'>,
  { library }: GuardContext,
): Refusal | null {
  const { tightened, departure } = payload
  if (!tightened) return null
  if (tightened.fastener !== step.tighten)
    return refuse(
      'fastener-unknown',
      `This step does not tighten “${tightened.fastener}”.`,
      'Record the figure at the step that does.',
      undefined,
      { fastener: tightened.fastener },
    )
  if (departure) return null
  const figure = (slot: string | undefined) => {
    const found = slot ? slotFigure(state, library, slot) : undefined
    const { value, unit } = found ?? {}
    return value && unit && isUnitOf('torque', unit) ? torque({ value, unit }) : undefined
  }
  const given = torque(tightened)
  const ceiling = figure(step.to.ceiling)
  if (ceiling && given.si > ceiling.si)
    return refuse(
      'torque-over-ceiling',
      `${given.words} is over the ceiling of ${ceiling.words}.`,
      'Slacken, look at the thread, and tighten again below it.',
      undefined,
      { given: given.words, ceiling: ceiling.words },
    )
  const target = figure(step.to.torque)
  if (target && Math.abs(given.si - target.si) > (target.si * WRENCH_PERCENT) / 100)
    return refuse(
      'torque-differs',
      `The sheet has ${target.words}; ${given.words} is another torque.`,
      'Look at figure and unit again, or record the departure with its reason.',
      undefined,
      { target: target.words, given: given.words },
    )
  return null
}
