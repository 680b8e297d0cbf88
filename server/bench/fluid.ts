import type { TestSite } from '@uvanta/core/apparatus'
import { SiteModel } from '@uvanta/core/apparatus/backflow'
import { MachineSite, works } from '@uvanta/core/apparatus/machine'
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
function measured(name: string, site: TestSite, disturb: () => void): object {
  const run = (seconds: number) => {
    for (let n = 0; n < seconds / PERIOD_S; n++) {
      if (n % (DISTURBED_EVERY_S / PERIOD_S) === 0) disturb()
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

/** A valve that is cracked and shut by turns. */
const turning = (site: TestSite, valve: string) => () =>
  site.move(valve, site.opening(valve) === 'shut' ? 'crack' : 'shut')

/** An RP with gauge and hoses. */
export function benchFluid(): object {
  const site = new SiteModel({ kind: 'RP', sizeIn: 2, condition: { faults: [], supplyKpa: 450 } })
  site.connect('high', 'cock-2')
  site.connect('low', 'cock-3')
  site.move('cock-2', 'open')
  site.move('cock-3', 'open')
  return measured('RP assembly with gauge and hoses', site, turning(site, 'low-bleed'))
}

/** Every kind of regulator at its small flow. */
export function benchRegulators(): object[] {
  return regulatorKinds.map((kind) => {
    const condition = { faults: [], supplyKpa: 600 }
    const site = new RegulatorSite({
      kind,
      sizeIn: 2,
      condition,
      nominals: { 'set-point': 200, 'relief-set': 250 },
    })
    site.connect('gauge', 'outlet-tap')
    site.move('outlet-tap', 'open')
    site.move('shutoff-2', 'shut')
    return measured(kind, site, turning(site, 'flow-tap'))
  })
}

/** Every machine, one thing after the other looked at, its signal going up and down where it has one. */
export function benchMachines(): object[] {
  return Object.keys(works).map((kind) => {
    const site = new MachineSite({ kind, sizeIn: 2, condition: { faults: [], supplyKpa: 550 } })
    const items = Object.keys(works[kind]?.measures ?? {})
    const [source] = site.layout.sources
    let turn = 0
    return measured(kind, site, () => {
      turn++
      site.look(items[turn % items.length] ?? '')
      if (source) site.apply(source.id, (turn % 5) / 4)
    })
  })
}
