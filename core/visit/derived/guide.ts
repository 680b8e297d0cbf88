import {
  guideAsBuilt,
  type CountOf,
  type Guide,
  type GuideRun,
  type GuideText,
  guideRun,
  movedBy,
  type PlacedStep,
  slotsOf,
} from '../../guide'
import { type IsolationSite, siteOf } from '../../pressure'
import { valueToSi } from '../../quantity'
import { kitOf, type Library, type SheetKit, type SpecSheet } from '../../library'
import type { VisitState } from '../log/state'
import { remembered } from './remembered'

/**
 * The guide that a visit is done by, in the version with which it was begun, though another may be
 * in force by now; null without one.
 */
export const guideOfVisit = remembered((state, library): GuideText | null => {
  const { guide: chosen } = state
  if (!chosen) return null
  const same = (g: Guide) => g.id === chosen.guideId && g.version === chosen.version
  const inForce = library.guides.find(same)
  if (inForce) return { guide: inForce, subGuides: library.subGuides }
  return library.earlier.guides.find((e) => same(e.guide)) ?? null
})

/** How far the visit’s guide has been carried out; null without a guide. */
export const runOfGuide = remembered((state, library): GuideRun | null => {
  const text = guideOfVisit(state, library)
  if (!text || !state.guide) return null
  const { variant, jobs } = state.guide
  const countOf = countsOf(state, library)
  const run = guideRun(text.guide, text.subGuides, variant, state.guideSteps, jobs, countOf)
  // What the guide asks to be tested as left is the test that the visit makes there.
  return { ...run, steps: run.steps.filter((s) => s.at !== 'as-left' || !s.test) }
})

/** The numbers of pieces that differ by build: of the sheet, or entered on the visit. */
export const countsOf =
  (state: VisitState, library: Library): CountOf =>
  (slot) => {
    const figure = Number(slotFigure(state, library, slot)?.value)
    return Number.isInteger(figure) && figure > 0 ? figure : undefined
  }

/** The spec sheet whose figures hold on a visit, in the version with which it was begun. */
export const sheetOfVisit = remembered((state, library): SpecSheet | undefined => {
  const { sheet } = state.guide ?? {}
  if (!sheet) return undefined
  return [...library.specSheets, ...library.earlier.specSheets].find(
    (s) => s.id === sheet.id && s.version === sheet.version,
  )
})

/** The kit that the sheet lists for the guide of the visit, or for one of its sub-jobs. */
export const kitOfVisit = (
  state: VisitState,
  library: Library,
  job?: string,
): SheetKit | undefined => kitOf(sheetOfVisit(state, library), state.guide?.guideId ?? '', job)

/** The kit that was counted for the visit, or for one of its sub-jobs. */
export const kitTaken = (state: VisitState, job?: string) =>
  job === undefined ? state.kit : state.jobKits[job]

/** How many of an item were counted in the kits that were taken. */
export const countedOf = (state: VisitState, item: string): number =>
  [...(state.kit ? [state.kit] : []), ...Object.values(state.jobKits)]
    .flatMap((kit) => kit.items)
    .filter((i) => i.item === item)
    .reduce((sum, i) => sum + i.count, 0)

/** The kits that the work in hand needs: what is of no sub-job first; the job of each. */
export const kitsNeeded = (run: GuideRun): (string | undefined)[] => [
  ...new Set(run.kit.map((k) => k.job)),
]

export interface SlotFigure {
  readonly value: string
  readonly unit?: string | undefined
  readonly source: string
}

/** What is known of a figure: entered on the visit, else on the sheet. */
export function slotFigure(
  state: VisitState,
  library: Library,
  slot: string,
): SlotFigure | undefined {
  const entered = state.guideValues.findLast((v) => v.slot === slot)
  if (entered) return entered
  const figure = sheetOfVisit(state, library)?.figures.find((f) => f.slot === slot)
  return figure && { ...figure, source: `${figure.source}, ${figure.date}` }
}

/** The minutes that a step waits; 0 where no figure is known. A figure without a unit is in minutes. */
export function minutesOf(figure: Pick<SlotFigure, 'value' | 'unit'> | undefined): number {
  if (!figure) return 0
  const value = Number(figure.value)
  return figure.unit ? valueToSi('time', value, figure.unit) / 60 : value
}

/** The figures that a step needs and nobody has given yet. */
export function missingSlots(state: VisitState, library: Library, step: PlacedStep): string[] {
  const parts = guideOfVisit(state, library)?.guide.parts ?? []
  const counted = parts.find((p) => p.id === movedBy(step))?.countSlot
  return [...slotsOf(step), ...(counted ? [counted] : [])].filter(
    (slot) => !slotFigure(state, library, slot),
  )
}

/** The visit’s equipment as spaces and valves; null where nothing holds pressure. */
export const siteOfVisit = remembered((state, library): IsolationSite | null => {
  const guide = guideOfVisit(state, library)?.guide
  return siteOf(
    guide && guideAsBuilt(guide, state.guide?.variant ?? ''),
    state.plan?.equipment.kind ?? '',
  )
})

/** The setting that a step restores, as it was found; undefined when nobody wrote it down. */
export function settingAsFound(
  state: VisitState,
  run: GuideRun,
  step: PlacedStep,
): string | undefined {
  if (!step.restore) return undefined
  const taken = run.steps.filter((s) => s.snapshot === step.restore).map((s) => s.id)
  return state.guideSteps.findLast((d) => taken.includes(d.step) && d.setting)?.setting
}

/** The inspection by whose finding a part is ordered before the work goes on; undefined without one. */
export const orderedOn = (state: VisitState, library: Library): PlacedStep | undefined =>
  runOfGuide(state, library)?.steps.find((s) =>
    state.guideSteps.some((d) => d.step === s.id && d.finding === 'order'),
  )
