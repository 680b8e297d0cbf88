import * as yup from 'yup'
import { hoseNames } from '../../apparatus/backflow'
import { openings } from '../../apparatus'
import { pinsSchema } from '../../library'
import { guidePayloads } from './guideEvents'
import { type Station, stations } from './stations'
import { equipmentSnapshot, gaugeSnapshot, licenceSnapshot } from './snapshots'
import { dimensionNames, type Dimension, isUnitOf } from '../../quantity'
import {
  amount,
  anyQuantity,
  displayed,
  instant,
  integer,
  line,
  localDate,
  number,
  prose,
  slug,
  strictObject,
  uuid,
} from '../../schema'

export const runNames = ['as-found', 'as-left'] as const
export type RunName = (typeof runNames)[number]

export const purposes = [
  'periodic-test',
  'failed-test',
  'complaint',
  'overhaul',
  'fail-action-change',
  'temporary-repair',
] as const
export const purposeTitles: Readonly<Record<(typeof purposes)[number], string>> = {
  'periodic-test': 'Periodic test',
  'failed-test': 'Retest after a failure',
  complaint: 'Complaint',
  overhaul: 'Planned overhaul',
  'fail-action-change': 'Change of fail action',
  'temporary-repair': 'Renew a temporary repair',
}

export const checkOutcomes = ['works', 'works-not', 'not-tried'] as const
export type CheckOutcome = (typeof checkOutcomes)[number]

const station = () => yup.string<Station>().strict(true).oneOf(stations)
const run = () => yup.string<RunName>().strict(true).oneOf(runNames)

/** Payload schemas, one a kind of event: what may be written into a visit's log. */
export const payloads = {
  planned: strictObject({
    purpose: yup.string().strict(true).oneOf(purposes).required(),
    plannedOn: localDate().required(),
    /** Rule pack of the field test; a family without one is judged by its function check. */
    packId: slug(),
    packVersion: integer(1, 9999),
    /** What its verdicts rest on; absent in logs from before this was written down. */
    pins: pinsSchema.default(undefined).optional(),
    equipment: equipmentSnapshot.required(),
  }),
  /** Newer versions came into force before the visit was begun. */
  pinned: strictObject({ pins: pinsSchema.required() }),
  note: strictObject({ station: station().required(), text: prose(4000).required() }),
  identity: strictObject({
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
    (v) =>
      v?.outcome !== 'mismatch' ||
      Boolean((v.seenSerial ?? v.seenTag) && v.decision && v.reason?.trim()),
  ),
  'as-found-impossible': strictObject({ reason: prose(500).required() }),
  'test-started': strictObject({
    run: run().required(),
    procedureId: slug().required(),
    procedureVersion: integer(1, 9999).required(),
    gauge: gaugeSnapshot.required(),
    /** Version of the visit’s rule pack; absent in older logs, where the plan’s holds. */
    packVersion: integer(1, 9999),
    licence: licenceSnapshot.required(),
    linePressure: anyQuantity().default(undefined).optional(),
  }),
  'step-done': strictObject({ run: run().required(), step: slug().required() }),
  reading: strictObject({
    run: run().required(),
    item: slug().required(),
    dimension: yup.string<Dimension>().strict(true).oneOf(dimensionNames).required(),
    value: displayed().required(),
    unit: line(12).required(),
    source: yup
      .string()
      .strict(true)
      .oneOf(['typed', 'streamed'] as const)
      .required(),
    gaugeAbovePort: amount('length').default(undefined).optional(),
    deviation: number(0, 1e6),
    /** How fast the needle still moved when it was read, in `unit` a minute; falling is negative. */
    driftPerMinute: number(-1e6, 1e6),
    /** Why a reading stands that its gauge could not show. */
    insisted: prose(300),
    trace: strictObject({
      /** Compact samples, see core/trace. */
      data: prose(60_000).required(),
      /** Sample at which the value was read. */
      mark: integer(0, 1e7).required(),
      /** Where the analysis had found it; another mark was set by hand. */
      found: integer(0, 1e7).required(),
    })
      .default(undefined)
      .optional(),
  }).test(
    'unit-fits',
    'the unit does not fit the kind of reading',
    (v) => !v?.dimension || !v.unit || isUnitOf(v.dimension, v.unit),
  ),
  answer: strictObject({
    run: run().required(),
    item: slug().required(),
    answer: slug().required(),
    label: line(80).required(),
  }),
  'test-finished': strictObject({ run: run().required() }),
  repair: strictObject({
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
  'station-done': strictObject({
    station: station().required(),
    /** Only after a test that passes as found: nothing has to be opened. */
    skipTo: yup
      .string()
      .strict(true)
      .oneOf(['return'] as const),
  }),
  reopened: strictObject({ reason: prose(500).required() }),
  'valve-moved': strictObject({
    element: slug().required(),
    to: yup.string().strict(true).oneOf(openings).required(),
    /** Why it was turned against the order of making safe, when it was. */
    departure: prose(500),
  }),
  'hose-moved': strictObject({
    hose: yup.string().strict(true).oneOf(hoseNames).required(),
    /** The cock it is fitted to; absent when it was taken off. */
    port: slug(),
  }),
  ...guidePayloads,
  /** How equipment without a field test works, before and after. */
  checked: strictObject({
    run: run().required(),
    outcome: yup.string<CheckOutcome>().strict(true).oneOf(checkOutcomes).required(),
    text: prose(1000).required(),
    readings: yup
      .array(
        strictObject({ title: line(80).required(), reading: anyQuantity().required() }).required(),
      )
      .strict(true)
      .max(12),
  }),
  photo: strictObject({
    photoId: uuid().required(),
    station: station().required(),
    caption: line(160).required(),
    /** The guide’s step it belongs to. */
    step: line(20),
  }),
  /** What a computation of the workbench said. */
  result: strictObject({
    computation: slug().required(),
    title: line(120).required(),
    says: prose(1000).required(),
  }),
  correction: strictObject({
    of: uuid().required(),
    why: prose(500).required(),
    withdraw: yup.boolean().strict(true).required(),
    payload: yup.mixed<object>(),
  }),
  /** Somebody who does not measure asks the tester to correct an entry. */
  'correction-asked': strictObject({ of: uuid().required(), why: prose(500).required() }),
  stopped: strictObject({ reason: prose(500).required() }),
  signed: strictObject({
    /** The drawn signature, as an SVG path in a box of 400 × 120. */
    signature: prose(40_000)
      .matches(/^M[\d\s.,MLCQZ-]*[LCQ][\d\s.,MLCQZ-]*$/, 'must be a drawn line')
      .required(),
    name: line(120).required(),
    outcome: yup
      .string()
      .strict(true)
      .oneOf(['pass', 'pass-uncertain', 'fail-uncertain', 'fail', 'not-assessed'] as const)
      .required(),
  }),
  'certificate-issued': strictObject({
    certificateId: uuid().required(),
    number: line(40).required(),
    supersedes: line(40),
  }),
  /** The reviewer declared a certificate of this visit void. */
  'certificate-voided': strictObject({
    certificateId: uuid().required(),
    number: line(40).required(),
    reason: prose(500).required(),
  }),
} as const

export type EventKind = keyof typeof payloads
export const eventKinds = Object.keys(payloads) as EventKind[]
export type PayloadOf<K extends EventKind> = yup.InferType<(typeof payloads)[K]>

/** What a person or device sends. */
export interface EventDraft<K extends EventKind = EventKind> {
  readonly id: string
  readonly kind: K
  readonly payload: PayloadOf<K>
  /** UTC time by the device's clock. */
  readonly deviceTime: string
  /** Minutes east of UTC by the device's clock. */
  readonly deviceOffset: number
}

/** What stands in the log. */
export interface VisitEvent<K extends EventKind = EventKind> extends EventDraft<K> {
  readonly personId: string
  readonly personName: string
  /** From 1; absent while it waits to be sent. */
  readonly seq?: number
  readonly serverTime?: string
  readonly hash?: string
}

export const draftSchema = strictObject({
  id: uuid().required(),
  kind: yup.string<EventKind>().strict(true).oneOf(eventKinds).required(),
  payload: yup.mixed<object>().required(),
  deviceTime: instant().required(),
  deviceOffset: integer(-840, 840).required(),
})

/** An event of a known kind, told apart for the compiler. */
export function isKind<K extends EventKind>(event: VisitEvent, kind: K): event is VisitEvent<K> {
  return event.kind === kind
}

/** Kinds that a person may correct afterwards. */
export const correctable: readonly EventKind[] = [
  'note',
  'identity',
  'as-found-impossible',
  'reading',
  'answer',
  'repair',
  'checked',
  'photo',
  'result',
]

/** Kinds that only the server writes. */
export const serverKinds: readonly EventKind[] = [
  'planned',
  'pinned',
  'certificate-issued',
  'certificate-voided',
]

/** Kinds of entries on which verdict and certificate rest: on a signed visit the tester alone corrects them. */
export const attestedKinds: readonly EventKind[] = [
  'identity',
  'as-found-impossible',
  'reading',
  'answer',
  'repair',
  'checked',
]
