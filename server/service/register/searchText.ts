import type { Site } from '@uvanta/contract'
import type { EquipmentRow } from '../../store/tables'

/** The words by which equipment is found. */
export function searchTextOf(
  e: Pick<EquipmentRow, 'tag' | 'serial' | 'kind' | 'maker' | 'family' | 'position'>,
  site: Pick<Site, 'name' | 'address' | 'district' | 'customer'>,
): string {
  return [
    e.tag,
    e.serial,
    e.kind,
    e.maker,
    e.family,
    e.position,
    site.name,
    site.address,
    site.district,
    site.customer,
  ].join(' ')
}
