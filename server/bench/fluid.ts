import { SiteModel } from '@uvanta/core/apparatus/backflow'

const SECONDS = 3600
const PERIOD_S = 0.1
/** Every so often a bleed is opened or shut, so that there is something to follow. */
const DISTURBED_EVERY_S = 20

/** An RP with gauge and hoses, sampled ten times a second: simulated time against the clock’s, and what it leaves in memory. */
export function benchFluid(): object {
  const site = new SiteModel({ kind: 'RP', sizeIn: 2, condition: { faults: [], supplyKpa: 450 } })
  site.connect('high', 'cock-2')
  site.connect('low', 'cock-3')
  site.move('cock-2', 'open')
  site.move('cock-3', 'open')
  const run = (seconds: number) => {
    for (let n = 0; n < seconds / PERIOD_S; n++) {
      if (n % (DISTURBED_EVERY_S / PERIOD_S) === 0) {
        site.move('low-bleed', site.opening('low-bleed') === 'shut' ? 'crack' : 'shut')
      }
      site.advance(PERIOD_S)
      site.differential()
    }
  }
  run(300)
  globalThis.gc?.()
  const before = process.memoryUsage().heapUsed
  const start = performance.now()
  run(SECONDS)
  const seconds = (performance.now() - start) / 1000
  globalThis.gc?.()
  return {
    name: 'RP assembly with gauge and hoses, simulated time ÷ real time',
    ratio: Math.round(SECONDS / seconds),
    aimOver: 1000,
    heapGrowthKb: Math.round((process.memoryUsage().heapUsed - before) / 1024),
  }
}
