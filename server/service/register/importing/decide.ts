import type { Fault, Asked } from './readLine'
import type { CustomerRow, EquipmentRow, SiteRow } from '../../../store/tables'

/** What the register holds of all that a few lines name. */
export interface Known {
  readonly customers: readonly Pick<CustomerRow, 'id' | 'name'>[]
  readonly sites: readonly Pick<SiteRow, 'id' | 'customerId' | 'name' | 'address' | 'district'>[]
  readonly equipment: readonly Pick<EquipmentRow, 'tag' | 'serial' | 'siteId'>[]
}

/** A line that is carried out, with what has to be made for it before. */
export interface Step {
  readonly customer: { readonly id: string; readonly name: string; readonly isNew: boolean }
  readonly site: Known['sites'][number] & { readonly isNew: boolean }
}
export type Decision =
  | { readonly outcome: 'new'; readonly step: Step; readonly known: Known }
  | { readonly outcome: 'there' }
  | { readonly outcome: 'refused'; readonly faults: readonly Fault[] }

const refused = (column: Fault['column'], message: string): Decision => ({
  outcome: 'refused',
  faults: [{ column, message }],
})

/**
 * What becomes of one line beside what the register holds: nothing that stands there is changed by a table.
 * @param newId makes an id for a customer and for a site that are new
 */
export function decide({ equipment, place }: Asked, known: Known, newId: () => string): Decision {
  const named = known.customers.filter((c) => same(c.name, place.customer))
  const at = known.sites.filter(
    (s) => same(s.name, place.site) && named.some((c) => c.id === s.customerId),
  )
  const standing = known.equipment.find((e) => same(e.tag, equipment.tag))
  if (standing)
    return standing.serial === equipment.serial && at.some((s) => s.id === standing.siteId)
      ? { outcome: 'there' }
      : refused('tag', `is taken by what has the serial ${standing.serial}: choose another`)
  if (at.length > 1)
    return refused('site', 'stands in the register more than once: give one another name first')
  const [site] = at
  if (site) return atSite({ equipment, place }, site, known)
  if (named.length > 1)
    return refused('customer', 'stands in the register more than once: give one another name first')
  const { address, district } = place
  if (!address) return refused('address', 'is missing: the site is not in the register yet')
  if (!district) return refused('district', 'is missing: the site is not in the register yet')
  const [customer] = named
  const owner = customer ?? { id: newId(), name: place.customer }
  const here = { id: newId(), customerId: owner.id, name: place.site, address, district }
  return {
    outcome: 'new',
    step: { customer: { ...owner, isNew: !customer }, site: { ...here, isNew: true } },
    known: withLine(
      {
        ...known,
        customers: customer ? known.customers : [...known.customers, owner],
        sites: [...known.sites, here],
      },
      equipment,
      here.id,
    ),
  }
}

function atSite({ equipment, place }: Asked, site: Known['sites'][number], known: Known): Decision {
  for (const column of ['address', 'district'] as const)
    if (place[column] && !same(place[column], site[column]))
      return refused(column, `of this site is ${site[column]} in the register: change one of them`)
  const customer = known.customers.find((c) => c.id === site.customerId)
  return {
    outcome: 'new',
    step: {
      customer: { id: site.customerId, name: customer?.name ?? '', isNew: false },
      site: { ...site, isNew: false },
    },
    known: withLine(known, equipment, site.id),
  }
}

const withLine = (known: Known, { tag, serial }: Asked['equipment'], siteId: string): Known => ({
  ...known,
  equipment: [...known.equipment, { tag, serial, siteId }],
})

const same = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase()
