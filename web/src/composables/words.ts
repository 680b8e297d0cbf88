import { unitLabel, unitsOf } from '@uvanta/core/quantity'
import type { Dimension } from '@uvanta/core/quantity'
import type { Outcome } from '@uvanta/core/rules'

/** English, with day, month and clock in the order of where the device’s language is spoken: en-US, en-DE. */
function conventions(): string {
  const { language } = navigator
  // The browser takes its time to look up where a language is spoken; most devices say it themselves.
  const said = /-([A-Z]{2})\b/.exec(language)?.[1]
  if (said) return `en-${said}`
  try {
    return `en-${new Intl.Locale(language).maximize().region ?? 'GB'}`
  } catch {
    return 'en-GB'
  }
}

const formats = new Map<string, Intl.DateTimeFormat>()
/** Made once each: a list asks for hundreds. */
function formatOf(parts: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const locale = conventions()
  const key = `${locale} ${Object.entries(parts).join(' ')}`
  const format = formats.get(key) ?? new Intl.DateTimeFormat(locale, parts)
  formats.set(key, format)
  return format
}

/** @param time a date, which is the same everywhere, or a moment, in the device's own zone */
function inWords(time: string, parts: Intl.DateTimeFormatOptions): string {
  const zone = time.length === DATE_LENGTH ? { timeZone: 'UTC' } : {}
  return formatOf({ ...parts, ...zone }).format(new Date(time))
}
const DATE_LENGTH = '2026-11-24'.length
const DAY = { day: 'numeric', month: 'short', year: 'numeric' } as const
const CLOCK = { hour: '2-digit', minute: '2-digit' } as const

/** The first date takes a browser longer than all others: it is written while an answer is waited for. */
export const readyDates = (): void => void inWords('2026-11-24', DAY)

/** 24 Nov 2026; Nov 24, 2026 */
export const dateWords = (date: string | null | undefined): string =>
  date ? inWords(date, DAY) : '–'

/** 24 Nov 2026, 08:15; Nov 24, 2026, 08:15 AM */
export const timeWords = (time: string): string => inWords(time, { ...DAY, ...CLOCK })

/** 08:15; 08:15 AM */
export const clockWords = (time: string): string => inWords(time, CLOCK)

/** Tuesday 24 November 2026 */
export const weekdayWords = (date: string): string =>
  `${inWords(date, { weekday: 'long' })} ${inWords(date, { ...DAY, month: 'long' })}`

const SIZES = [
  [1e9, 'gigabyte'],
  [1e6, 'megabyte'],
] as const

/** 1.9 GB; 240 MB; 0 MB: what lies on a device, as people speak of it. */
export function sizeWords(bytes: number): string {
  const [size, unit] = SIZES.find(([least]) => bytes >= least) ?? SIZES[1]
  const digits = { maximumFractionDigits: bytes < 10 * size ? 1 : 0 }
  return new Intl.NumberFormat(conventions(), { style: 'unit', unit, ...digits }).format(
    bytes / size,
  )
}

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
  'out-of-service': 'Out of service',
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
