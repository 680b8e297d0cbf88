import type { Settings, SiteSpec } from '@uvanta/core/apparatus'
import { FluidError } from '@uvanta/core/fluid'
import { siteModelOf } from '@uvanta/core/simulate'
import { expose } from 'comlink'

/** Long enough for a healthy assembly to come to rest. */
const REST_S = 40

/** What healthy equipment of this kind, size and setting shows with its valves as they stand. */
const expectation = {
  pressures(spec: Omit<SiteSpec, 'condition'>, supplyKpa: number, settings: Settings) {
    try {
      const site = siteModelOf({ ...spec, condition: { faults: [], supplyKpa } })
      if (!site) return {}
      site.restore(settings)
      site.advance(REST_S)
      return Object.fromEntries(site.layout.places.map((p) => [p.id, site.pressure(p.id)]))
    } catch (error) {
      // A size outside the model’s range has no expectation; the drawing then shows none.
      if (error instanceof FluidError) return {}
      throw error
    }
  },
}
export type Expectation = typeof expectation

expose(expectation)
