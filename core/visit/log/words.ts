export const runNames = ['as-found', 'as-left'] as const
export type RunName = (typeof runNames)[number]

export const purposes = [
  'periodic-test',
  'failed-test',
  'complaint',
  'overhaul',
  'fail-action-change',
  'temporary-repair',
  'part-ordered',
] as const
export type Purpose = (typeof purposes)[number]
export const purposeTitles: Readonly<Record<Purpose, string>> = {
  'periodic-test': 'Periodic test',
  'failed-test': 'Retest after a failure',
  complaint: 'Complaint',
  overhaul: 'Planned overhaul',
  'fail-action-change': 'Change of fail action',
  'temporary-repair': 'Renew a temporary repair',
  'part-ordered': 'Finish with the ordered part',
}

export const checkOutcomes = ['works', 'works-not', 'not-tried'] as const
export type CheckOutcome = (typeof checkOutcomes)[number]
