import * as yup from 'yup'
import { dimensionNames, type Dimension, isUnitOf } from '../../../quantity'
import {
  amount,
  anyQuantity,
  displayed,
  integer,
  line,
  number,
  prose,
  slug,
  strictObject,
} from '../../../schema'
import { kind } from '../kind'
import { gaugeAsInstrument, instrumentSnapshot, licenceSnapshot, oneGauge } from '../snapshots'
import { run } from './fields'

const testFields = {
  run: run().required(),
  procedureId: slug().required(),
  procedureVersion: integer(1, 9999).required(),
  /** Version of the visit’s rule pack; absent in older logs, where the plan’s holds. */
  packVersion: integer(1, 9999),
  licence: licenceSnapshot.required(),
  linePressure: anyQuantity().default(undefined).optional(),
}

/** Before, a test was made with one differential gauge. */
const oneGaugeTest = strictObject({ ...testFields, gauge: oneGauge.required() })
const severalInstruments = ({ gauge, ...test }: yup.InferType<typeof oneGaugeTest>) => ({
  ...test,
  instruments: [gaugeAsInstrument(gauge)],
})

/** What a field test writes. */
export const fieldTestKinds = {
  'as-found-impossible': kind(strictObject({ reason: prose(500).required() }), {
    corrected: 'attested',
  }),
  'test-started': kind(
    strictObject({
      ...testFields,
      instruments: yup.array(instrumentSnapshot.required()).strict(true).max(8).required(),
    }),
    { version: 2, earlier: { 1: { payload: oneGaugeTest, next: severalInstruments } } },
  ),
  'step-done': kind(strictObject({ run: run().required(), step: slug().required() }), {
    undone: true,
  }),
  reading: kind(
    strictObject({
      run: run().required(),
      item: slug().required(),
      dimension: yup.string<Dimension>().strict(true).oneOf(dimensionNames).required(),
      value: displayed().required(),
      unit: line(12).required(),
      /** Channel that showed it, where more than one shows such a quantity. */
      channel: line(80),
      source: yup
        .string()
        .strict(true)
        .oneOf(['typed', 'streamed'] as const)
        .required(),
      gaugeAbovePort: amount('length').default(undefined).optional(),
      deviation: number(0, 1e6),
      /** How fast the needle still moved when it was read, in `unit` a minute; falling is negative. */
      driftPerMinute: number(-1e6, 1e6),
      /** How widely the needle swung before it was read, in `unit`, from trough to crest. */
      swing: number(0, 1e6),
      /** How long it was held before, s: what its trace lasts, or what stands on a paper form. */
      heldS: number(0, 86_400),
      /** What the recorder’s other channels showed at that moment, and between which they went while the trace was taken. */
      beside: yup
        .array(
          strictObject({
            place: slug().required(),
            value: displayed().required(),
            low: displayed().required(),
            high: displayed().required(),
            unit: line(12).required(),
          }).required(),
        )
        .strict(true)
        .max(4)
        .default(undefined)
        .optional(),
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
      (v: { dimension?: Dimension; unit?: string } | undefined) =>
        !v?.dimension || !v.unit || isUnitOf(v.dimension, v.unit),
    ),
    { corrected: 'attested', undone: true, identity: ['run', 'item', 'dimension'] },
  ),
  answer: kind(
    strictObject({
      run: run().required(),
      item: slug().required(),
      answer: slug().required(),
      label: line(80).required(),
    }),
    { corrected: 'attested', undone: true, identity: ['run', 'item'] },
  ),
  'test-finished': kind(strictObject({ run: run().required() }), { undone: true }),
} as const
