import * as yup from 'yup'
import { openings } from '../../../apparatus'
import { isTimeZone } from '../../../calendar'
import { pinsSchema } from '../../../library'
import {
  anyQuantity,
  displayed,
  integer,
  line,
  localDate,
  prose,
  slug,
  strictObject,
  timeOfDay,
  uuid,
} from '../../../schema'
import { kind } from '../kind'
import { equipmentSnapshot, previousSnapshot, tightenedSnapshot } from '../snapshots'
import { type CheckOutcome, checkOutcomes, purposes } from '../words'
import { run, station } from './fields'

/** What the check across the fields of an identity looks at; any may still be missing. */
type Identity = Partial<
  Record<'outcome' | 'seenSerial' | 'seenTag' | 'decision' | 'reason', string | undefined>
>

/** What is planned, seen, done and said on any visit. */
export const visitKinds = {
  planned: kind(
    strictObject({
      purpose: yup.string().strict(true).oneOf(purposes).required(),
      plannedOn: localDate().required(),
      /** Time of day at which the customer expects us, as 08:30. */
      time: timeOfDay(),
      /** Rule pack of the field test; a family without one is judged by its function check. */
      packId: slug(),
      packVersion: integer(1, 9999),
      /** What its verdicts rest on; absent in logs from before this was written down. */
      pins: pinsSchema.default(undefined).optional(),
      equipment: equipmentSnapshot.required(),
      /** Parts that were ordered for it. */
      bring: yup.array(line(120).required()).strict(true).max(10).default(undefined).optional(),
      /** What the visit before left it at. */
      previous: previousSnapshot.default(undefined).optional(),
      tightened: tightenedSnapshot(),
      /** The zone of its legal dates, and how far a device’s own may be from it; absent in older logs. */
      zone: strictObject({
        name: line(60)
          .test('zone', 'must be a time zone', (name) => name == null || isTimeZone(name))
          .required(),
        /** Minutes. */
        within: integer(0, 840).required(),
      })
        .default(undefined)
        .optional(),
    }),
    { by: 'server' },
  ),
  /** Newer versions came into force before the visit was begun. */
  pinned: kind(strictObject({ pins: pinsSchema.required() }), { by: 'server' }),
  /** The office planned it for another day, another time or another technician. */
  replanned: kind(
    strictObject({
      plannedOn: localDate().required(),
      time: timeOfDay(),
      technicianId: uuid<'person'>().required(),
      technician: line(120).required(),
      why: prose(500),
    }),
    { by: 'server' },
  ),
  /** The technician asks the office to hand it over, move it or let it be. */
  'replan-asked': kind(strictObject({ why: prose(500).required() })),
  note: kind(strictObject({ station: station().required(), text: prose(4000).required() }), {
    by: 'office',
    corrected: 'freely',
    identity: ['station'],
  }),
  identity: kind(
    strictObject({
      outcome: yup
        .string()
        .strict(true)
        .oneOf(['confirmed', 'mismatch'] as const)
        .required(),
      seenSerial: line(60),
      seenTag: line(40),
      decision: yup
        .string()
        .strict(true)
        .oneOf(['carry-on', 'stop'] as const),
      reason: prose(500),
    }).test(
      'mismatch',
      'a mismatch needs what was seen, the decision and its reason',
      (v: Identity | undefined) =>
        v?.outcome !== 'mismatch' ||
        Boolean((v.seenSerial ?? v.seenTag) && v.decision && v.reason?.trim()),
    ),
    { corrected: 'attested', undone: true },
  ),
  repair: kind(
    strictObject({
      text: prose(4000).required(),
      parts: yup
        .array(
          strictObject({
            name: line(80).required(),
            number: line(60),
            quantity: integer(1, 999).required(),
          }).required(),
        )
        .strict(true)
        .max(50)
        .required(),
      /** Parts of the assembly that were cleaned or renewed, by their names in the drawing. */
      services: yup
        .array(
          strictObject({
            element: slug().required(),
            service: yup
              .string()
              .strict(true)
              .oneOf(['cleaned', 'renewed'] as const)
              .required(),
          }).required(),
        )
        .strict(true)
        .max(20),
      temporary: strictObject({ until: localDate().required(), permittedBy: line(120).required() })
        .default(undefined)
        .optional(),
    }),
    { corrected: 'attested' },
  ),
  'station-done': kind(
    strictObject({
      station: station().required(),
      /** Only after a test that passes as found: nothing has to be opened. */
      skipTo: yup
        .string()
        .strict(true)
        .oneOf(['return'] as const),
    }),
    { undone: true },
  ),
  reopened: kind(strictObject({ reason: prose(500).required() })),
  'valve-moved': kind(
    strictObject({
      element: slug().required(),
      to: yup.string().strict(true).oneOf(openings).required(),
      /** Why it was turned against the order of making safe, when it was. */
      departure: prose(500),
    }),
    { undone: true },
  ),
  'hose-moved': kind(
    strictObject({
      hose: slug().required(),
      /** The cock it is fitted to; absent when it was taken off. */
      port: slug(),
    }),
    { undone: true },
  ),
  /** What a tester put on the equipment, as the signal of a calibrator. */
  applied: kind(strictObject({ source: slug().required(), to: anyQuantity().required() }), {
    undone: true,
  }),
  /** A screw by which equipment is set. */
  adjusted: kind(
    strictObject({
      adjuster: slug().required(),
      way: yup
        .string()
        .strict(true)
        .oneOf(['in', 'out'] as const)
        .required(),
      turns: displayed().required(),
    }),
    { undone: true },
  ),
  /** How equipment without a field test works, before and after. */
  checked: kind(
    strictObject({
      run: run().required(),
      outcome: yup.string<CheckOutcome>().strict(true).oneOf(checkOutcomes).required(),
      text: prose(1000).required(),
      readings: yup
        .array(
          strictObject({
            title: line(80).required(),
            reading: anyQuantity().required(),
          }).required(),
        )
        .strict(true)
        .max(12),
    }),
    { corrected: 'attested', undone: true, identity: ['run'] },
  ),
  photo: kind(
    strictObject({
      photoId: uuid<'photo'>().required(),
      station: station().required(),
      caption: line(160).required(),
      /** The guide’s step it belongs to. */
      step: line(20),
    }),
    { corrected: 'freely', identity: ['photoId', 'station'] },
  ),
  /** What a computation of the workbench said. */
  result: kind(
    strictObject({
      computation: slug().required(),
      title: line(120).required(),
      says: prose(1000).required(),
    }),
    { corrected: 'freely', identity: ['computation'] },
  ),
} as const
