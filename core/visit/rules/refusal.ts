import type { Library } from '../../library'
import { currentStation } from '../log/current'
import { type Station, stationTitles } from '../log/stations'
import type { VisitState } from '../log/state'

/** Codes of refusals. They are stable: tests, other programs and other languages go by them. */
export const refusalCodes = [
  'entry-not-in-visit',
  'kind-not-correctable',
  'entry-undone',
  'withdrawal-with-content',
  'correction-empty',
  'signed-by-other',
  'license-needed',
  'correction-malformed',
  'identity-fixed',
  'test-exists',
  'gauge-missing',
  'gauge-out-of-calibration',
  'license-not-held',
  'license-differs',
  'license-expired',
  'versions-differ',
  'line-pressure-invalid',
  'pack-unknown',
  'no-field-test',
  'test-not-started',
  'test-finished',
  'step-unknown',
  'item-unknown',
  'answer-unknown',
  'dimension-differs',
  'height-not-applicable',
  'reading-impossible',
  'channel-unknown',
  'hold-not-on-trace',
  'swing-not-on-trace',
  'beside-not-recorded',
  'items-missing',
  'clock-far-off',
  'times-to-release',
  'attests-not',
  'nothing-to-attest',
  'visit-signed',
  'visit-stopped',
  'server-only',
  'order-missing',
  'order-date-past',
  'as-left-missing',
  'outcome-differs',
  'guide-unknown',
  'guide-other-family',
  'guide-version-not-in-force',
  'variant-unknown',
  'sub-job-unknown',
  'sheet-not-in-force',
  'guide-begun',
  'step-other-station',
  'step-out-of-order',
  'rests-on-departure',
  'pieces-not-asked',
  'slot-unknown',
  'figure-on-sheet',
  'figure-unit',
  'figure-rubber',
  'figure-count',
  'figure-impossible',
  'pieces-missing',
  'pieces-differ',
  'air-on',
  'power-on',
  'figure-missing',
  'guide-not-chosen',
  'work-halted',
  'as-left-not-passed',
  'step-without-rounds',
  'step-not-done',
  'steps-left',
  'parts-on-tray',
  'kit-closed',
  'kit-item-unknown',
  'kit-differs',
  'kit-not-taken',
  'rebuild-not-done',
  'kit-sum-differs',
  'kit-use-differs',
  'kit-not-counted',
  'kit-not-closed',
  'photos-full',
  'station-skipped',
  'station-out-of-order',
  'station-finished',
  'lock-on',
  'move-out-of-order',
  'hose-unknown',
  'element-unknown',
  'zone-unknown',
  'not-a-pressure',
  'zone-fed',
  'zone-trapped',
  'not-zero',
  'lock-off',
  'valve-not-shut',
  'valve-position-differs',
  'lock-missing',
  'zone-not-proved',
  'lock-left',
  'source-unknown',
  'adjuster-unknown',
  'turns-missing',
  'setting-too-early',
  'repair-too-early',
  'date-past',
  'not-passed-as-found',
  'repair-missing',
  'signature-missing',
  'identity-missing',
  'wrong-equipment',
  'as-found-missing',
  'has-field-test',
  'check-exists',
  'temporary-incomplete',
  'throws-missing',
  'throws-zero',
  'throws-unequal',
  'counts-missing',
  'counts-too-few',
  'counts-differ',
  'photo-missing',
  'setting-missing',
  'writing-missing',
  'rounds-too-few',
  'rounds-still-moving',
  'timer-not-started',
  'timer-running',
  'answer-missing',
  'finding-missing',
  'defect-unknown',
  'against-policy',
  'fastener-unknown',
  'torque-over-ceiling',
  'torque-differs',
  'not-last',
  'kind-not-undoable',
  'undone-too-late',
] as const
export type RefusalCode = (typeof refusalCodes)[number]

/** Why something may not be done, and what to do instead. */
export interface Refusal {
  readonly code: RefusalCode
  /** What the refusal is about, as the item or the date. */
  readonly params?: Readonly<Record<string, string | number>>
  readonly why: string
  readonly remedy: string
  /** The station where that is done. */
  readonly station?: Station
}

/** What a screen says of something that may not be done; a refusal has its code besides. */
export type Notice = Omit<Refusal, 'code' | 'params'>

export interface GuardContext {
  readonly library: Library
  /** The person has just given the password for this very entry. */
  readonly attested?: boolean
  readonly person: {
    readonly roles: readonly string[]
    readonly licences: readonly {
      readonly kind: string
      readonly number: string
      readonly expiresOn: string
    }[]
  }
}

export const refuse = (
  code: RefusalCode,
  why: string,
  remedy: string,
  station?: Station,
  params?: Refusal['params'],
): Refusal => ({
  code,
  why,
  remedy,
  ...(station ? { station } : {}),
  ...(params ? { params } : {}),
})

/** Why a station may not be entered yet, or null. */
export function stationRefusal(state: VisitState, station: Station): Refusal | null {
  if (state.done.includes(station) || station === currentStation(state)) return null
  if (state.skipped.includes(station)) {
    return refuse(
      'station-skipped',
      'The as-found test passed, so nothing was opened.',
      'Carry on with Return.',
      'return',
    )
  }
  const missing = currentStation(state)
  return refuse(
    'station-out-of-order',
    `${stationTitles[station]} comes after ${stationTitles[missing]}.`,
    `Finish ${stationTitles[missing]} first.`,
    missing,
  )
}

/** Whether the work stands at a station: the refusal, or null. */
export function atStation(state: VisitState, station: Station): Refusal | null {
  const current = currentStation(state)
  if (current === station) return null
  if (state.done.includes(station)) {
    return refuse(
      'station-finished',
      `${stationTitles[station]} is already finished.`,
      'Correct the entry instead.',
      station,
    )
  }
  return stationRefusal(state, station)
}
