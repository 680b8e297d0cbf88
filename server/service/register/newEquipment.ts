import type { Site } from '@uvanta/contract'
import type { Id } from '@uvanta/core/schema'
import type { EquipmentRow, EquipmentStatusRow } from '../../store/tables'
import { searchTextOf } from './searchText'

/** What is entered of a piece of equipment that is new to the register. */
export type EquipmentInput = Omit<
  EquipmentRow,
  | 'version'
  | 'searchText'
  | 'siteName'
  | 'virtualSite'
  | 'anchorOn'
  | 'model'
  | 'setPoint'
  | 'nominals'
  | 'station'
  | 'stationPlace'
  | 'specSheet'
  | 'installedOn'
> & {
  dueOn: string
  model?: string | undefined
  setPoint?: EquipmentRow['setPoint'] | undefined
  nominals?: EquipmentRow['nominals'] | undefined
  station?: string | null | undefined
  stationPlace?: number | null | undefined
  specSheet?: string | null | undefined
  installedOn?: string | null | undefined
}

/** Its row in the register, and its state: nothing was tested here yet. */
export function newEquipment(
  { dueOn, ...input }: EquipmentInput,
  site: Pick<Site, 'name' | 'address' | 'district' | 'customer'>,
): { readonly row: EquipmentRow; readonly status: EquipmentStatusRow } {
  const row = {
    ...input,
    model: input.model ?? '',
    setPoint: input.setPoint ?? null,
    nominals: input.nominals ?? null,
    station: input.station ?? null,
    stationPlace: input.stationPlace ?? null,
    specSheet: input.specSheet ?? null,
    installedOn: input.installedOn ?? null,
    anchorOn: dueOn,
    searchText: searchTextOf(input, site),
    siteName: site.name,
    virtualSite: null,
    version: 1,
  }
  return { row, status: neverTested(input.id, dueOn) }
}

const neverTested = (equipmentId: Id<'equipment'>, dueOn: string): EquipmentStatusRow => ({
  equipmentId,
  condition: 'never-tested',
  dueOn,
  lastTestedOn: null,
  repairBy: null,
  lastVisitId: null,
})
