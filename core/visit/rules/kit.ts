import type { GuideRun } from '../../guide'
import type { Library } from '../../library'
import type { PayloadOf, VisitEvent } from '../log/events'
import { countedOf, kitOfVisit, kitsNeeded, kitTaken, runOfGuide } from '../derived/guide'
import { currentStation } from '../log/current'
import { type GuardContext, type Refusal, refuse } from './refusal'
import type { VisitState } from '../log/state'
import type { Station } from '../log/stations'

/** What does not agree with the kit list: another number on the bag, items short or over. */
export function kitDoubts(
  state: VisitState,
  library: Library,
  { number, items, job }: Pick<PayloadOf<'kit-taken'>, 'number' | 'items' | 'job'>,
): string[] {
  const run = runOfGuide(state, library)
  if (!run) return []
  const sheet = kitOfVisit(state, library, job)
  const doubts: string[] = []
  if (sheet && sheet.number !== number)
    doubts.push(`the bag says ${number}, the sheet wants ${sheet.number}`)
  for (const line of run.kit.filter((k) => k.job === job)) {
    const wanted = sheet?.items.find((i) => i.item === line.id)?.count ?? line.count
    const counted = items.find((i) => i.item === line.id)?.count ?? 0
    if (counted !== wanted) doubts.push(`${line.title}: ${counted} of ${wanted}`)
  }
  return doubts
}

export function guardKitTaken(
  state: VisitState,
  event: VisitEvent<'kit-taken'>,
  { library }: GuardContext,
): Refusal | null {
  const run = runOfGuide(state, library)
  if (!run)
    return refuse(
      'guide-not-chosen',
      'No guide was chosen for this visit.',
      'Choose one in Prepare.',
      'prepare',
    )
  if (state.kitClosed)
    return refuse(
      'kit-closed',
      'The kit of this visit is accounted for.',
      'Nothing is left to count.',
    )
  const { job, items } = event.payload
  const own = run.kit.filter((k) => k.job === job)
  const unknown = items.filter((i) => !own.some((k) => k.id === i.item))
  if (unknown.length > 0) {
    return refuse(
      'kit-item-unknown',
      `The guide uses no ${unknown.map((i) => i.item).join(', ')}.`,
      'Count what is on its list.',
    )
  }
  const doubts = kitDoubts(state, library, event.payload)
  if (doubts.length > 0 && !event.payload.departure) {
    return refuse(
      'kit-differs',
      `The kit is not as its list says: ${doubts.join('; ')}.`,
      'Get the right one, or give the reason why work goes on with it.',
      'prepare',
    )
  }
  return null
}

export function guardKitClosed(
  state: VisitState,
  { payload }: VisitEvent<'kit-closed'>,
  { library }: GuardContext,
): Refusal | null {
  const run = runOfGuide(state, library)
  if (!run || kitsNeeded(run).every((job) => !kitTaken(state, job)))
    return refuse('kit-not-taken', 'No kit was taken on this visit.', 'Count it first.')
  if (currentStation(state) !== 'rebuild')
    return refuse(
      'rebuild-not-done',
      'The kit is accounted for when the rebuild is done.',
      'Finish it first.',
    )
  for (const line of run.kit) {
    const counted = countedOf(state, line.id)
    const said = payload.lines.find((l) => l.item === line.id)
    const sum = said ? said.used + said.spare + said.left + said.missing + said.empty : 0
    if (sum !== counted) {
      return refuse(
        'kit-sum-differs',
        `${line.title}: ${counted} counted in Prepare, ${sum} accounted for.`,
        'Look in the bag, under the old part, in the groove it was meant for and in the rag.',
        'rebuild',
        { item: line.title, counted, sum },
      )
    }
    if (said && said.used !== line.used) {
      return refuse(
        'kit-use-differs',
        `${line.title}: ${line.used} fitted by the guide, ${said.used} said to be used.`,
        'One is in a place it was not meant for, or not in its place: look again.',
        'rebuild',
        { item: line.title, used: said.used },
      )
    }
  }
  return null
}

/** Why a station may not be finished as far as the kit goes. */
export function kitRefusal(state: VisitState, run: GuideRun, station: Station): Refusal | null {
  if (run.kit.length === 0) return null
  const uncounted = kitsNeeded(run).filter((job) => !kitTaken(state, job))
  if (station === 'prepare' && uncounted.length > 0) {
    return refuse(
      'kit-not-counted',
      'The kit is not counted.',
      'Count it against its list: a missing ring is found now, or under pressure.',
      'prepare',
    )
  }
  if (station !== 'rebuild' || uncounted.length === kitsNeeded(run).length) return null
  const closed = state.kitClosed
  const stale = run.kit.some(
    (k) => (closed?.lines.find((l) => l.item === k.id)?.used ?? 0) !== k.used,
  )
  if (closed && !stale) return null
  return refuse(
    'kit-not-closed',
    'The kit is not accounted for.',
    'Say of every item whether it is fitted, a spare, left over or missing.',
    'rebuild',
  )
}

/** A part of a sub-job’s kit goes in when that kit was counted: one that was not is not at hand. */
export function jobKitRefusal(state: VisitState, run: GuideRun, item: string): Refusal | null {
  const job = run.kit.find((k) => k.id === item)?.job
  if (job === undefined || kitTaken(state, job)) return null
  return refuse(
    'kit-not-counted',
    'The kit of this sub-job is not counted.',
    'Count it first; when it is not at hand, order it and come back, or record the departure.',
  )
}
