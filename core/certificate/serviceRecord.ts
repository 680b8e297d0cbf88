import { apparatusOf } from '../apparatus'
import { lubricants } from '../craft'
import { stepWords } from '../guide'
import type { Library } from '../library'
import { guideOfVisit, runOfGuide, slotFigure, type VisitState } from '../visit'

/**
 * What a visit did besides the readings and the repair in words: what was tightened to what, lubricated with
 * what, set anew, done against the order, and photographed. Each is a sentence of its own.
 */
export function serviceRecord(state: VisitState, library: Library): string[] {
  return [
    ...asked(state, library),
    ...workOn(state, library),
    ...departures(state, library),
    ...photographs(state),
  ]
}

/** What a visit tightened, lubricated and set, a sentence each. */
export const workOn = (state: VisitState, library: Library): string[] => [
  ...settings(state),
  ...byGuide(state, library),
]

/** Turns of each adjuster together, as they stand at the end. */
function settings(state: VisitState): string[] {
  const adjusters = apparatusOf(state.plan?.equipment.kind ?? '')?.adjusters ?? []
  return adjusters.flatMap(({ id, label }) => {
    const own = state.adjusted.filter((a) => a.adjuster === id)
    if (own.length === 0) return []
    const turns = own.reduce((sum, a) => sum + Number(a.turns) * (a.way === 'in' ? 1 : -1), 0)
    return turns === 0
      ? [`${label}: turned and put back where it was.`]
      : [`${label}: ${Math.abs(turns)} turns ${turns > 0 ? 'in' : 'out'}.`]
  })
}

/** What was asked on site, with its answer. */
function asked(state: VisitState, library: Library): string[] {
  const steps = runOfGuide(state, library)?.steps ?? []
  return steps.flatMap((step) => {
    const said = state.guideSteps.findLast((d) => d.step === step.id)?.finding
    const answer = step.answers?.find((a) => a.id === said)
    return answer ? [`${stepWords(step)}: ${answer.title}.`] : []
  })
}

function byGuide(state: VisitState, library: Library): string[] {
  const guide = guideOfVisit(state, library)?.guide
  const run = runOfGuide(state, library)
  if (!guide || !run) return []
  const done = run.steps.filter((s) => run.done.has(s.id))
  const tightened = done.flatMap((step) => {
    const fastener = guide.fasteners?.find((f) => f.id === step.tighten)
    const slot = step.to?.torque
    const figure = slot && slotFigure(state, library, slot)
    return fastener && figure
      ? [`${fastener.title}: tightened to ${figure.value} ${figure.unit ?? ''} (${figure.source}).`]
      : []
  })
  const greased = done.flatMap((step) => {
    const part = guide.parts.find((p) => p.id === step.lubricate)
    return part && step.with ? [`${part.title}: ${lubricants[step.with].toLowerCase()}.`] : []
  })
  return [...new Set([...tightened, ...greased])]
}

function departures(state: VisitState, library: Library): string[] {
  const steps = runOfGuide(state, library)?.steps ?? []
  return state.guideSteps.flatMap(({ step, departure }) => {
    const placed = steps.find((s) => s.id === step)
    return departure
      ? [`Departure: ${placed ? stepWords(placed) : `step ${step}`} – ${departure}.`]
      : []
  })
}

function photographs({ photos }: VisitState): string[] {
  if (photos.length === 0) return []
  return [`Photographs on the record: ${photos.map((p) => p.caption).join('; ')}.`]
}
