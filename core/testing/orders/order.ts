/**
 * What a guide must say in one of its variants, in this order: the orderings, orientations and traps of
 * the trade; with findings and sub-jobs where they matter.
 */
export type Order = readonly [
  guide: string,
  variant: string,
  says: readonly RegExp[],
  findings?: Readonly<Record<string, string>>,
  jobs?: readonly string[],
]
