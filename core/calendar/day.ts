import { CannotCompute } from '../errors'
import { dateThere, isMoment, secondsBetween } from './moment'

const DAY_S = 86_400
const midnight = (date: string) => `${date}T00:00:00Z`

/** Whether this is a day of the calendar, as 2026-11-24, which no month has too many of. */
export const isDate = (text: string): boolean =>
  /^\d{4}-\d{2}-\d{2}$/.test(text) && isMoment(midnight(text))

/** @throws CannotCompute for what is no date */
export function midnightOf(date: string): string {
  if (isDate(date)) return midnight(date)
  throw new CannotCompute('not-a-date', `“${date}” is not a date.`, 'Write it as 2026-11-24.')
}

/** A date moved by whole days. @throws CannotCompute for what is no date */
export const addDays = (date: string, days: number): string =>
  dateThere(midnightOf(date), days * (DAY_S / 60))

/** Whole days from one date to another. @throws CannotCompute for what is no date */
export const daysBetween = (from: string, to: string): number =>
  Math.round(secondsBetween(midnightOf(from), midnightOf(to)) / DAY_S)

/** A calibration or licence counts from its first to its last day, both included. */
export const validOn = (today: string, from: string, until: string): boolean =>
  from <= today && today <= until
