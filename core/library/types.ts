import * as yup from 'yup'
import type { Guide, GuideText, SubGuide } from '../guide'
import type { Procedure, RulePack } from '../procedure'
import type { FamilyPolicy } from './policy'
import type { SpecSheet } from './sheet'
import { integer, line, slug, strictObject } from '../schema'

export const services = ['water', 'gas', 'air', 'product'] as const
export type Service = (typeof services)[number]

export const familySchema = strictObject({
  id: slug().required(),
  version: integer(1, 9999).required(),
  title: line(120).required(),
  group: line(60).required(),
  service: yup.string().strict(true).oneOf(services).required(),
  kinds: yup.array(line(30).required()).strict(true).min(1).required(),
  programme: slug().required(),
})
export type Family = yup.InferType<typeof familySchema>

export const programmeSchema = strictObject({
  id: slug().required(),
  version: integer(1, 9999).required(),
  title: line(120).required(),
  /** Months between two due dates. */
  intervalMonths: integer(1, 240).required(),
  /** Longest stretch between a test and the due date it leads to. */
  maximumMonths: integer(1, 240).required(),
  /** A test is wanted in each calendar year, whatever the months say. */
  eachCalendarYear: yup.boolean().strict(true),
  graceDays: integer(0, 365).required(),
  firstNoticeDays: integer(0, 365).required(),
  secondNoticeDays: integer(0, 365).required(),
  repairWithinDays: integer(1, 365).required(),
})
export type Programme = yup.InferType<typeof programmeSchema>

/** The know-how a computation or a visit works with: data, loaded once and passed in. */
export interface Library {
  readonly procedures: readonly Procedure[]
  readonly rulePacks: readonly RulePack[]
  readonly families: readonly Family[]
  readonly programmes: readonly Programme[]
  readonly guides: readonly Guide[]
  readonly subGuides: readonly SubGuide[]
  readonly specSheets: readonly SpecSheet[]
  readonly policies: readonly FamilyPolicy[]
  /** Versions that are no longer in force, for the visits that were begun with them. */
  readonly earlier: {
    readonly guides: readonly GuideText[]
    readonly specSheets: readonly SpecSheet[]
    readonly procedures: readonly Procedure[]
    readonly rulePacks: readonly RulePack[]
    readonly programmes: readonly Programme[]
    readonly policies: readonly FamilyPolicy[]
  }
}
