import * as yup from 'yup'
import {
  amount,
  anyQuantity,
  integer,
  line,
  localDate,
  number,
  prose,
  slug,
  strictObject,
} from '../../../schema'
import { kind } from '../kind'
import { station } from './fields'

const version = () => integer(1, 9999)
/** Place of a step in the guide, as 12 or 7.3. */
const step = () =>
  yup
    .string()
    .strict(true)
    .matches(/^\d{1,3}(\.\d{1,3}){0,3}$/, 'must be the place of a step, as 7.3')

/** What is done by a job guide, made safe and counted. */
export const guideKinds = {
  'guide-chosen': kind(
    strictObject({
      guideId: slug().required(),
      version: version().required(),
      variant: slug().required(),
      /** Sub-jobs that are done besides what every visit does. */
      jobs: yup.array(slug().required()).strict(true).max(6).default(undefined).optional(),
      /** The spec sheet whose figures and kit hold. */
      sheet: strictObject({ id: slug().required(), version: version().required() })
        .default(undefined)
        .optional(),
    }),
  ),
  /** A value that the guide needs and no sheet in the library has, with where it comes from. */
  'guide-value': kind(
    strictObject({
      slot: slug().required(),
      value: line(40).required(),
      unit: line(12),
      source: line(160).required(),
    }),
  ),
  'guide-step': kind(
    strictObject({
      step: step().required(),
      /** Its station, so that a reopened visit knows what to do again. */
      at: station().required(),
      finding: slug(),
      /** Defects seen, of the closed list of the step. */
      defects: yup.array(line(40).required()).strict(true).max(20),
      /** A setting as it was found: turns, height, scale. */
      setting: line(80),
      /** How often a repeat went round. */
      rounds: integer(1, 99),
      /** Both projections of a shuttle that was thrown both ways. */
      throws: strictObject({ one: amount('length').required(), other: amount('length').required() })
        .default(undefined)
        .optional(),
      /** A photograph is asked for, and the work goes on without one. */
      unphotographed: yup.boolean().strict(true).oneOf([true]),
      /** Grooves and rings, counted before the first ring goes on. */
      counted: strictObject({
        grooves: integer(1, 99).required(),
        rings: integer(0, 99).required(),
      })
        .default(undefined)
        .optional(),
      /** How many pieces came off, went in, or were counted, where there is more than one place. */
      pieces: integer(0, 200),
      /** What fasteners were tightened to, as the wrench was set. */
      tightened: amount('torque')
        .shape({ fastener: slug().required() })
        .default(undefined)
        .optional(),
      /** A temporary repair: who permitted it, and by when it is renewed. */
      temporary: strictObject({ until: localDate().required(), permittedBy: line(120).required() })
        .default(undefined)
        .optional(),
      /** Why it was done out of order or against the house’s policy, when it was. */
      departure: prose(500),
    }),
    { undone: true },
  ),
  /** One round over the fasteners of a soft joint. */
  'guide-round': kind(
    strictObject({
      step: step().required(),
      moved: yup.boolean().strict(true).required(),
    }),
    { undone: true },
  ),
  /** The clock of a step that waits was started. */
  'guide-timer': kind(strictObject({ step: step().required() }), { undone: true }),
  /** A check failed: the work is taken up again from an earlier step of the station. */
  'guide-redo': kind(strictObject({ from: step().required(), reason: prose(500).required() })),
  'zone-proved': kind(
    strictObject({
      zone: slug().required(),
      reading: anyQuantity().required(),
      heldMinutes: number(0, 240).required(),
      by: line(120).required(),
    }),
    { undone: true },
  ),
  lock: kind(
    strictObject({
      element: slug().required(),
      /** Number on the padlock or tag. */
      number: line(40).required(),
      on: yup.boolean().strict(true).required(),
    }),
    { undone: true },
  ),
  /** One line of getting ready: a tool, gear, the manual, the agreed shutdown. */
  prepared: kind(
    strictObject({
      item: line(120).required(),
      state: yup
        .string()
        .strict(true)
        .oneOf(['ready', 'substitute', 'missing'] as const)
        .required(),
      remark: line(200),
    }),
    { undone: true },
  ),
  'kit-taken': kind(
    strictObject({
      /** Number on the bag. */
      number: line(60).required(),
      /** The sub-job whose own kit it is. */
      job: slug(),
      how: yup
        .string()
        .strict(true)
        .oneOf(['typed', 'scanned'] as const)
        .required(),
      items: yup
        .array(
          strictObject({ item: slug().required(), count: integer(0, 200).required() }).required(),
        )
        .strict(true)
        .max(60)
        .required(),
      /** Why work goes on with a kit that is short, or another than the sheet’s. */
      departure: prose(500),
    }),
  ),
  'kit-closed': kind(
    strictObject({
      lines: yup
        .array(
          strictObject({
            item: slug().required(),
            used: integer(0, 200).required(),
            spare: integer(0, 200).required(),
            /** Not needed after all; goes back. */
            left: integer(0, 200).required(),
            missing: integer(0, 200).required(),
            /** Compartments that were empty by design. */
            empty: integer(0, 200).required(),
          }).required(),
        )
        .strict(true)
        .max(60)
        .required(),
    }),
  ),
} as const
