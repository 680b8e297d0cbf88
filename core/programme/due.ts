import { DateTime } from 'luxon'
import { daysBetween, midnightOf } from '../calendar'
import type { Programme } from '../catalogue'

type Rule = Pick<Programme, 'intervalMonths' | 'maximumMonths' | 'eachCalendarYear'>

/**
 * The next due date after a test. Due dates keep their anchor (day and month), so that a test done
 * early or late does not shift the years after it: of all anchor dates, the latest one on which a
 * test is still lawful. Where none lies between the test and that last lawful day, it is that day; so it is where a
 * programme of several years would fall due again less than half an interval after the work.
 *
 * @param anchor any earlier or later due date of the same equipment, as 2026-09-30
 * @param testedOn the day of the test
 */
export function nextDue(programme: Rule, anchor: string, testedOn: string): string {
  const base = day(anchor)
  const until = lawfulUntil(programme, testedOn)
  const last = day(until)
  const months = Math.floor(last.diff(base, 'months').months / programme.intervalMonths)
  const candidate = anchored(base, months * programme.intervalMonths)
  const due = (
    candidate > last ? anchored(base, (months - 1) * programme.intervalMonths) : candidate
  ).toISODate()
  return due > leastAfter(programme, testedOn) ? due : until
}

/** A yearly test keeps its anchor however soon it comes; an overhaul of several years is not wanted twice at once. */
function leastAfter({ intervalMonths }: Rule, testedOn: string): string {
  if (intervalMonths < SEVERAL_YEARS) return testedOn
  return day(testedOn)
    .plus({ months: Math.floor(intervalMonths / 2) })
    .toISODate()
}
const SEVERAL_YEARS = 24

/**
 * The last day on which the next test is within the rule: the programme’s maximum after this one, and
 * where a test is wanted in each calendar year, the end of the next year at the latest.
 */
export function lawfulUntil(programme: Rule, testedOn: string): string {
  const tested = day(testedOn)
  const maximum = tested.plus({ months: programme.maximumMonths }).toISODate()
  const endOfNextYear = `${tested.year + 1}-12-31`
  return programme.eachCalendarYear && endOfNextYear < maximum ? endOfNextYear : maximum
}

/** An anchor at a month's end stays at the month's end. */
function anchored(base: DateTime<true>, months: number): DateTime<true> {
  const moved = base.plus({ months })
  return base.day === base.daysInMonth
    ? (moved.endOf('month').startOf('day') as DateTime<true>)
    : moved
}

export const dueStates = ['not-due', 'first-notice', 'second-notice', 'due', 'overdue'] as const
export type DueState = (typeof dueStates)[number]

/** Where a due date stands on a day: notices before it, grace after it. */
export function dueState(
  programme: Pick<Programme, 'graceDays' | 'firstNoticeDays' | 'secondNoticeDays'>,
  dueOn: string,
  today: string,
): DueState {
  const days = daysBetween(today, dueOn)
  if (days < -programme.graceDays) return 'overdue'
  if (days <= 0) return 'due'
  if (days <= programme.secondNoticeDays) return 'second-notice'
  if (days <= programme.firstNoticeDays) return 'first-notice'
  return 'not-due'
}

function day(date: string): DateTime<true> {
  return DateTime.fromISO(midnightOf(date), { zone: 'utc' }) as DateTime<true>
}
