import { DateTime } from 'luxon'
import type { Content } from 'pdfmake/interfaces'

export const INK = '#1b2430'
export const RULE = 0.6

export const mono = (text: string, size = 9): Content => ({ text, font: 'Mono', fontSize: size })
export const small = (text: string): Content => ({ text, fontSize: 7.5, color: '#4a5563' })

/** 24 Nov 2026 */
export const dayWords = (day: string): string => DateTime.fromISO(day).toFormat('d LLL yyyy')

/** 24 Nov 2026, 08:15 GMT+1: by the clocks of the utility, with their zone. */
export const momentWords = (time: string, zone: string): string =>
  DateTime.fromISO(time, { zone }).setLocale('en-GB').toFormat('d LLL yyyy, HH:mm ZZZZ')

export const outcomeWords = {
  pass: 'PASS',
  'pass-uncertain': 'PASS, WITHIN UNCERTAINTY',
  'fail-uncertain': 'FAIL, WITHIN UNCERTAINTY',
  fail: 'FAIL',
  'not-assessed': 'NOT ASSESSED',
} as const

/** The result of one line. */
export const resultWords = {
  pass: 'Pass',
  'pass-uncertain': 'Pass, marginal',
  'fail-uncertain': 'Fail, marginal',
  fail: 'Fail',
  'not-assessed': 'Not assessed',
} as const

export const ruled = {
  hLineWidth: () => RULE,
  vLineWidth: () => RULE,
  hLineColor: () => INK,
  vLineColor: () => INK,
  paddingLeft: () => 5,
  paddingRight: () => 5,
  paddingTop: () => 3,
  paddingBottom: () => 3,
}
