import * as yup from 'yup'
import type { LubricantService } from '../../craft'
import { integer, line, localDate, prose, slug, strictObject } from '../../schema'
import {
  adjustmentSchema,
  fastenerSchema,
  guideServices,
  jobSchema,
  kitItemSchema,
  lubricantServiceIds,
  partSchema,
  slotSchema,
  springSchema,
  variantSchema,
  zoneSchema,
} from './equipment'
import { names, oneOf } from './fields'
import { type GuideStep, lazyStep } from './step'

const body = {
  id: slug().required(),
  version: integer(1, 9999).required(),
  date: localDate().required(),
  title: line(120).required(),
  source: prose(600).required(),
  steps: yup.array(lazyStep).strict(true).min(1).required(),
}

/** A job guide as its file says it. */
export const guideSchema = strictObject({
  ...body,
  family: slug().required(),
  /** The machine that it works on, and is proved against. */
  machine: slug(),
  /** Further families that are serviced the same way. */
  alsoFor: names(),
  /** When it is the one to choose, where its family has several. */
  chooseWhen: prose(300),
  service: oneOf(guideServices).required(),
  /** What lubricants touch, where the service does not say it: food, fuel, refrigerant. */
  contact: oneOf(lubricantServiceIds),
  /** How the equipment stands when the guide begins. */
  startsWith: line(200),
  variants: yup.array(variantSchema.required()).strict(true).min(1).required(),
  /** Sub-jobs that combine; steps that belong to none are done in every visit. */
  jobs: yup.array(jobSchema.required()).strict(true).min(1).max(6),
  parts: yup.array(partSchema.required()).strict(true).min(1).required(),
  zones: yup.array(zoneSchema.required()).strict(true),
  /** The order in which valves are shut, and the one in which they are opened again. */
  order: strictObject({ shut: names<'valve'>().required(), opened: names<'valve'>().required() })
    .default(undefined)
    .optional(),
  fasteners: yup.array(fastenerSchema.required()).strict(true),
  springs: yup.array(springSchema.required()).strict(true),
  adjustments: yup.array(adjustmentSchema.required()).strict(true),
  kit: yup.array(kitItemSchema.required()).strict(true),
  slots: yup.array(slotSchema.required()).strict(true),
  /** Protective gear. */
  gear: yup.array(line(80).required()).strict(true),
  /** Licence or qualification that the work wants. */
  licence: slug(),
  tools: yup
    .array(
      strictObject({
        title: line(80).required(),
        /** What does as well; without it the tool has no substitute. */
        instead: line(80),
      }).required(),
    )
    .strict(true),
})

export interface Guide extends Omit<yup.InferType<typeof guideSchema>, 'steps'> {
  readonly steps: readonly GuideStep[]
}

/** Water is taken for drinking water, unless something else is said. */
const BY_SERVICE = { water: 'drinking-water', gas: 'gas', air: 'air', product: undefined } as const

type Says = Pick<yup.InferType<typeof variantSchema>, 'service' | 'contact'>
const contactOf = (guide: Says, variant: Says | undefined): LubricantService | undefined =>
  variant?.contact ??
  (variant?.service && variant.service !== guide.service
    ? BY_SERVICE[variant.service]
    : (guide.contact ?? BY_SERVICE[guide.service ?? 'product']))

/** What holds for a variant: its own service and licence, else the guide’s; the gear of both. */
export function variantOf(guide: Guide, id: string) {
  const variant = guide.variants.find((v) => v.id === id)
  return {
    service: variant?.service ?? guide.service,
    contact: contactOf(guide, variant),
    licence: variant?.licence ?? guide.licence,
    permitted: variant?.permitted ?? false,
    gear: [...(guide.gear ?? []), ...(variant?.gear ?? [])],
  }
}

const built = new WeakMap<Guide, Map<string, Guide>>()
/** The guide as a variant is built: its spaces without the valves that the build has not. */
export function guideAsBuilt(guide: Guide, id: string): Guide {
  const lacks = guide.variants.find((v) => v.id === id)?.lacks
  if (!lacks) return guide
  const known = built.get(guide) ?? new Map<string, Guide>()
  built.set(guide, known)
  const has = (valve: string) => !lacks.some((l) => l === valve)
  const made = known.get(id) ?? {
    ...guide,
    zones: guide.zones?.map((zone) => ({
      ...zone,
      shutBy: zone.shutBy?.filter(has),
      ventedBy: zone.ventedBy.filter(has),
    })),
  }
  known.set(id, made)
  return made
}

/** Whether a family is serviced by a guide. */
export const serves = (guide: Pick<Guide, 'family' | 'alsoFor'>, family: string): boolean =>
  guide.family === family || (guide.alsoFor?.includes(family) ?? false)

/** Steps that several guides share, with names to be filled in. */
export const subGuideSchema = strictObject({
  ...body,
  parameters: names().required(),
})
export interface SubGuide extends Omit<yup.InferType<typeof subGuideSchema>, 'steps'> {
  readonly steps: readonly GuideStep[]
}

/** A guide with the sub-guides it was written with. */
export interface GuideText {
  readonly guide: Guide
  readonly subGuides: readonly SubGuide[]
}
