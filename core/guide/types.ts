import * as yup from 'yup'
import { type Lubricant, lubricants } from '../craft'
import { integer, line, localDate, prose, slug, strictObject } from '../schema'
import {
  facings,
  fastenerSchema,
  kitItemSchema,
  named,
  partSchema,
  slotSchema,
  zoneSchema,
} from './equipment'
import { names, oneOf, ref, refs } from './fields'

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

const tightenTo = strictObject({
  torque: slug(),
  ceiling: slug(),
  turn: line(60),
  snug: yup.boolean().strict(true),
  effect: line(120),
}).test(
  'one-way',
  'needs one of torque, ceiling, turn, snug, effect',
  (v) => !v || [v.torque, v.ceiling, v.turn, v.snug, v.effect].some(Boolean),
)

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
})

/** What a step does, one of these. */
export const verbs = [
  'do',
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
const lazyStep = yup
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
  /** What a trial measures and compares: both throws of a shuttle. */
  measure: oneOf(['throws'] as const),
  test: line(200),
  temporary: line(200),
  expires: yup.boolean().strict(true),
  repeat: yup.array(lazyStep).strict(true).min(1),
  until: line(160),
  most: integer(1, 50),
  include: ref(),
  parameters: yup.mixed<Readonly<Record<string, string>>>(),
  differs: prose(300),
})

export interface GuideStep extends Omit<yup.InferType<typeof stepSchema>, 'repeat'> {
  readonly repeat?: readonly GuideStep[] | undefined
}

const body = {
  id: slug().required(),
  version: integer(1, 9999).required(),
  date: localDate().required(),
  title: line(120).required(),
  source: prose(600).required(),
  steps: yup
    .array(lazyStep as never)
    .strict(true)
    .min(1)
    .required(),
}

/** A job guide as its file says it. */
export const guideSchema = strictObject({
  ...body,
  family: slug().required(),
  /** Further families that are serviced the same way. */
  alsoFor: names(),
  service: oneOf(['water', 'gas', 'air', 'product'] as const).required(),
  /** How the equipment stands when the guide begins. */
  startsWith: line(200),
  variants: yup.array(named.required()).strict(true).min(1).required(),
  parts: yup.array(partSchema.required()).strict(true).min(1).required(),
  zones: yup.array(zoneSchema.required()).strict(true),
  fasteners: yup.array(fastenerSchema.required()).strict(true),
  springs: yup.array(named.required()).strict(true),
  adjustments: yup.array(named.required()).strict(true),
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

/** The one verb of a step; undefined when it has none. */
export const verbOf = (step: GuideStep): Verb | undefined =>
  verbs.find((v) => step[v] !== undefined)
