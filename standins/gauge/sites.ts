import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { type Fault, faultsAfter, type SiteSpec } from '@uvanta/core/apparatus'

/** The hidden condition of one piece of equipment, as the demo writes it. */
export interface HiddenSite {
  readonly kind: string
  readonly sizeIn: number
  readonly supplyKpa: number
  readonly springs: Readonly<Record<string, number>>
  readonly faults: readonly Fault[]
  /** Nominal values in SI units. */
  readonly nominals?: NonNullable<SiteSpec['nominals']>
}

/** Line pressure of equipment that the demo knows nothing of. */
const USUAL_SUPPLY_KPA = 450

/**
 * What stands behind each piece of equipment. Services are kept in a file beside, so that what was
 * cleaned last week is clean today.
 */
export class HiddenSites {
  private readonly services: Map<string, [string, 'cleaned' | 'renewed'][]>

  constructor(
    private readonly sitesFile: string,
    private readonly servicesFile: string,
  ) {
    const kept: unknown = existsSync(servicesFile)
      ? JSON.parse(readFileSync(servicesFile, 'utf8'))
      : {}
    this.services = new Map(Object.entries(kept as Record<string, never>))
  }

  /** The model of a piece of equipment; one that is not known is healthy. */
  spec(equipmentId: string, kind: string, sizeIn: number): SiteSpec {
    const known = this.hidden(equipmentId)
    let faults: readonly Fault[] = known?.faults ?? []
    for (const [element, service] of this.services.get(equipmentId) ?? []) {
      faults = faultsAfter(faults, element, service)
    }
    const condition = {
      faults,
      supplyKpa: known?.supplyKpa ?? USUAL_SUPPLY_KPA,
      springs: known?.springs ?? {},
    }
    return {
      kind: known?.kind ?? kind,
      sizeIn: known?.sizeIn ?? sizeIn,
      condition,
      ...(known?.nominals ? { nominals: known.nominals } : {}),
    }
  }

  private hidden(equipmentId: string): HiddenSite | undefined {
    if (!existsSync(this.sitesFile)) return undefined
    const all = JSON.parse(readFileSync(this.sitesFile, 'utf8')) as Record<string, HiddenSite>
    return Object.hasOwn(all, equipmentId) ? all[equipmentId] : undefined
  }

  service(equipmentId: string, element: string, service: 'cleaned' | 'renewed'): void {
    const done = this.services.get(equipmentId) ?? []
    if (done.some(([e, s]) => e === element && s === service)) return
    this.services.set(equipmentId, [...done, [element, service]])
    writeFileSync(this.servicesFile, JSON.stringify(Object.fromEntries(this.services)))
  }
}
