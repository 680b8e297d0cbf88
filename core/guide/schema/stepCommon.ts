import * as yup from 'yup'
import { integer, line, prose, strictObject } from '../../schema'
import { oneOf, ref, refs } from './fields'

/** Stations of a visit in which a guide’s steps are carried out. */
export const guideStations = [
  'prepare',
  'arrive',
  'as-found',
  'make-safe',
  'open-up',
  'rebuild',
  'return',
  'as-left',
] as const
export type GuideStation = (typeof guideStations)[number]

/** Findings that must all be there: part or question → those of it that count. */
export type Found = Readonly<Record<string, readonly string[]>>

const allThere = (wanted: Found, found: ReadonlyMap<string, string>) =>
  Object.entries(wanted).every(([name, ids]) => ids.includes(found.get(name) ?? ''))

interface Conditions {
  readonly when?: Found | undefined
  readonly whenAny?: readonly Found[] | undefined
}

/** Whether a step’s conditions are met by what was found so far. */
export const isMet = ({ when = {}, whenAny }: Conditions, found: ReadonlyMap<string, string>) =>
  allThere(when, found) && (!whenAny || whenAny.some((way) => allThere(way, found)))

/** Everything that a step’s conditions name. */
export const conditionsOf = ({ when = {}, whenAny = [] }: Conditions) =>
  [when, ...whenAny].flatMap((way) => Object.entries(way))

const noteOption = strictObject({ school: line(60).required(), says: prose(300).required() })

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

/** What a step of any verb may say besides what it does. */
export const commonShape = {
  at: oneOf(guideStations),
  /** The sentence that is read, in the imperative. */
  say: line(200),
  why: prose(400),
  tip: prose(300),
  never: prose(300),
  hazard: prose(300),
  /** Variants in which the step is done; all when absent. */
  only: refs<'variant'>(),
  /** Sub-jobs of which it is part: done when one of them is in hand. */
  jobs: refs<'job'>(),
  /** Sub-jobs with which it is not done. */
  without: refs<'job'>(),
  /** Findings and answers under which it is done: part or question → verdicts. */
  when: yup.mixed<Found>(),
  /** Of these sets of findings any one must be there. */
  whenAny: yup.array(yup.mixed<Found>().required()).strict(true).min(2).max(6),
  school: yup.array(noteOption.required()).strict(true).min(2),
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
  /** A figure of the spec sheet that the step shows. */
  slot: ref<'slot'>(),
  /** What is written down at the step: “Turns of the adjuster”. */
  writes: line(60),
  /** Every shutoff that is shut has a lock or tag on record. */
  locked: yup.boolean().strict(true),
  /** Done with the air on, where hands otherwise stay out. */
  withAir: yup.boolean().strict(true),
  /** What has been put in, as a tool or a guard, and has to be in while it is done. */
  withAid: ref(),
  /** How the equipment lies while it is done, by the name that a “position” gives. */
  lying: ref(),
  /** What is unlike the first time, where a sub-guide is gone through again. */
  differs: prose(300),
}
