import * as yup from 'yup'
import { type Guide, serves } from '../guide'
import { nominalDimension, type NominalName, nominalNames } from '../apparatus'
import { dimensionTitles } from '../quantity'
import {
  anyQuantity,
  type FieldFault,
  integer,
  line,
  localDate,
  slug,
  strictObject,
} from '../schema'
import { figureFault } from './figure'

/** A maker’s figure: never without where it comes from and of which date. */
const figureSchema = strictObject({
  /** The guides’ name for it. */
  slot: slug().required(),
  value: line(40).required(),
  unit: line(12),
  source: line(160).required(),
  date: localDate().required(),
})
export type SheetFigure = yup.InferType<typeof figureSchema>

/** A nominal value of the model, as its working range or a coefficient. */
const ratingSchema = strictObject({
  name: yup
    .string<NominalName>()
    .strict(true)
    .oneOf(Object.keys(nominalNames) as NominalName[])
    .required(),
  value: anyQuantity().required(),
  source: line(160).required(),
  date: localDate().required(),
})
export type SheetRating = yup.InferType<typeof ratingSchema>

const kitItemSchema = strictObject({
  /** The guide’s name for it. */
  item: slug().required(),
  number: line(60).required(),
  count: integer(1, 200).required(),
  /** Spares that the kit carries on purpose. */
  spare: integer(0, 50),
})

const kitSchema = strictObject({
  guide: slug().required(),
  /** The sub-job of the guide that it is for. */
  job: slug(),
  number: line(60).required(),
  title: line(120).required(),
  source: line(160).required(),
  date: localDate().required(),
  items: yup.array(kitItemSchema.required()).strict(true).min(1).required(),
})
export type SheetKit = yup.InferType<typeof kitSchema>

/** What a maker says of one model: figures, kits, warranty. */
export const specSheetSchema = strictObject({
  id: slug().required(),
  version: integer(1, 9999).required(),
  date: localDate().required(),
  maker: line(80).required(),
  model: line(80).required(),
  family: slug().required(),
  figures: yup.array(figureSchema.required()).strict(true).required(),
  /** What equipment of this model is judged by, unless its own plate says otherwise. */
  ratings: yup.array(ratingSchema.required()).strict(true).max(20),
  kits: yup.array(kitSchema.required()).strict(true).required(),
})
export type SpecSheet = yup.InferType<typeof specSheetSchema>

/** The kit of a sheet for one guide, or for one of its sub-jobs. */
export const kitOf = (
  sheet: SpecSheet | undefined,
  guideId: string,
  job?: string,
): SheetKit | undefined => sheet?.kits.find((k) => k.guide === guideId && k.job === job)

/** What of a sheet fits no guide of its family, or lacks its unit. */
export function sheetFaults(sheet: SpecSheet, guides: readonly Guide[]): FieldFault[] {
  const own = guides.filter((g) => serves(g, sheet.family))
  return [
    ...sheet.figures.flatMap((figure, n) => figureFaults(figure, `figures[${n}]`, own)),
    ...(sheet.ratings ?? []).flatMap((rating, n) => ratingFaults(rating, `ratings[${n}]`)),
    ...sheet.kits.flatMap((kit, n) =>
      kitFaults(
        kit,
        `kits[${n}]`,
        own.find((g) => g.id === kit.guide),
      ),
    ),
  ]
}

function ratingFaults({ name, value }: SheetRating, path: string): FieldFault[] {
  const dimension = nominalDimension(name)
  if (value.dimension === dimension) return []
  const message = `“${name}” is a ${dimensionTitles[dimension]}`
  return [{ path: `${path}.value`, message }]
}

function figureFaults(figure: SheetFigure, path: string, guides: readonly Guide[]): FieldFault[] {
  const { slot } = figure
  const slots = guides.flatMap((g) => g.slots ?? [])
  if (!slots.some((s) => s.id === slot)) {
    const known = [...new Set(slots.map((s) => s.id))].join(', ') || 'none'
    return [
      {
        path: `${path}.slot`,
        message: `no guide of the family asks for “${slot}”. Known: ${known}`,
      },
    ]
  }
  // Guides of one family may ask for it, each in its own way.
  const faults = guides.flatMap((guide) =>
    (guide.slots ?? [])
      .filter((s) => s.id === slot)
      .flatMap((s) => figureFault(guide, s, figure) ?? []),
  )
  return faults.slice(0, 1).map(({ at, message }) => ({ path: `${path}.${at}`, message }))
}

function kitFaults(kit: SheetKit, path: string, guide: Guide | undefined): FieldFault[] {
  if (!guide) {
    return [
      { path: `${path}.guide`, message: `the family has no guide “${kit.guide}”: mend the name` },
    ]
  }
  const wanted = (guide.kit ?? []).filter((k) => k.job === kit.job)
  const unknown = kit.items.flatMap((i, n) =>
    wanted.some((k) => k.id === i.item)
      ? []
      : [
          {
            path: `${path}.items[${n}].item`,
            message: `the guide uses no “${i.item}”: take it off`,
          },
        ],
  )
  const short = wanted.flatMap((k) => {
    const item = kit.items.find((i) => i.item === k.id)
    return item && item.count - (item.spare ?? 0) >= k.count
      ? []
      : [
          {
            path: `${path}.items`,
            message: `the guide uses ${k.count} × ${k.title} (“${k.id}”): the kit must hold as many besides its spares`,
          },
        ]
  })
  return [...unknown, ...short]
}
