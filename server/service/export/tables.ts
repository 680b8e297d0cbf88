import type { Models } from '../../store/models'

/** A table that is exported as one file, and the columns that are left out. */
export interface ExportedTable {
  /** Name of the file, without its ending. */
  readonly file: string
  readonly model: keyof Models
  /** What the file holds, for the README of the export. */
  readonly holds: string
  readonly without?: readonly string[]
}

/** The tables that are exported row by row; visits, certificates, photographs and keys are exported apart. */
export const exportedTables: readonly ExportedTable[] = [
  { file: 'settings', model: 'utility', holds: 'The utility.' },
  {
    file: 'people',
    model: 'people',
    holds: 'People and their roles, without passwords.',
    without: ['passwordHash', 'secondFactorSince', 'mustChange'],
  },
  { file: 'licenses', model: 'licences', holds: 'Licenses of people.' },
  {
    file: 'device-keys',
    model: 'deviceKeys',
    holds: 'Public keys by which signatures of devices are checked.',
  },
  { file: 'gauges', model: 'gauges', holds: 'Gauges.' },
  { file: 'calibrations', model: 'calibrations', holds: 'Calibrations of gauges.' },
  { file: 'customers', model: 'customers', holds: 'Customers.' },
  { file: 'sites', model: 'sites', holds: 'Sites of customers.' },
  { file: 'equipment', model: 'equipment', holds: 'Equipment.' },
  {
    file: 'equipment-status',
    model: 'equipmentStatus',
    holds: 'What equipment is due, and how it stands.',
  },
  {
    file: 'certificate-status',
    model: 'certificateStatus',
    holds: 'Which certificates are current, superseded or void, and why.',
  },
  {
    file: 'certificate-counters',
    model: 'certificateCounters',
    holds: 'The last number of each year.',
  },
  {
    file: 'library',
    model: 'libraryVersions',
    holds: 'Every version of rules, procedures and guides that a visit rests on.',
  },
  { file: 'stock', model: 'stockMoves', holds: 'Movements of stock.' },
  { file: 'audit', model: 'audit', holds: 'Who changed what outside visits.' },
  { file: 'daily-heads', model: 'dailyHeads', holds: 'Signed heads of each day.' },
  { file: 'forgettings', model: 'forgettings', holds: 'When old records were deleted.' },
  { file: 'forgotten-visits', model: 'forgottenVisits', holds: 'Heads of deleted visits.' },
  {
    file: 'forgotten-certificates',
    model: 'forgottenCertificates',
    holds: 'Numbers of deleted certificates.',
  },
]

/** Tables that are exported in files of their own form. */
export const exportedApart: readonly (keyof Models)[] = [
  'visits',
  'visitEvents',
  'certificates',
  'certificatePdfs',
  'photos',
  'signingKeys',
]

/** Tables that are not exported: secrets, counters of attempts, and seals that only this installation can check. */
export const withheldTables: readonly (keyof Models)[] = [
  'secondFactors',
  'passkeys',
  'apiKeys',
  'seals',
  'sealTotals',
  'wrongPasswords',
  'requestCounts',
]
