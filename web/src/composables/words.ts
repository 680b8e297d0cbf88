import { DateTime } from 'luxon'
import { unitLabel, unitsOf } from '@uvanta/core/quantity'
import type { Dimension } from '@uvanta/core/quantity'
import type { Outcome } from '@uvanta/core/rules'

/** 24 Nov 2026 */
export const dateWords = (date: string | null | undefined): string =>
  date ? DateTime.fromISO(date).setLocale('en-GB').toFormat('d LLL yyyy') : '–'

/** 24 Nov 2026, 08:15 in the device's own zone */
export const timeWords = (time: string): string =>
  DateTime.fromISO(time).setLocale('en-GB').toFormat('d LLL yyyy, HH:mm')

export const clockWords = (time: string): string => DateTime.fromISO(time).toFormat('HH:mm')

export const weekdayWords = (date: string): string =>
  DateTime.fromISO(date).setLocale('en-GB').toFormat('cccc d LLLL yyyy')

export const outcomeWords: Readonly<Record<Outcome, string>> = {
  pass: 'Pass',
  'pass-uncertain': 'Pass, within uncertainty',
  'fail-uncertain': 'Fail, within uncertainty',
  fail: 'Fail',
  'not-assessed': 'Not assessed',
}

export const conditionWords: Readonly<Record<string, string>> = {
  'never-tested': 'Never tested',
  'in-order': 'In order',
  failed: 'Failed',
  'temporary-repair': 'Temporary repair',
  'not-assessed': 'Not assessed',
}

export const visitStateWords: Readonly<Record<string, string>> = {
  planned: 'Planned',
  'under-way': 'Under way',
  signed: 'Signed',
  stopped: 'Stopped',
}

export const unitWords = (dimension: string, unit: string): string =>
  unitLabel(dimension as Dimension, unit)

/** The units of a quantity as choices of a field. */
export const unitOptions = (dimension: Dimension): { value: string; text: string }[] =>
  unitsOf(dimension).map((value) => ({ value, text: unitLabel(dimension, value) }))

/** With its first letter large, as a sentence begins. */
export const sentence = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)
