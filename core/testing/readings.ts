import type { Answer, Channel, Reading } from '../rules'

/** A differential gauge as testers carry it, for tests of verdicts. */
export const testGauge: Channel = {
  id: 'gauge',
  dimension: 'differential',
  percent: 0.25,
  of: 'span',
  span: 15,
  unit: 'psi',
}

/** A differential as it was displayed, in psi unless said otherwise. */
export const readingOf = (item: string, value: string, more: Partial<Reading> = {}): Reading => ({
  item,
  dimension: 'differential',
  value,
  unit: 'psi',
  ...more,
})

export const answerOf = (item: string, answer: string): Answer => ({ item, answer, label: answer })
