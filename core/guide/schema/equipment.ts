import * as yup from 'yup'
import { type Elastomer, elastomers, type LubricantService, lubricantServices } from '../../craft'
import { type Dimension, dimensionNames } from '../../quantity'
import { integer, line, slug, strictObject } from '../../schema'
import { names, oneOf } from './fields'

const elastomerIds = Object.keys(elastomers) as Elastomer[]

/** What a part looks like on the tray and on an orientation card. */
export const partShapes = [
  'ring',
  'disc',
  'plate',
  'diaphragm',
  'spring',
  'cover',
  'piston',
  'stem',
  'tube',
  'body',
  'seat',
  'clip',
  'pin',
  'lip-seal',
  'check',
] as const
export type PartShape = (typeof partShapes)[number]

/** Which way an orientation card points. */
export const facings = ['up', 'down', 'left', 'right', 'opposite', 'in-line'] as const
export type Facing = (typeof facings)[number]

export const partSchema = strictObject({
  id: slug<'part'>().required(),
  title: line(80).required(),
  /** How it is drawn. */
  shape: oneOf(partShapes).required(),
  /** Parts of the machine that it stands for; the one of its own name when absent. */
  is: names<'part'>(),
  /** What it belongs to on the drawing of its assembly. */
  element: slug(),
  /** What people also call it, so that search finds either. */
  synonyms: yup.array(line(60).required()).strict(true),
  /** Parts that must be off before this one can come off, and go on after it. */
  under: names<'part'>(),
  /** Zone that taking this part off opens. */
  closes: slug<'zone'>(),
  /** Spring that pushes against it: its load must be relieved, or it comes off under control. */
  spring: slug<'spring'>(),
  /** What it is made of, where a lubricant could attack it. */
  rubber: oneOf<Elastomer>(elastomerIds),
  /** Slot in which the sheet names it, where the family is built with several. */
  rubberOf: slug<'slot'>(),
  /** It can be put in the wrong way round: fitting it shows how it goes. */
  orient: yup.boolean().strict(true),
  /** Taking it off changes a setting. */
  disturbs: slug<'adjustment'>(),
  /** It never gets lubricant: a face that must grip, a port that must stay clear. */
  dry: yup.boolean().strict(true),
  /** It hides what the test looks at: it stays off until the test as left has been made. */
  offAtTest: yup.boolean().strict(true),
  /** Heavy: slot with its mass. */
  mass: slug<'slot'>(),
  /** So many pieces it is, each in a place of its own; one when absent. */
  count: integer(2, 200),
  /** Slot with their number, where it differs by build. */
  countSlot: slug<'slot'>(),
})
export type GuidePart = yup.InferType<typeof partSchema>

/** What of the machine a part of a guide stands for. */
export const standsFor = (part: Pick<GuidePart, 'id' | 'is'>): readonly string[] =>
  part.is ?? [part.id]

export const kitItemSchema = strictObject({
  id: slug<'kit'>().required(),
  title: line(80).required(),
  /** In pieces. */
  count: integer(1, 200).required(),
  /** Parts whose place its pieces take. */
  parts: names<'part'>(),
  /** Spares that the kit carries on purpose. */
  spare: integer(0, 50),
  /** The sub-job whose own kit it comes from. */
  job: slug<'job'>(),
})

/**
 * Work that a visit does or does not do besides the rest: the seats, the diaphragm. Several may be done
 * together, and a finding may widen the visit by one.
 */
export const jobSchema = strictObject({
  id: slug<'job'>().required(),
  title: line(80).required(),
  /** Jobs that come with it: who takes the stem out has the diaphragm off. */
  brings: names<'job'>(),
})

export const slotSchema = strictObject({
  id: slug<'slot'>().required(),
  title: line(80).required(),
  /** Kind of quantity; absent for a plain number or word. */
  dimension: yup.string<Dimension>().strict(true).oneOf(dimensionNames),
  /** Rubbers that the family is built with: the figure of the sheet is one of these words. */
  rubbers: yup.array(oneOf<Elastomer>(elastomerIds).required()).strict(true).min(2),
})
export type GuideSlot = yup.InferType<typeof slotSchema>

const named = <K extends string>() =>
  strictObject({ id: slug<K>().required(), title: line(80).required() })
export const springSchema = named<'spring'>()
export const adjustmentSchema = named<'adjustment'>()

/** What flows through the equipment. */
export const guideServices = ['water', 'gas', 'air', 'product'] as const
export type GuideService = (typeof guideServices)[number]

/** What lubricants touch besides rubber. */
export const lubricantServiceIds = Object.keys(lubricantServices) as LubricantService[]

/** One of the ways a job is done; what it says of itself holds instead of what the guide says. */
export const variantSchema = named<'variant'>().shape({
  service: oneOf(guideServices),
  contact: oneOf(lubricantServiceIds),
  licence: slug(),
  /** It changes what the owner relies on, as where the valve goes without air: his consent comes first. */
  permitted: yup.boolean().strict(true),
  /** Valves of the guide that this build has not. */
  lacks: names<'valve'>(),
  /** Options of the machine that it has; the first build when absent. */
  options: names(),
  /** Gear besides that of the guide. */
  gear: yup.array(line(80).required()).strict(true),
})

/** A space that can hold pressure, what shuts it off and what vents it. */
export const zoneSchema = strictObject({
  id: slug<'zone'>().required(),
  title: line(80).required(),
  /** Absent where only what feeds it shuts it off. */
  shutBy: names<'valve'>(),
  /** Of those, what shuts a supply of its own, besides what another space feeds it. */
  ownSupply: names<'valve'>(),
  ventedBy: names<'valve'>().required(),
  /** Vents that stay shut, since they are live. */
  neverVentedBy: names<'valve'>(),
  /** Vents that stand open while the medium comes back, for the air to leave by; every other one is shut by then. */
  filledThrough: names<'valve'>(),
  /** Spaces that it feeds through the equipment: past a seat, through a pilot. They hold what they got. */
  feeds: names<'zone'>(),
})
export type GuideZone = yup.InferType<typeof zoneSchema>

export const fastenerSchema = strictObject({
  id: slug<'fastener'>().required(),
  title: line(80).required(),
  /** Part that they hold. */
  holds: slug<'part'>().required(),
  /** The setting that they lock: it is turned while they are loose. */
  locks: slug<'adjustment'>(),
  /** Slot with their number, where they stand in a circle. */
  count: slug<'slot'>(),
})
