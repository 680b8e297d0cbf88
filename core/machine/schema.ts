import * as yup from 'yup'
import { integer, line, localDate, number, prose, slug, strictObject } from '../schema'

const names = () => yup.array(slug().required()).strict(true).min(1)
const words = () => yup.array(line(80).required()).strict(true).min(1)
const oneOf = <T extends string>(list: readonly T[]) => yup.string<T>().strict(true).oneOf(list)

/** What a part is made of, as its section is hatched. */
export const materials = [
  'iron',
  'steel',
  'brass',
  'aluminium',
  'plastic',
  'rubber',
  'fibre',
] as const
export type Material = (typeof materials)[number]

/** What a part is, besides what it is called. */
export const partKinds = [
  'body',
  'cover',
  'cap',
  'fastener',
  'washer',
  'spring',
  'diaphragm',
  'plate',
  'stem',
  'piston',
  'disc',
  'holder',
  'seat',
  'o-ring',
  'gasket',
  'lip-seal',
  'ring',
  'pin',
  'clip',
  'tube',
  'bush',
  'lever',
  'screen',
  'fitting',
] as const

/** What is done about a defect. */
const remedies = [
  'clean',
  'renew',
  'renew-assembly',
  'renew-body',
  'widen',
  'order',
  'stop',
] as const

const defectSchema = strictObject({
  what: line(80).required(),
  remedy: oneOf(remedies).required(),
  /** What goes with it, or the job that it widens to. */
  with: line(120),
})

const z = () => number(-400, 400).required()
const r = () => number(0, 400).required()
const tuple = (...of: yup.Schema<number>[]) =>
  yup.tuple(of as never).required() as unknown as yup.Schema<number[]>
const listOf = (...of: yup.Schema<number>[]) =>
  yup
    .array(tuple(...of))
    .strict(true)
    .min(1)
    .max(60)

/**
 * The shape of a part on one of the machine’s axes, in relative units: z along the axis, r from it.
 * A section is these profiles mirrored about the axis.
 */
const profileSchema = strictObject({
  /** Axis it turns about; the first when absent. */
  axis: slug(),
  /** Solids of revolution: z from and to, r from and to. */
  seg: listOf(z(), z(), r(), r()),
  /** Rings in their grooves, cut: z and r of the middle, and how thick. */
  rings: listOf(z(), r(), r()),
  /** A coil: z from and to, its radius, turns. */
  coil: tuple(z(), z(), r(), number(1, 40).required()).default(undefined).optional(),
  /** Fasteners round the axis: their radius, z of the point, z of the head. */
  bolts: tuple(r(), z(), z()).default(undefined).optional(),
  /** Walls that are no solid of revolution: outlines in the plane of the section, x to the right. */
  walls: yup
    .array(
      yup
        .array(tuple(number(-400, 400).required(), z()))
        .strict(true)
        .min(3)
        .max(60)
        .required(),
    )
    .strict(true)
    .min(1),
  /** Which way it leaves when the machine is taken apart; the body stays. */
  leaves: oneOf(['up', 'down', 'stays'] as const),
  /** How it leaves where it does not move along its axis: then no profile says whether it passes. */
  aside: line(120),
  /** Bent by hand into a groove and out of it, though it is no rubber. */
  snaps: yup.boolean().strict(true),
})

const partSchema = strictObject({
  id: slug().required(),
  title: line(80).required(),
  /** What people also call it. */
  also: words(),
  kind: oneOf(partKinds).required(),
  material: oneOf(materials).required(),
  /** The part that it sits in, on, under or around. */
  sits: oneOf(['in', 'on', 'under', 'around'] as const),
  of: slug(),
  /** Parts that must be off before it can come off. */
  behind: names(),
  /** Another way out: through these it comes off with the others in place. */
  orBehind: names(),
  /** Parts that must be off before it can be seen; those that bar its way when absent. */
  hidden: names(),
  /** Options of the machine that have it; all when absent. */
  only: names(),
  count: integer(1, 200),
  /** Slot of the spec sheet with its number. */
  countSlot: slug(),
  soft: yup.boolean().strict(true),
  /** It breaks where it catches: it goes into a bore in sight, by itself. */
  brittle: yup.boolean().strict(true),
  /** It falls out, or stays behind unseen, once what holds it is off. */
  loose: yup.boolean().strict(true),
  /** It is stretched as it goes on, and needs its time to come back before it goes in. */
  rests: yup.boolean().strict(true),
  /** What is tried with it by hand once it is in, before the machine is closed. */
  tried: line(120),
  /** Element of the model that it is: what is renewed here is renewed there. */
  element: slug(),
  /** How it goes in, and by what that is told. */
  way: line(200),
  recognise: line(200),
  defects: yup.array(defectSchema.required()).strict(true).min(1),
  /** Where a lubricant goes on it, and which; or that none ever does. */
  lubricant: strictObject({
    use: oneOf(['film', 'pack', 'dry', 'never'] as const).required(),
    say: line(160),
  })
    .default(undefined)
    .optional(),
  draw: profileSchema.required(),
})
export type MachinePart = yup.InferType<typeof partSchema>

const jointSchema = strictObject({
  id: slug().required(),
  title: line(80).required(),
  /** Part that are the fasteners, what they hold, and to what. */
  fasteners: slug().required(),
  holds: slug().required(),
  to: slug().required(),
  layout: oneOf(['circle', 'rectangle', 'oblong', 'pair', 'single', 'thread'] as const).required(),
  /** Slots of the spec sheet with their number and their torque. */
  count: slug(),
  torque: slug(),
  /** How tight where no figure is given. */
  effect: line(120),
  thread: oneOf(['dry', 'treated'] as const),
  /** Spring that pushes against what they hold. */
  preload: slug(),
  /** Which come last, or first. */
  order: line(160),
})

const spaceSchema = strictObject({
  id: slug().required(),
  title: line(80).required(),
  fedBy: line(120).required(),
  shutBy: line(160).required(),
  ventedBy: line(160).required(),
  provedBy: line(160).required(),
  /** Parts that open it when they come off. */
  opensWith: names(),
})

const kitSchema = strictObject({
  id: slug().required(),
  title: line(120).required(),
  parts: names().required(),
  only: names(),
})

/** One machine, as it is physically there. */
export const machineSchema = strictObject({
  id: slug().required(),
  version: integer(1, 9999).required(),
  date: localDate().required(),
  title: line(120).required(),
  also: words(),
  does: prose(600).required(),
  source: prose(600).required(),
  families: names().required(),
  /** Options by which builds differ, each of one axis of variation. */
  options: yup
    .array(
      strictObject({
        id: slug().required(),
        title: line(80).required(),
        /** Options of the same name exclude each other. */
        group: slug().required(),
      }).required(),
    )
    .strict(true),
  axes: yup
    .array(
      strictObject({
        id: slug().required(),
        at: tuple(number(-400, 400).required(), number(-400, 400).required()),
        /** 0 stands, 90 lies with its head to the right, in degrees. */
        tilt: number(-180, 180).required(),
      }).required(),
    )
    .strict(true)
    .min(1)
    .required(),
  /** In the order in which they come off, on each axis. */
  parts: yup.array(partSchema.required()).strict(true).min(2).max(120).required(),
  joints: yup.array(jointSchema.required()).strict(true),
  spaces: yup.array(spaceSchema.required()).strict(true),
  /** What is held back in it, by what, and what lets it out. */
  energy: yup
    .array(
      strictObject({
        what: line(120).required(),
        heldBy: line(160).required(),
        letOut: line(200).required(),
      }).required(),
    )
    .strict(true),
  tools: yup
    .array(strictObject({ title: line(120).required(), instead: line(120) }).required())
    .strict(true),
  consumables: yup
    .array(
      strictObject({ title: line(120).required(), where: line(200), never: line(200) }).required(),
    )
    .strict(true),
  kits: yup.array(kitSchema.required()).strict(true),
  /** Where practitioners differ, and which way is the house’s. */
  differ: yup
    .array(
      strictObject({
        point: line(160).required(),
        house: line(200).required(),
        others: line(200),
        /** Parts, fasteners or settings at which it matters, and what is being done with them. */
        at: names(),
        doing: yup.array(line(20).required()).strict(true).min(1),
      }).required(),
    )
    .strict(true),
  symptoms: yup
    .array(
      strictObject({
        sign: line(160).required(),
        look: names().required(),
        first: line(200),
      }).required(),
    )
    .strict(true),
  /** What hurts before anything is opened, besides pressure: whoever works on it confirms that it is met. */
  hazard: line(200),
  /** What the maker’s sheet alone can say. */
  gaps: yup.array(line(200).required()).strict(true),
})
export type Machine = yup.InferType<typeof machineSchema>
