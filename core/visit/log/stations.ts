/** The eight stations of a visit, in working order. */
export const stations = [
  'prepare',
  'arrive',
  'as-found',
  'make-safe',
  'open-up',
  'rebuild',
  'return',
  'as-left',
] as const
export type Station = (typeof stations)[number]

export const stationTitles: Readonly<Record<Station, string>> = {
  prepare: 'Prepare',
  arrive: 'Arrive',
  'as-found': 'As-found',
  'make-safe': 'Make safe',
  'open-up': 'Open up',
  rebuild: 'Rebuild',
  return: 'Return',
  'as-left': 'As-left and sign',
}
