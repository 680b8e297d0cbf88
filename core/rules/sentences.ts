import { roundTo, unitLabel } from '../quantity'
import { fails, type Outcome } from './outcome'
import type { ItemJudgement } from './types'

/** What a limited item came to, in one sentence. */
export function limitReason(
  item: Pick<
    ItemJudgement,
    'reading' | 'unit' | 'limit' | 'limitSense' | 'margin' | 'dimension' | 'corrected' | 'perMinute'
  >,
  outcome: Outcome,
  expanded: { readonly value: number; readonly digits: number } | undefined,
): string {
  const label = unitLabel(item.dimension ?? 'differential', item.unit ?? '')
  const unit = item.perMinute ? `${label} a minute` : label
  const read = item.corrected
    ? `${item.corrected} ${unit} (shown ${item.reading} ${unit}, head corrected)`
    : `${item.reading} ${unit}`
  // As written, so that a margin keeps the digits of its reading.
  const margin = item.margin?.replace('-', '')
  const near = item.limitSense === 'at least' ? 'under' : 'over'
  const sure = `${roundTo(expanded?.value ?? 0, expanded?.digits ?? 0)} ${unit}`
  switch (outcome) {
    case 'not-assessed':
      return 'guarded acceptance needs a gauge of known accuracy: choose the gauge'
    case 'pass':
      return `${read}, ${item.limitSense} ${item.limit} is wanted: ${margin} to spare`
    case 'pass-uncertain':
      return `${read} meets ${item.limit} ${unit} by ${margin}, less than the uncertainty of ${sure}: the true value may miss it`
    case 'fail-uncertain':
      return `${read} is ${margin} ${near} the limit of ${item.limit} ${unit}, less than the uncertainty of ${sure}: the true value may meet it`
    case 'fail':
      return `${read} is ${margin} ${near} the limit of ${item.limit} ${unit}`
  }
}

/** What the whole test came to: every required item that decides it, and advisory ones that fail. */
export function reasonOf(outcome: Outcome, items: readonly ItemJudgement[]): string {
  const required = items.filter((i) => i.requirement === 'required')
  const faults = required.filter((i) => i.outcome === outcome)
  const advisory = items.filter((i) => i.requirement === 'advisory' && fails(i.outcome))
  const note =
    advisory.length > 0
      ? ` Advisory: ${advisory.map((i) => `${lower(i.title)} – ${i.reason}`).join('; ')}.`
      : ''
  if (outcome === 'pass') return `Every required item meets its limit.${note}`
  const said = faults.map((i) => `${i.title}: ${i.reason}`).join('; ')
  return `${said || 'The test: not recorded'}.${note}`
}

const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1)
