import * as yup from 'yup'
import { type Compound, compounds, type Lubricant, lubricants } from '../../craft'
import { integer, line, prose, slug, strictObject } from '../../schema'
import { facings } from './equipment'
import { oneOf, ref, refs } from './fields'

/** Stations of a visit in which a guide’s steps are carried out. */
export const guideStations = [
  'prepare',
  'make-safe',
  'open-up',
  'rebuild',
  'return',
  'as-left',
] as const
export type GuideStation = (typeof guideStations)[number]

const noteOption = strictObject({ school: line(60).required(), says: prose(300).required() })

type Way = 'torque' | 'ceiling' | 'turn' | 'snug' | 'effect'

const tightenTo = strictObject({
  torque: slug(),
  ceiling: slug(),
  turn: line(60),
  snug: yup.boolean().strict(true),
  effect: line(120),
  /** The thread that the figure is for: grease on a thread meant to be dry overstretches it. */
  thread: oneOf(['dry', 'treated'] as const),
}).test(
  'one-way',
  'needs one of torque, ceiling, turn, snug, effect',
  (v: Partial<Record<Way, unknown>> | undefined) =>
    !v || [v.torque, v.ceiling, v.turn, v.snug, v.effect].some(Boolean),
)

/** A turn of the hand or of a screw, and what it does: “clockwise raises the disc”. */
const turnSchema = strictObject({
  way: oneOf(['clockwise', 'counter-clockwise'] as const).required(),
  by: line(60),
  effect: line(120).required(),
})
export type Turn = yup.InferType<typeof turnSchema>

/** How it is made sure that something sits. */
export const seatChecks = {
  look: 'Look',
  tug: 'Tug at it',
  wiggle: 'Wiggle it',
  'run-round': 'Run a rounded tool all the way round',
  slide: 'Slide it to and fro and feel',
} as const
type SeatCheck = keyof typeof seatChecks

/** What an inspection can decide; `turn-over` is a temporary repair. */
const verdictIds = [
  'keep',
  'clean',
  'renew',
  'turn-over',
  'renew-assembly',
  'renew-body',
  'stop',
] as const
export type InspectionVerdict = (typeof verdictIds)[number]

const verdictSchema = strictObject({
  id: oneOf(verdictIds).required(),
  title: line(80).required(),
  /** Defects that it puts right without a new part, besides dirt: a hose end that is cut off. */
  mends: yup.array(line(40).required()).strict(true).min(1),
})

/** What a step does, one of these. */
export const verbs = [
  'do',
  'position',
  'gate',
  'require',
  'snapshot',
  'restore',
  'isolate',
  'reopen',
  'vent',
  'shut',
  'prove',
  'relieve',
  'mark',
  'match',
  'photograph',
  'air',
  'power',
  'liftIn',
  'liftOut',
  'loosen',
  'remove',
  'discard',
  'inspect',
  'clean',
  'lubricate',
  'treat',
  'renew',
  'fit',
  'tighten',
  'set',
  'hold',
  'count',
  'trial',
  'test',
  'temporary',
  'repeat',
  'include',
] as const
export type Verb = (typeof verbs)[number]

/** A step can hold steps: in a published schema it is named, not written out. */
export const lazyStep = yup
  .lazy((): yup.Schema<unknown> => stepSchema.required())
  .meta({ jsonSchema: { $ref: '#/$defs/step' } }) as yup.Lazy<unknown>

export const stepSchema = strictObject({
  at: oneOf(guideStations),
  /** The sentence that is read, in the imperative. */
  say: line(200),
  why: prose(400),
  tip: prose(300),
  never: prose(300),
  hazard: prose(300),
  /** Variants in which the step is done; all when absent. */
  only: refs(),
  /** Findings under which it is done: part → verdicts. */
  when: yup.mixed<Readonly<Record<string, readonly string[]>>>(),
  school: yup.array(noteOption.required()).strict(true).min(2),

  do: yup.boolean().strict(true),
  /** People who lift together: what is heavy for one. */
  people: integer(2, 4),
  /** Hands that work at the same moment. */
  together: line(200),
  /** Actions that take turns within the step, in their order. */
  inTurn: yup.array(line(120).required()).strict(true).min(2).max(6),
  /** Which way it is turned, and what that does. */
  turns: yup.array(turnSchema.required()).strict(true).min(1).max(3),
  /** How it is made sure that it sits: the step then asks. */
  verify: yup
    .array(oneOf(Object.keys(seatChecks) as SeatCheck[]).required())
    .strict(true)
    .min(1),
  /** Its own name, so that a failed check can send back to it. */
  name: ref(),
  /** Named step from which the work is taken up again when the check fails. */
  redoFrom: ref(),
  /** How the equipment lies or stands from here on. */
  position: line(120),
  gate: oneOf(['acknowledge', 'qualified', 'permission'] as const),
  require: line(200),
  otherwise: line(200),
  snapshot: ref(),
  restore: ref(),
  isolate: ref(),
  speed: oneOf(['slow', 'normal'] as const),
  degree: oneOf(['crack', 'half', 'full'] as const),
  reopen: ref(),
  vent: refs(),
  shut: refs(),
  prove: ref(),
  relieve: ref(),
  mark: ref(),
  match: ref(),
  photograph: line(120),
  air: oneOf(['on', 'off'] as const),
  power: oneOf(['on', 'off'] as const),
  liftIn: ref(),
  liftOut: ref(),
  loosen: ref(),
  /** Fasteners that come last, or stay part-threaded, in words. */
  lastOnes: line(120),
  leavePart: integer(1, 20),
  remove: ref(),
  /** Part with which it may have come away already; else it stayed behind. */
  mayComeWith: ref(),
  controlled: yup.boolean().strict(true),
  keepFor: oneOf(['refit', 'discard', 'warranty'] as const),
  withAir: yup.boolean().strict(true),
  discard: ref(),
  inspect: ref(),
  defects: yup.array(line(40).required()).strict(true).min(1),
  by: yup
    .array(oneOf(['eye', 'touch', 'feel'] as const).required())
    .strict(true)
    .min(1),
  verdicts: yup.array(verdictSchema.required()).strict(true).min(2),
  clean: ref(),
  lubricate: ref(),
  with: oneOf<Lubricant>(Object.keys(lubricants) as Lubricant[]),
  /** Part or fasteners that get a compound on their thread or edge. */
  treat: ref(),
  compound: oneOf<Compound>(Object.keys(compounds) as Compound[]),
  /** How much of a lubricant or compound, and where on the part. */
  amount: line(60),
  where: line(120),
  renew: ref(),
  /** Kit item that takes the part’s place. */
  from: ref(),
  fit: ref(),
  orient: line(200),
  /** Where the drawing beside `orient` points. */
  facing: oneOf(facings),
  tighten: ref(),
  to: tightenTo.default(undefined).optional(),
  pattern: oneOf(['cross', 'pairs-first', 'even', 'none'] as const),
  untilNoneMoves: yup.boolean().strict(true),
  rounds: ref(),
  set: ref(),
  hold: ref(),
  count: line(80),
  slot: ref(),
  trial: line(200),
  /** What is measured or counted and held against what it must be: throws of a shuttle, grooves and rings. */
  measure: oneOf(['throws', 'grooves'] as const),
  /** Grooves that stay empty on purpose, and those that take a ring and a slide ring over it. */
  emptyOnPurpose: integer(0, 20),
  doubled: integer(0, 20),
  test: line(200),
  temporary: line(200),
  expires: yup.boolean().strict(true),
  repeat: yup.array(lazyStep).strict(true).min(1),
  until: line(160),
  most: integer(1, 50),
  include: ref(),
  parameters: yup.mixed<Readonly<Record<string, string>>>(),
  /** A sub-guide for each of a set: one map of parameters a member. */
  each: yup
    .array(yup.mixed<Readonly<Record<string, string>>>().required())
    .strict(true)
    .min(2)
    .max(12),
  differs: prose(300),
})

export interface GuideStep extends Omit<yup.InferType<typeof stepSchema>, 'repeat'> {
  readonly repeat?: readonly GuideStep[] | undefined
}

/** The one verb of a step; undefined when it has none. */
export const verbOf = (step: GuideStep): Verb | undefined =>
  verbs.find((v) => step[v] !== undefined)
