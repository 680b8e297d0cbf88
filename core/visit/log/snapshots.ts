import * as yup from 'yup'
import { dimensionNames, dimensionTitles, type Dimension } from '../../quantity'
import { dimensionShown } from '../../instrument'
import { type Nominal, nominalDimension, nominalNames, type NominalName } from '../../apparatus'
import {
  amount,
  anyQuantity,
  displayed,
  line,
  localDate,
  number,
  slug,
  strictObject,
  uuid,
} from '../../schema'

/** Nominal values of equipment, each once. */
export const nominalList = () =>
  yup
    .array(
      strictObject({
        name: yup
          .string<NominalName>()
          .strict(true)
          .oneOf(Object.keys(nominalNames) as NominalName[])
          .required(),
        value: anyQuantity().required(),
      })
        .test(
          'quantity',
          ({ value }: { value?: Partial<Nominal> }) =>
            value?.name
              ? `${nominalNames[value.name]} is a ${dimensionTitles[nominalDimension(value.name)]}`
              : '',
          (n: Partial<Nominal> | undefined) =>
            !n?.name || !n.value || n.value.dimension === nominalDimension(n.name),
        )
        .required(),
    )
    .strict(true)
    .max(20)
    .test(
      'once',
      'a nominal value is given twice: keep one',
      (list: readonly ({ readonly name?: string } | null)[] | undefined) =>
        !list || new Set(list.map((n) => n?.name)).size === list.length,
    )

/** What of the equipment a visit is about, as the register had it when the visit was planned. */
export const equipmentSnapshot = strictObject({
  id: uuid<'equipment'>().required(),
  tag: line(40).required(),
  family: slug().required(),
  kind: line(30).required(),
  sizeIn: displayed().required(),
  serial: line(60).required(),
  maker: line(80).required(),
  service: line(20).required(),
  position: line(200).required(),
  /** Spec sheet of its model, where one is known. */
  specSheet: slug(),
  site: line(120).required(),
  address: line(200).required(),
  customer: line(120).required(),
  /** Nominal values that a rule pack may judge by. */
  nominals: nominalList(),
})

/** The readings that stood at the end of an earlier visit. */
export const previousSnapshot = strictObject({
  on: localDate().required(),
  readings: yup
    .array(
      strictObject({
        item: slug().required(),
        dimension: yup.string<Dimension>().strict(true).oneOf(dimensionNames).required(),
        value: displayed().required(),
        unit: line(12).required(),
      }).required(),
    )
    .strict(true)
    .min(1)
    .max(100)
    .required(),
})

/** What fasteners were tightened to on an earlier visit, the newest figure of each. */
export const tightenedSnapshot = () =>
  yup
    .array(
      amount('torque')
        .shape({
          fastener: slug().required(),
          guideId: slug().required(),
          on: localDate().required(),
        })
        .required(),
    )
    .strict(true)
    .min(1)
    .max(60)

/** ± percent of the span or of the reading. */
const accuracy = {
  accuracyPercent: number(0, 100).required(),
  accuracyOf: yup
    .string()
    .strict(true)
    .oneOf(['span', 'reading'] as const)
    .required(),
}

/** What one channel of an instrument shows: one quantity over one range. */
export const channelSnapshot = strictObject({
  /** Unique in its instrument. */
  id: slug().required(),
  dimension: yup.string<Dimension>().strict(true).oneOf(dimensionNames).required(),
  /** Where the range begins, in `unit`; zero when absent. */
  from: number(-1e6, 1e6),
  span: number(0, 1e6).required(),
  unit: line(12).required(),
  ...accuracy,
})

/** An instrument as the register had it when a test was begun. */
export const instrumentSnapshot = strictObject({
  id: uuid<'gauge'>().required(),
  tag: line(40).required(),
  serial: line(60).required(),
  channels: yup.array(channelSnapshot.required()).strict(true).min(1).max(16).required(),
  calibratedOn: localDate().required(),
  calibrationUntil: localDate().required(),
  calibrationCertificate: line(60).required(),
})
export type InstrumentSnapshot = yup.InferType<typeof instrumentSnapshot>

/** A differential gauge as it was written down while it was the only kind of instrument. */
export const oneGauge = strictObject({
  id: uuid<'gauge'>().required(),
  tag: line(40).required(),
  serial: line(60).required(),
  ...accuracy,
  span: number(0, 1e6).required(),
  spanUnit: line(12).required(),
  calibratedOn: localDate().required(),
  calibrationUntil: localDate().required(),
  calibrationCertificate: line(60).required(),
})
export type OneGauge = yup.InferType<typeof oneGauge>

/** An instrument with one scale; what it shows follows from the unit on it. */
export const gaugeAsInstrument = ({
  accuracyPercent,
  accuracyOf,
  span,
  spanUnit,
  ...gauge
}: OneGauge): InstrumentSnapshot => ({
  ...gauge,
  channels: [
    {
      id: 'main',
      dimension: dimensionShown(spanUnit) ?? 'differential',
      span,
      unit: spanUnit,
      accuracyPercent,
      accuracyOf,
    },
  ],
})

/** A channel’s name among all instruments of a test. */
export const channelName = (
  instrument: { readonly tag: string },
  channel: { readonly id: string },
) => `${instrument.tag}/${channel.id}`

export const licenceSnapshot = strictObject({
  kind: slug().required(),
  number: line(40).required(),
  expiresOn: localDate().required(),
})
