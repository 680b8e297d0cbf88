import { roundTo, unitLabel } from '../quantity'
import { fails, type Outcome, passes } from './outcome'
import { because, type Reason } from './reason'
import type { ItemJudgement } from './types'

type Facts = Pick<
  ItemJudgement,
  | 'reading'
  | 'unit'
  | 'limit'
  | 'limitSense'
  | 'limits'
  | 'margin'
  | 'dimension'
  | 'corrected'
  | 'perMinute'
>

/** Says what a limited item came to, in one sentence. */
export function limitReason(
  item: Facts,
  outcome: Outcome,
  expanded: { readonly value: number; readonly digits: number } | undefined,
): Reason {
  const label = unitLabel(item.dimension ?? 'differential', item.unit ?? '')
  const unit = item.perMinute ? `${label} a minute` : label
  const read = item.corrected
    ? `${item.corrected} ${unit} (shown ${item.reading} ${unit}, head corrected)`
    : `${item.reading} ${unit}`
  // As written, so that a margin keeps the digits of its reading.
  const margin = item.margin?.replace('-', '')
  const isLower = item.limitSense === 'at least'
  const near = isLower ? 'under' : 'over'
  const sure = `${roundTo(expanded?.value ?? 0, expanded?.digits ?? 0)} ${unit}`
  const params = {
    reading: item.corrected ?? item.reading ?? '',
    limit: item.limit ?? '',
    sense: isLower ? 'at-least' : 'at-most',
    margin: item.margin ?? '',
    unit,
  }
  switch (outcome) {
    case 'not-assessed':
      return because(
        'gauge-unknown',
        'guarded acceptance needs an instrument of known accuracy: choose the gauge',
        params,
      )
    case 'pass':
      return because('within-limit', `${read}, ${wanted(item)}: ${margin} to spare`, params)
    case 'pass-uncertain':
      return because(
        'within-uncertainty',
        `${read} meets ${item.limit} ${unit} by ${margin}, less than the uncertainty of ${sure}: the true value may miss it`,
        params,
      )
    case 'fail-uncertain':
      return because(
        'beyond-uncertainty',
        `${read} is ${margin} ${near} the limit of ${item.limit} ${unit}, less than the uncertainty of ${sure}: the true value may meet it`,
        params,
      )
    case 'fail':
      return because(
        'beyond-limit',
        `${read} is ${margin} ${near} the limit of ${item.limit} ${unit}`,
        params,
      )
  }
}

function wanted({ limits, limit, limitSense }: Facts): string {
  return limits ? `limits ${limits.low} to ${limits.high}` : `limit ${limitSense} ${limit}`
}

/** The advisory items that failed: the test may pass beside them, and its headline says so. */
export const advisoriesOut = (items: readonly ItemJudgement[]): readonly ItemJudgement[] =>
  items.filter((i) => i.requirement === 'advisory' && fails(i.outcome))

/** Says what the whole test came to: every required item that decides it, and advisory ones that fail. */
export function reasonOf(outcome: Outcome, items: readonly ItemJudgement[]): string {
  const required = items.filter((i) => i.requirement === 'required')
  const faults = required.filter((i) => i.outcome === outcome)
  const advisory = advisoriesOut(items)
  const note =
    advisory.length > 0
      ? ` Advisory: ${advisory.map((i) => `${lower(i.title)} – ${i.reason}`).join('; ')}.`
      : ''
  if (outcome === 'pass') return `Every required item meets its limit.${note}`
  const said = faults.map((i) => `${i.title}: ${i.reason}`).join('; ')
  return `${said || 'The test: not recorded'}.${note}`
}

/**
 * Says behind the word of a verdict that something was out of limits all the same, as “, with 1 advisory out of
 * limits”; nothing where there is none.
 */
export function advisoryWords({
  outcome,
  advisoriesOut: count = 0,
}: {
  readonly outcome: Outcome
  readonly advisoriesOut?: number | undefined
}): string {
  if (!passes(outcome) || count === 0) return ''
  return `, with ${count} ${count === 1 ? 'advisory' : 'advisories'} out of limits`
}

const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1)
