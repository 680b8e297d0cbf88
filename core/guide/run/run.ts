import { differenceOnce, expandGuide } from '../schema/expand'
import { type CountOf, piecesAt, piecesOfPart } from './pieces'
import type { PlacedStep } from '../schema/step'
import { type GuideStation, isMet } from '../schema/stepCommon'
import type { Guide, SubGuide } from '../schema/guide'

/** A step that was carried out, as it stands on record. */
export interface StepDone {
  readonly step: string
  /** What an inspection found. */
  readonly finding?: string | undefined
}

export interface TrayPart {
  readonly id: string
  readonly title: string
  /** What becomes of it; the place of what is not refitted waits for a new one. */
  readonly fate: 'refit' | 'discard' | 'warranty'
  /** It goes back after the test only. */
  readonly offAtTest?: boolean
}

export interface KitLine {
  readonly id: string
  readonly title: string
  readonly count: number
  readonly used: number
  /** The sub-job whose kit it is of. */
  readonly job?: string
}

/** How far a guide has been carried out. */
export interface GuideRun {
  /** Steps that apply on the way taken so far, in order. */
  readonly steps: readonly PlacedStep[]
  readonly done: ReadonlySet<string>
  /** Parts off the equipment, in the order in which they came off. */
  readonly tray: readonly TrayPart[]
  readonly kit: readonly KitLine[]
  /** Sub-jobs in hand: those chosen, what they bring, and those that a finding widened the work by. */
  readonly jobs: readonly string[]
}

/** The slots whose values a step needs, those of what it repeats with them. */
export function slotsOf(step: PlacedStep): string[] {
  const { slot, rounds, hold, to } = step
  const own = [slot, rounds, hold, to?.torque, to?.ceiling].filter((s): s is string => Boolean(s))
  return [...new Set([...own, ...(step.steps ?? []).flatMap(slotsOf)])]
}

/** The tightening that goes round until no fastener moves, where a step has one. */
export const relaxingOf = (step: PlacedStep): PlacedStep | undefined =>
  step.untilNoneMoves ? step : step.steps?.find((s) => s.untilNoneMoves)

/** Where the work stands after the steps on record. Pure: the same record gives the same tray. */
export function guideRun(
  guide: Guide,
  subGuides: readonly SubGuide[],
  variant: string,
  record: readonly StepDone[],
  chosen: readonly string[] = [],
  countOf?: CountOf,
): GuideRun {
  const jobs = withBrought(guide, chosen)
  const findings = new Map<string, string>()
  const done = new Set(record.map((r) => r.step))
  const tray = new Map<string, TrayPart>()
  const used = new Map<string, number>()
  const partOf = (id: string) => guide.parts.find((p) => p.id === id)
  const lying = (id: string, fate: TrayPart['fate']): TrayPart => ({
    id,
    title: partOf(id)?.title ?? id,
    fate,
    ...(partOf(id)?.offAtTest ? { offAtTest: true } : {}),
  })
  const steps: PlacedStep[] = []
  const ofVariant = expandGuide(guide, subGuides).steps.filter(
    (s) => !s.only || s.only.includes(variant),
  )
  for (const step of ofVariant) {
    if (!isMet(step, findings) || !ofJobs(step, jobs)) continue
    steps.push(step)
    const entry = record.findLast((r) => r.step === step.id)
    if (!entry) continue
    const asked = step.inspect ?? step.ask
    if (asked && entry.finding) findings.set(asked, entry.finding)
    for (const job of widenedBy(guide, step, entry.finding)) jobs.add(job)
    if (step.remove) tray.set(step.remove, lying(step.remove, step.keepFor ?? 'refit'))
    if (step.discard) tray.set(step.discard, lying(step.discard, 'discard'))
    if (step.fit) tray.delete(step.fit)
    if (step.renew) tray.delete(step.renew)
    // One tube of grease does for several places; a ring goes into one.
    if (step.from)
      used.set(
        step.from,
        step.lubricate ? 1 : (used.get(step.from) ?? 0) + piecesAt(guide, step, countOf),
      )
  }
  return {
    steps: differenceOnce(steps),
    done,
    tray: [...tray.values()],
    kit: (guide.kit ?? [])
      .filter((k) => (!k.job || jobs.has(k.job)) && ofVariant.some((s) => takes(s, k.id)))
      .map((k) => ({
        id: k.id,
        title: k.title,
        count: inPieces(guide, k, countOf),
        used: used.get(k.id) ?? 0,
        ...(k.job ? { job: k.job } : {}),
      })),
    jobs: [...jobs],
  }
}

/** Sub-jobs with everything that they bring. */
export function withBrought(guide: Pick<Guide, 'jobs'>, chosen: readonly string[]): Set<string> {
  const jobs = new Set<string>()
  const add = (id: string) => {
    if (jobs.has(id)) return
    jobs.add(id)
    guide.jobs?.find((j) => j.id === id)?.brings?.forEach(add)
  }
  chosen.forEach(add)
  return jobs
}

/** Findings after which nothing goes on: the work ends for good, or until the part has come. */
export const endsWork = (finding: string | undefined): boolean =>
  finding === 'stop' || finding === 'order'

/** Whether a step is done when these sub-jobs are in hand. */
export const ofJobs = (
  { jobs: of, without }: Pick<PlacedStep, 'jobs' | 'without'>,
  jobs: ReadonlySet<string>,
): boolean => (!of || of.some((j) => jobs.has(j))) && !without?.some((j) => jobs.has(j))

/** The sub-jobs by which a finding widens the work. */
export function widenedBy(
  guide: Pick<Guide, 'jobs'>,
  step: Pick<PlacedStep, 'verdicts' | 'answers'>,
  finding: string | undefined,
): ReadonlySet<string> {
  const chosen = [...(step.verdicts ?? []), ...(step.answers ?? [])].find((v) => v.id === finding)
  const widens = chosen?.widens
  return withBrought(guide, widens ? [widens] : [])
}

/** An item by the places that it is for, where their number differs by build. */
function inPieces(
  guide: Pick<Guide, 'parts'>,
  { count, parts = [] }: NonNullable<Guide['kit']>[number],
  countOf: CountOf | undefined,
): number {
  const differs = parts.some((id) => guide.parts.find((p) => p.id === id)?.countSlot)
  return differs ? parts.reduce((sum, id) => sum + piecesOfPart(guide, id, countOf), 0) : count
}

/** Whether a step, or one that it repeats, fits an item of the kit. */
const takes = (step: PlacedStep, item: string): boolean =>
  step.from === item || (step.steps?.some((s) => takes(s, item)) ?? false)

/** The first step of a station that is not done, or null. */
export const nextStep = (run: GuideRun, station: GuideStation): PlacedStep | null =>
  run.steps.find((s) => s.at === station && !run.done.has(s.id)) ?? null

/** A step’s sentence; one without words says what its verb does. */
export const stepWords = (step: PlacedStep): string => step.say ?? step.verb

/**
 * The part that came off last and would go back first, where the step fits another: the guide’s own
 * order then differs from the tray walked back. Null where it does not.
 */
export function passedOver(run: GuideRun, step: PlacedStep): TrayPart | null {
  const waiting = run.tray.filter((p) => p.fate === 'refit')
  const last = waiting.at(-1)
  const meant = waiting.some((p) => p.id === step.fit)
  return last && meant && last.id !== step.fit ? last : null
}
