import type { TestSite } from '@uvanta/core/apparatus'
import { SiteModel } from '@uvanta/core/apparatus/backflow'
import { regulatorKinds, RegulatorSite } from '@uvanta/core/apparatus/regulator'

const SECONDS = 3600
const PERIOD_S = 0.1
/** Every so often a bleed is opened or shut, so that there is something to follow. */
const DISTURBED_EVERY_S = 20

const HEAP = (): number => {
  globalThis.gc?.()
  return process.memoryUsage().heapUsed
}

/** A site sampled ten times a second, something turned now and then: simulated time against the clock’s. */
function measured(name: string, site: TestSite, turned: string): object {
  const run = (seconds: number) => {
    for (let n = 0; n < seconds / PERIOD_S; n++) {
      if (n % (DISTURBED_EVERY_S / PERIOD_S) === 0) {
        site.move(turned, site.opening(turned) === 'shut' ? 'crack' : 'shut')
      }
      site.advance(PERIOD_S)
      site.atInstrument()
    }
  }
  run(300)
  const before = HEAP()
  const start = performance.now()
  run(SECONDS)
  const seconds = (performance.now() - start) / 1000
  return {
    name: `${name}, simulated time ÷ real time`,
    ratio: Math.round(SECONDS / seconds),
    aimOver: 1000,
    heapGrowthKb: Math.round((HEAP() - before) / 1024),
  }
}

/** An RP with gauge and hoses. */
export function benchFluid(): object {
  const site = new SiteModel({ kind: 'RP', sizeIn: 2, condition: { faults: [], supplyKpa: 450 } })
  site.connect('high', 'cock-2')
  site.connect('low', 'cock-3')
  site.move('cock-2', 'open')
  site.move('cock-3', 'open')
  return measured('RP assembly with gauge and hoses', site, 'low-bleed')
}

/** Every kind of regulator at its small flow. */
export function benchRegulators(): object[] {
  return regulatorKinds.map((kind) => {
    const condition = { faults: [], supplyKpa: 600 }
    const site = new RegulatorSite({ kind, sizeIn: 2, condition, setKpa: 200, reliefKpa: 250 })
    site.connect('gauge', 'outlet-tap')
    site.move('outlet-tap', 'open')
    site.move('shutoff-2', 'shut')
    return measured(kind, site, 'flow-tap')
  })
}
