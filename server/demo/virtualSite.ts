import {
  apparatusOf,
  type Fault,
  type Nominal,
  nominalsInSi,
  possibleFaults,
  type SiteSpec,
  SPRUNG,
} from '@uvanta/core/apparatus'
import { isRegulatorKind } from '@uvanta/core/apparatus/regulator'
import type { App } from '../context'
import type { Seeded } from './random'

/** The hidden condition of one piece of demo equipment, as it is kept and handed to the test gauge’s stand-in. */
export interface VirtualSite {
  readonly kind: string
  readonly sizeIn: number
  readonly supplyKpa: number
  readonly springs: Readonly<Record<string, number>>
  readonly faults: readonly Fault[]
  /** Nominal values in SI units. */
  readonly nominals?: NonNullable<SiteSpec['nominals']>
}

/** Springs a few percent apart from piece to piece; one in seven has something wrong with it. */
export function virtualSiteOf(
  kind: string,
  sizeIn: string,
  random: Seeded,
  nominals: readonly Nominal[] = [],
): VirtualSite {
  const sprung = elementsOf(kind).filter((e) => SPRUNG.includes(e.role))
  const known = nominalsInSi(nominals)
  return {
    kind,
    sizeIn: Number(sizeIn),
    supplyKpa: known.supply ?? supplyOf(known['inlet-maximum'], random),
    springs: Object.fromEntries(
      sprung.map((e) => [
        e.id,
        Math.round(random.between(...spreadOf(kind, e.role)) * 1000) / 1000,
      ]),
    ),
    faults: random.chance(0.14) ? [someFault(kind, random)] : [],
    ...(nominals.length > 0 ? { nominals: known } : {}),
  }
}

const elementsOf = (kind: string) => apparatusOf(kind)?.elements ?? []
/** A regulator and its relief were set by hand, to a percent or so. */
function spreadOf(kind: string, role: string): [number, number] {
  if (!isRegulatorKind(kind)) return [0.93, 1.08]
  return role === 'regulator' ? [0.99, 1.01] : [0.97, 1.03]
}

/** Street pressure of a water main; before a regulator a good part of the most that it may have. */
const supplyOf = (inletMaximumKpa: number | undefined, random: Seeded): number =>
  inletMaximumKpa === undefined
    ? random.whole(380, 590)
    : Math.round(inletMaximumKpa * random.between(0.65, 0.85))

/** A fault of the kinds that technicians meet. */
export function someFault(kind: string, random: Seeded): Fault {
  const common = possibleFaults({ elements: elementsOf(kind) }).filter(
    ({ element, fault }) => element.role !== 'shutoff' && fault !== 'spring-broken',
  )
  const { element, fault } = random.pick(common)
  return { element: element.id, fault, severity: Math.round(random.between(0.3, 0.8) * 100) / 100 }
}

/** What years do to a machine, which has no spring that wears: it gets stiff, or its zero wanders. */
export function ageing(kind: string, part: number): Fault[] {
  const aged = elementsOf(kind).flatMap((e) =>
    (e.faults ?? []).flatMap((fault) =>
      fault === 'dry' || fault === 'zero-off' ? [{ element: e.id, fault, severity: part }] : [],
    ),
  )
  return part > 0 ? aged.slice(-1) : []
}

/** The model of a site, with other faults than it has today and springs worn to a part. */
export function specOf(site: VirtualSite, faults: readonly Fault[], worn = 1): SiteSpec {
  const springs = Object.fromEntries(
    Object.entries(site.springs).map(([id, factor]) => [id, factor * worn]),
  )
  const { supplyKpa, springs: _springs, faults: _faults, ...rest } = site
  return { ...rest, condition: { supplyKpa, springs, faults } }
}

export async function saveVirtualSite(app: App, equipmentId: string, site: VirtualSite) {
  await app.db.equipment.update({ virtualSite: site }, { where: { id: equipmentId } })
}
