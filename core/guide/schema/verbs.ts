import * as yup from 'yup'
import { type Compound, compounds, type Lubricant, lubricants } from '../../craft'
import { integer, line, slug, strictObject } from '../../schema'
import { facings } from './equipment'
import { oneOf, ref, refs } from './fields'

/** Lists of a guide that a step’s names point into. */
export type NameList =
  'part' | 'zone' | 'kit' | 'slot' | 'spring' | 'adjustment' | 'fastener' | 'variant' | 'job'

export interface VerbEntry {
  /** What stands behind the verb: a name, a sentence, a choice. */
  readonly object: yup.Schema
  /** What else a step of this verb says. */
  readonly fields: yup.ObjectShape
  /** Which list each name of it points into; `object` is what stands behind the verb. */
  readonly refers: Readonly<Record<string, readonly NameList[]>>
}

export const verb = <O extends yup.Schema, F extends yup.ObjectShape = Record<never, never>>(
  object: O,
  { fields = {} as F, refers = {} }: { fields?: F; refers?: VerbEntry['refers'] } = {},
) => ({ object, fields, refers })

const flag = () => yup.boolean().strict(true)

const tightenTo = strictObject({
  torque: slug<'slot'>(),
  ceiling: slug<'slot'>(),
  turn: line(60),
  snug: flag(),
  effect: line(120),
  /** The thread that the figure is for: grease on a thread meant to be dry overstretches it. */
  thread: oneOf(['dry', 'treated'] as const),
}).test(
  'one-way',
  'needs one of torque, ceiling, turn, snug, effect',
  ({ torque, ceiling, turn, snug, effect }) =>
    [torque, ceiling, turn, snug, effect].some((way) => way !== undefined && way !== false),
)

/**
 * What an inspection can decide; `turn-over` is a temporary repair, `order` ends the work safely until the
 * part has come.
 */
const verdictIds = [
  'keep',
  'clean',
  'renew',
  'turn-over',
  'renew-assembly',
  'renew-body',
  'order',
  'stop',
] as const
export type InspectionVerdict = (typeof verdictIds)[number]

const verdictSchema = strictObject({
  id: oneOf(verdictIds).required(),
  title: line(80).required(),
  /** Defects that it puts right without a new part, besides dirt: a hose end that is cut off. */
  mends: yup.array(line(40).required()).strict(true).min(1),
  /** The sub-job by which it widens the visit. */
  widens: ref<'job'>(),
})

const answerSchema = strictObject({
  id: slug().required(),
  title: line(120).required(),
  widens: ref<'job'>(),
})

const speed = oneOf(['slow', 'normal'] as const)
/** How much of a lubricant or compound, and where on the part. */
const applied = { amount: line(60), where: line(120) }
/** How a part lies when it goes in, and where the drawing beside that points. */
const oriented = { orient: line(200), facing: oneOf(facings) }

/**
 * What has to be so before the work goes on: the cautions are read, the hazard of this equipment is known and met,
 * the people concerned were informed, the person is qualified, the owner or the authority gave permission.
 */
const gates = ['acknowledge', 'hazard', 'told', 'qualified', 'permission'] as const

/** What a step can do, besides doing others again. A step names exactly one. */
export const leafVerbs = {
  do: verb(flag()),
  /** How the equipment lies or stands from here on. */
  position: verb(line(120), {
    fields: {
      /** By what name steps ask for it: “disc-up”. */
      lies: ref().required('is missing: a name for how it lies, as “disc-up”'),
    },
  }),
  gate: verb(oneOf(gates)),
  /** A question by its name, to the customer or to the eye; what is done later may hang on its answer. */
  ask: verb(ref<'question'>(), {
    fields: {
      answers: yup
        .array(answerSchema.required())
        .strict(true)
        .min(2)
        .max(6)
        .required('is missing: a question has its answers'),
    },
  }),
  require: verb(line(200), {
    fields: {
      otherwise: line(200).required('is missing: where to go when the precondition does not hold'),
      /** The guide that is the one then. */
      leadsTo: slug<'guide'>(),
    },
  }),
  snapshot: verb(ref<'adjustment'>(), { refers: { object: ['adjustment'] } }),
  restore: verb(ref<'adjustment'>(), { refers: { object: ['adjustment'] } }),
  isolate: verb(ref<'valve'>(), { fields: { speed } }),
  reopen: verb(ref<'valve'>(), {
    fields: { speed, degree: oneOf(['crack', 'half', 'full'] as const) },
  }),
  vent: verb(refs<'valve'>()),
  shut: verb(refs<'valve'>()),
  prove: verb(ref<'zone'>(), { refers: { object: ['zone'] } }),
  relieve: verb(ref<'spring'>(), { refers: { object: ['spring'] } }),
  mark: verb(ref()),
  match: verb(ref()),
  photograph: verb(line(120)),
  air: verb(oneOf(['on', 'off'] as const)),
  power: verb(oneOf(['on', 'off'] as const)),
  liftIn: verb(ref()),
  liftOut: verb(ref()),
  loosen: verb(ref<'fastener'>(), {
    fields: {
      /** Fasteners that come last, or stay part-threaded, in words. */
      lastOnes: line(120),
      leavePart: integer(1, 20),
    },
    refers: { object: ['fastener'] },
  }),
  remove: verb(ref<'part'>(), {
    fields: {
      /** Part with which it may have come away already; else it stayed behind. */
      mayComeWith: ref<'part'>(),
      controlled: flag(),
      keepFor: oneOf(['refit', 'discard', 'warranty'] as const),
    },
    refers: { object: ['part'], mayComeWith: ['part'] },
  }),
  discard: verb(ref<'part'>(), { refers: { object: ['part'] } }),
  inspect: verb(ref<'part'>(), {
    fields: {
      defects: yup
        .array(line(40).required())
        .strict(true)
        .min(1)
        .required('is missing: an inspection has a closed list of defects'),
      by: yup
        .array(oneOf(['eye', 'touch', 'feel'] as const).required())
        .strict(true)
        .min(1),
      verdicts: yup
        .array(verdictSchema.required())
        .strict(true)
        .min(1)
        .required('is missing: an inspection has its verdicts'),
    },
    refers: { object: ['part'] },
  }),
  clean: verb(ref<'part'>(), { refers: { object: ['part'] } }),
  lubricate: verb(ref<'part'>(), {
    fields: {
      with: oneOf<Lubricant>(Object.keys(lubricants) as Lubricant[]).required(
        'is missing: which lubricant',
      ),
      /** Kit item that it uses up: the sachet. */
      from: ref<'kit'>(),
      ...applied,
    },
    refers: { object: ['part'], from: ['kit'] },
  }),
  /** Part or fasteners that get a compound on their thread or edge. */
  treat: verb(ref<'part' | 'fastener'>(), {
    fields: {
      compound: oneOf<Compound>(Object.keys(compounds) as Compound[]).required(
        'is missing: thread-lock, anti-seize or assembly',
      ),
      ...applied,
    },
    refers: { object: ['part', 'fastener'] },
  }),
  renew: verb(ref<'part'>(), {
    fields: {
      /** Kit item that takes the part’s place. */
      from: ref<'kit'>().required('is missing: the kit item that takes its place'),
      ...oriented,
    },
    refers: { object: ['part'], from: ['kit'] },
  }),
  fit: verb(ref<'part'>(), { fields: oriented, refers: { object: ['part'] } }),
  tighten: verb(ref<'fastener'>(), {
    fields: {
      to: tightenTo.required('is missing: a torque, a ceiling, a turn, snug, or an effect'),
      pattern: oneOf(['cross', 'pairs-first', 'even', 'none'] as const),
      untilNoneMoves: flag(),
      rounds: ref<'slot'>(),
      /** Kit item with new ones that go in instead of the old. */
      from: ref<'kit'>(),
    },
    refers: { object: ['fastener'], rounds: ['slot'], from: ['kit'] },
  }),
  set: verb(ref<'adjustment'>(), { refers: { object: ['adjustment'] } }),
  hold: verb(ref<'slot'>(), {
    fields: {
      /** The parts that need their time. */
      of: refs<'part'>(),
    },
    refers: { object: ['slot'] },
  }),
  count: verb(line(80), {
    fields: {
      measure: oneOf(['grooves'] as const),
      /** The parts that are counted. */
      of: refs<'part'>(),
      /** Grooves that stay empty on purpose, and those that take a ring and a slide ring over it. */
      emptyOnPurpose: integer(0, 20),
      doubled: integer(0, 20),
    },
  }),
  /** What is tried, counted or measured, and held against what it must be. */
  trial: verb(line(200), {
    fields: {
      measure: oneOf(['throws'] as const),
      /** The part that is tried, where the machine says that one has to be. */
      of: refs<'part'>(),
    },
  }),
  test: verb(line(200)),
  temporary: verb(line(200), { fields: { expires: flag() } }),
  include: verb(ref<'sub-guide'>(), {
    fields: {
      parameters: yup.mixed<Readonly<Record<string, string>>>(),
      /** A sub-guide for each of a set: one map of parameters a member. */
      each: yup
        .array(yup.mixed<Readonly<Record<string, string>>>().required())
        .strict(true)
        .min(2)
        .max(12),
    },
  }),
}
