import type { Machine } from '../machine'
import type { Guide, GuideText, SubGuide } from '../guide'
import type { Procedure } from '../procedure'
import type { RulePack } from '../rules'
import type { Family, FamilyPolicy, Programme } from '../catalogue'
import type { SpecSheet } from './sheet'

/** The know-how a computation or a visit works with: data, loaded once and passed in. */
export interface Library {
  readonly procedures: readonly Procedure[]
  readonly rulePacks: readonly RulePack[]
  readonly families: readonly Family[]
  readonly programmes: readonly Programme[]
  readonly machines: readonly Machine[]
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
