import type { VisitRow } from '@uvanta/contract'

/** Somebody has yet to go there, or to go on. */
export const isOpen = ({ state }: Pick<VisitRow, 'state'>): boolean =>
  state === 'under-way' || state === 'planned'

/** By the hour at which the customer expects us; those that have none come after, closed ones last. */
export const inOrderOfDay = <
  V extends Pick<VisitRow, 'state' | 'time'> & { readonly equipment: { readonly site: string } },
>(
  visits: readonly V[],
): V[] =>
  [...visits].sort(
    (a, b) =>
      Number(!isOpen(a)) - Number(!isOpen(b)) ||
      (a.time ?? '99').localeCompare(b.time ?? '99') ||
      a.equipment.site.localeCompare(b.equipment.site),
  )
