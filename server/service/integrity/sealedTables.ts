import type { Models } from '../../store/models'

/** A table whose rows are sealed one by one, and what of a row its seal leaves out. */
export interface SealedTable {
  readonly kind: string
  readonly model: keyof Models
  /** Columns that change without anybody’s authority: counters, times of use, what follows from elsewhere. */
  readonly without: readonly string[]
}

/**
 * What an authority, a permission or a document rests on. Of a visit what its log says is held against the log; the
 * rest is sealed.
 */
export const sealedTables: readonly SealedTable[] = [
  { kind: 'person', model: 'people', without: ['units'] },
  { kind: 'licence', model: 'licences', without: [] },
  { kind: 'factor', model: 'secondFactors', without: ['lastStep'] },
  { kind: 'device-key', model: 'deviceKeys', without: [] },
  { kind: 'passkey', model: 'passkeys', without: ['counter', 'lastUsedAt'] },
  { kind: 'api-key', model: 'apiKeys', without: ['lastUsedAt'] },
  { kind: 'gauge', model: 'gauges', without: [] },
  { kind: 'calibration', model: 'calibrations', without: [] },
  { kind: 'utility', model: 'utility', without: [] },
  { kind: 'customer', model: 'customers', without: [] },
  { kind: 'site', model: 'sites', without: [] },
  {
    kind: 'equipment',
    model: 'equipment',
    without: ['siteName', 'searchText', 'virtualSite'],
  },
  { kind: 'standing', model: 'equipmentStatus', without: [] },
  {
    kind: 'plan',
    model: 'visits',
    without: [
      'state',
      'done',
      'skipped',
      'outcome',
      'certificateId',
      'certificateNumber',
      'eventCount',
      'headHash',
      'replanAsked',
    ],
  },
  { kind: 'certificate', model: 'certificates', without: [] },
  { kind: 'status', model: 'certificateStatus', without: [] },
  { kind: 'pdf', model: 'certificatePdfs', without: [] },
  { kind: 'counter', model: 'certificateCounters', without: [] },
  { kind: 'library', model: 'libraryVersions', without: [] },
  // The name of who moved it goes when it is kept no longer.
  { kind: 'stock', model: 'stockMoves', without: ['person'] },
  { kind: 'daily-head', model: 'dailyHeads', without: [] },
]
