import type { Person } from '@uvanta/contract'
import { validOn } from '@uvanta/core/calendar'
import {
  canonicalJson,
  type EventDraft,
  gaugeAsInstrument,
  type GuardContext,
  isBeforePlanned,
  legalDate,
  type InstrumentSnapshot,
} from '@uvanta/core/visit'
import type { App } from '../../context'
import type { OpenLog } from './openLog'
import { ServiceError } from '../errors'
import { readGauge } from '../instruments/gauges'
import { stockOf } from '../stock/stock'

const refused = (draft: EventDraft, code: string, why: string, remedy: string) =>
  new ServiceError('refused', why, remedy, { code, event: draft.id })

/**
 * What a device says of gauge, calibration and licence is a claim: it is held against the records of the server on
 * the legal day of the event. Where they do not cover the day of its arrival as well, the entry is marked, and the
 * visit waits for a reviewer before it is signed.
 * @returns the person with the licences that count for this event
 * @throws ServiceError refused when the records say otherwise
 */
export async function claimsChecked(
  app: App,
  actor: Person,
  log: Pick<OpenLog, 'state'>,
  draft: EventDraft,
): Promise<GuardContext['person']> {
  const { plannedAt } = log.state
  // A time from before the plan is wrong, and revives nothing that has expired since.
  const day = isBeforePlanned(draft, plannedAt) ? app.today() : legalDate(log.state, draft)
  // Nothing was made after it arrived: what begins later than today covers no entry, whatever its clock says.
  const first = day < app.today() ? day : app.today()
  const licences = actor.licences.filter((l) => l.issuedOn <= first)
  if (draft.kind === 'test-started') {
    for (const instrument of draft.payload.instruments)
      await gaugeChecked(app, draft, instrument, { day, first })
  }
  if (draft.kind === 'kit-taken') await kitOnVan(app, actor, log, draft)
  return { ...actor, licences: licences.filter((l) => l.expiresOn >= day) }
}

/** A kit whose stock is kept comes from the van, unless it is said where else it came from. */
async function kitOnVan(
  app: App,
  actor: Person,
  { state }: Pick<OpenLog, 'state'>,
  draft: EventDraft<'kit-taken'>,
): Promise<void> {
  const { number, departure } = draft.payload
  // Counted anew it is the one that was taken before.
  const before = [state.kit, ...Object.values(state.jobKits)].some((k) => k?.number === number)
  if (departure || before) return
  const { kept, onVan } = await stockOf(app, number, actor.id)
  if (!kept || onVan > 0) return
  throw refused(
    draft,
    'kit-not-on-van',
    `By the stock there is no ${number} on your van.`,
    'Say where this one came from, or have it booked in.',
  )
}

/** The gauge is one of ours, as the device says it is, with a calibration of ours that covers the day. */
async function gaugeChecked(
  app: App,
  draft: EventDraft,
  claimed: InstrumentSnapshot,
  { day, first }: { readonly day: string; readonly first: string },
): Promise<void> {
  const gauge = await readGauge(app, claimed.id).catch((error: unknown) => {
    if (error instanceof ServiceError && error.kind === 'not-found') return null
    throw error
  })
  if (!gauge) {
    throw refused(
      draft,
      'gauge-not-registered',
      `There is no gauge ${claimed.tag} in the register.`,
      'Choose one of the list.',
    )
  }
  const own = gaugeAsInstrument({
    ...claimed,
    tag: gauge.tag,
    serial: gauge.serial,
    accuracyPercent: gauge.accuracyPercent,
    accuracyOf: gauge.accuracyOf,
    span: Number(gauge.span),
    spanUnit: gauge.spanUnit,
  })
  const strange = differenceOf(own, claimed)
  if (strange) {
    throw refused(
      draft,
      'gauge-differs',
      `Gauge ${gauge.tag} is another in the register: ${strange}.`,
      'Reload the page to take up the register, then start the test again.',
    )
  }
  const calibration = gauge.calibrations.find(
    (c) =>
      c.certificate === claimed.calibrationCertificate &&
      c.calibratedOn === claimed.calibratedOn &&
      c.validUntil === claimed.calibrationUntil,
  )
  if (!calibration) {
    throw refused(
      draft,
      'calibration-not-registered',
      `The register has no calibration ${claimed.calibrationCertificate} of gauge ${gauge.tag} from ${claimed.calibratedOn} to ${claimed.calibrationUntil}.`,
      'Reload the page to take up the register, or have the calibration entered.',
    )
  }
  if (
    !validOn(day, calibration.calibratedOn, calibration.validUntil) ||
    first < calibration.calibratedOn
  ) {
    throw refused(
      draft,
      'gauge-out-of-calibration',
      `Gauge ${gauge.tag} was not in calibration on ${day} (${calibration.calibratedOn} to ${calibration.validUntil}).`,
      'Test with a gauge whose calibration covers the day.',
    )
  }
}

/** The first thing in which what a device says of an instrument differs from the register. */
function differenceOf(own: InstrumentSnapshot, claimed: InstrumentSnapshot): string | null {
  if (own.tag !== claimed.tag) return `its tag is ${own.tag} there`
  if (own.serial !== claimed.serial) return `its serial is ${own.serial} there`
  const [channel] = own.channels
  if (canonicalJson(own.channels) === canonicalJson(claimed.channels)) return null
  return `it shows ${channel?.span} ${channel?.unit}, ± ${channel?.accuracyPercent} % of ${channel?.accuracyOf} there`
}
