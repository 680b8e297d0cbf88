import * as yup from 'yup'
import { line, localDate, prose, slug, strictObject } from '@uvanta/core/schema'
import { type Dimension, unitsOf } from '@uvanta/core/quantity'
import { endpoint } from './endpoint'

/** What the numbers of certificates begin with. */
const PREFIX = /^[A-Z][A-Z0-9]{0,7}$/
const PHONE = /^[+\d][\d ()/.-]{2,39}$/

const isTimeZone = (name: string | undefined) => {
  try {
    return !name || Boolean(Intl.DateTimeFormat('en', { timeZone: name }))
  } catch {
    return false
  }
}
/** Minutes by which the zone of a device may differ from the utility’s without a mark: up to the widest on earth. */
const MOST_MINUTES = 840

const unitOf = (dimension: Dimension) => yup.string().strict(true).oneOf(unitsOf(dimension))

const utilitySchema = () =>
  strictObject({
    /** As it stands on certificates. */
    name: line(200).required(),
    /** Who the certificates are for. */
    authority: line(200).required(),
    certificatePrefix: line(8)
      .matches(PREFIX, 'must be up to eight capital letters and digits, a letter first')
      .required(),
    /** Where it is written to; on certificates. */
    address: line(200).required(),
    /** Whom strangers ask about a certificate. */
    phone: line(40).matches(PHONE, 'must be a telephone number').required(),
    /** Zone of legal dates. */
    timeZone: line(60)
      .test('zone', 'must be a time zone such as Europe/Paris or America/Chicago', isTimeZone)
      .required(),
    zoneWithin: yup.number().strict(true).integer().min(0).max(MOST_MINUTES).required(),
    gaugePressureUnit: unitOf('gaugePressure').required(),
    differentialUnit: unitOf('differential').required(),
  })

/** What a utility says of itself. */
export type UtilityFields = yup.InferType<ReturnType<typeof utilitySchema>>
/** Each of these has to be set before the first certificate. */
export const neededForCertificates = [
  'name',
  'authority',
  'certificatePrefix',
  'address',
  'phone',
  'timeZone',
] as const satisfies readonly (keyof UtilityFields)[]

/** Before the first certificate some of it is not set yet: it is empty. */
const utilityStateSchema = yup.object({
  name: yup.string().defined(),
  authority: yup.string().defined(),
  certificatePrefix: yup.string().defined(),
  address: yup.string().defined(),
  phone: yup.string().defined(),
  timeZone: yup.string().defined(),
  zoneWithin: yup.number().required(),
  gaugePressureUnit: yup.string().required(),
  differentialUnit: yup.string().required(),
  version: yup.number().required(),
  /** What has to be set before a certificate can be issued: fields, and `publicUrl`. */
  missing: yup.array(yup.string().required()).required(),
  /** The address that people and QR codes use: set where Uvanta is installed, not here. */
  publicUrl: yup.string().required(),
  /** The demo is Larkhaven’s for good. */
  isDemo: yup.boolean().required(),
})
export type UtilityState = yup.InferType<typeof utilityStateSchema>

/** Whole numbers of days or months. */
const count = (least: number, most: number) =>
  yup.number().strict(true).integer().min(least).max(most).required()

const programmeFields = () => ({
  id: slug().required(),
  title: line(120).required(),
  intervalMonths: count(1, 240),
  maximumMonths: count(1, 240),
  eachCalendarYear: yup.boolean().strict(true),
  graceDays: count(0, 365),
  firstNoticeDays: count(0, 365),
  secondNoticeDays: count(0, 365),
  repairWithinDays: count(1, 365),
})

const startersSchema = yup.object({
  rulePacks: yup
    .array(
      yup.object({
        id: yup.string().required(),
        title: yup.string().required(),
        /** Where its values come from. */
        source: yup.string().required(),
        /** Kinds of equipment that it has a test for. */
        kinds: yup.array(yup.string().required()).required(),
        inForce: yup.boolean().required(),
      }),
    )
    .required(),
  programmes: yup
    .array(yup.object({ ...programmeFields(), inForce: yup.boolean().required() }))
    .required(),
})
export type Starters = yup.InferType<typeof startersSchema>

export const settings = {
  starters: endpoint({
    method: 'get',
    path: '/api/v1/settings/starters',
    summary: 'Rule packs and programmes that a utility may begin with',
    tag: 'Settings',
    access: ['administrator'],
    response: startersSchema,
  }),
  adoptRulePack: endpoint({
    method: 'post',
    path: '/api/v1/settings/rule-packs',
    summary: 'Put a rule pack in force that is copied from a starter; again: a new version',
    tag: 'Settings',
    access: ['administrator'],
    body: strictObject({
      starter: slug().required(),
      title: line(120).required(),
      authority: line(120).required(),
      /** Edition of the local rule, and who compared the values with it. */
      source: prose(600).required(),
      effectiveFrom: localDate().required(),
    }),
    response: startersSchema,
  }),
  adoptProgramme: endpoint({
    method: 'post',
    path: '/api/v1/settings/programmes',
    summary: 'Put a programme in force with the utility’s own times; again: a new version',
    tag: 'Settings',
    access: ['administrator'],
    body: strictObject(programmeFields()),
    response: startersSchema,
  }),
  read: endpoint({
    method: 'get',
    path: '/api/v1/settings',
    summary: 'What the utility is, and what is missing for certificates',
    tag: 'Settings',
    access: ['administrator'],
    response: utilityStateSchema,
  }),
  change: endpoint({
    method: 'put',
    path: '/api/v1/settings',
    summary: 'Say what the utility is; certificates from now on carry it',
    tag: 'Settings',
    access: ['administrator'],
    versioned: true,
    body: utilitySchema(),
    response: utilityStateSchema,
  }),
}
