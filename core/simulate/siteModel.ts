import type { SiteSpec, TestSite } from '../apparatus'
import { isAssemblyKind, SiteModel } from '../apparatus/backflow'
import { MachineSite, works } from '../apparatus/machine'
import { isRegulatorKind, RegulatorSite } from '../apparatus/regulator'

/**
 * The model of a piece of equipment; null for a kind that has none.
 * @throws FluidError when its condition cannot be computed
 */
export function siteModelOf(spec: SiteSpec): TestSite | null {
  const { kind } = spec
  if (isAssemblyKind(kind)) return new SiteModel({ ...spec, kind })
  if (isRegulatorKind(kind)) return new RegulatorSite({ ...spec, kind })
  return kind in works ? new MachineSite(spec) : null
}
