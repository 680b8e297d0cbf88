import {
  type AssemblyKind,
  type AssemblySpec,
  type Fault,
  layoutOf,
  possibleFaults,
} from '@uvanta/core/apparatus/backflow'
import type { App } from '../context'
import type { Seeded } from './random'

/** The hidden condition of one piece of demo equipment, as it is kept and handed to the test gauge’s stand-in. */
export interface VirtualSite {
  readonly kind: AssemblyKind
  readonly sizeIn: number
  readonly supplyKpa: number
  readonly springs: Readonly<Record<string, number>>
  readonly faults: readonly Fault[]
}

/** Springs a few percent apart from piece to piece; one in seven has something wrong with it. */
export function virtualSiteOf(kind: AssemblyKind, sizeIn: string, random: Seeded): VirtualSite {
  const sprung = layoutOf(kind).elements.filter((e) =>
    ['check', 'relief', 'air-inlet'].includes(e.role),
  )
  return {
    kind,
    sizeIn: Number(sizeIn),
    supplyKpa: random.whole(380, 590),
    springs: Object.fromEntries(
      sprung.map((e) => [e.id, Math.round(random.between(0.93, 1.08) * 1000) / 1000]),
    ),
    faults: random.chance(0.14) ? [someFault(kind, random)] : [],
  }
}

/** A fault of the kinds that technicians meet. */
export function someFault(kind: AssemblyKind, random: Seeded): Fault {
  const common = possibleFaults(kind).filter(
    ({ element, fault }) => element.role !== 'shutoff' && fault !== 'spring-broken',
  )
  const { element, fault } = random.pick(common)
  return { element: element.id, fault, severity: Math.round(random.between(0.3, 0.8) * 100) / 100 }
}

/** The model of a site, with other faults than it has today and springs worn to a part. */
export function specOf(site: VirtualSite, faults: readonly Fault[], worn = 1): AssemblySpec {
  const springs = Object.fromEntries(
    Object.entries(site.springs).map(([id, factor]) => [id, factor * worn]),
  )
  const { kind, sizeIn, supplyKpa } = site
  return { kind, sizeIn, condition: { supplyKpa, springs, faults } }
}

export async function saveVirtualSite(app: App, equipmentId: string, site: VirtualSite) {
  await app.db.equipment.update({ virtualSite: site }, { where: { id: equipmentId } })
}
