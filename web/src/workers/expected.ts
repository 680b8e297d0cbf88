import { type AssemblyKind, type Settings, SiteModel } from '@uvanta/core/apparatus/backflow'
import { FluidError } from '@uvanta/core/fluid'
import { expose } from 'comlink'

/** Long enough for a healthy assembly to come to rest. */
const REST_S = 40

/** What a healthy assembly of this kind and size shows with its valves as they stand. */
const expectation = {
  pressures(kind: AssemblyKind, sizeIn: number, supplyKpa: number, settings: Settings) {
    try {
      const site = new SiteModel({ kind, sizeIn, condition: { faults: [], supplyKpa } })
      site.apply(settings)
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
