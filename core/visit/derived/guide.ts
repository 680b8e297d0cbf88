import {
  type Guide,
  type GuideRun,
  type GuideText,
  guideRun,
  type PlacedStep,
  slotsOf,
} from '../../guide'
import { type IsolationSite, siteOf } from '../../pressure'
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
  return guideRun(text.guide, text.subGuides, state.guide.variant, state.guideSteps)
})

/** The spec sheet whose figures hold on a visit, in the version with which it was begun. */
export const sheetOfVisit = remembered((state, library): SpecSheet | undefined => {
  const { sheet } = state.guide ?? {}
  if (!sheet) return undefined
  return [...library.specSheets, ...library.earlier.specSheets].find(
    (s) => s.id === sheet.id && s.version === sheet.version,
  )
})

/** The kit that the sheet lists for the guide of the visit. */
export const kitOfVisit = (state: VisitState, library: Library): SheetKit | undefined =>
  kitOf(sheetOfVisit(state, library), state.guide?.guideId ?? '')

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

/** The figures that a step needs and nobody has given yet. */
export const missingSlots = (state: VisitState, library: Library, step: PlacedStep): string[] =>
  slotsOf(step).filter((slot) => !slotFigure(state, library, slot))

/** The visit’s equipment as spaces and valves; null where nothing holds pressure. */
export const siteOfVisit = remembered((state, library): IsolationSite | null => {
  return siteOf(guideOfVisit(state, library)?.guide, state.plan?.equipment.kind ?? '')
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
