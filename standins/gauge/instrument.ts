import {
  dimensionShown,
  formatMessage,
  type GaugeMessage,
  GaugeResponse,
} from '@uvanta/core/instrument'
import { type Opening, openings, type TestSite } from '@uvanta/core/apparatus'
import { siteModelOf } from '@uvanta/core/simulate'
import { FluidError } from '@uvanta/core/fluid'
import { type Dimension, dimensionNames, fromSi, valueToSi } from '@uvanta/core/quantity'
import { gaugeFor, gauges, instrumentFor, type SimulatedGauge } from './gauges'
import type { HiddenSites } from './sites'

const PERIOD_S = 0.1
const SIGHT_EVERY = 3
const CHANNELS_EVERY = 5
const CHANNEL_NOISE_KPA = 0.05
const CHANNEL_UNIT = 'psi'
const BATTERY_EVERY = 300

/** How the instrument misbehaves, to try what the link does then. */
type Trouble = 'ok' | 'drop' | 'rubbish' | 'flat' | 'frozen'

/**
 * A tester’s gauges with their hoses at one virtual site; speaks the line protocol. One of them is on the
 * line at a time: whoever fits the hose to another tap takes the gauge whose range holds what is there.
 */
export class Instrument {
  private site: TestSite | null = null
  private gauge: SimulatedGauge = gauges[0]
  private siteId = ''
  private port: string | null = null
  private response: GaugeResponse
  private running = false
  private seq = 0
  private trouble: Trouble = 'ok'
  private shown = 0
  private heard = 0

  constructor(
    private readonly sites: HiddenSites,
    private readonly say: (line: string) => void,
    private readonly random: () => number,
  ) {
    this.response = new GaugeResponse(this.nature(), random)
  }

  private nature() {
    const { unit, span, resolution, lagS, noise } = this.gauge
    const si = (value: number) => valueToSi(dimensionShown(unit) ?? 'differential', value, unit)
    const single = this.site?.layout.streams[0] !== 'differential'
    return { lagS, noise: si(noise), resolution: si(resolution), span: si(span), single }
  }

  private introduce(): void {
    const { tag, serial, unit, span, resolution } = this.gauge
    this.tell({ type: 'hello', tag, serial, unit, span, resolution, periodS: PERIOD_S })
  }

  private tell(message: GaugeMessage): void {
    this.say(formatMessage(message))
  }

  /** Takes one line, and says that it is done with it. */
  hear(line: string): void {
    this.carryOut(line)
    this.heard++
    if (this.trouble !== 'drop') this.tell({ type: 'done', lines: this.heard })
  }

  /** What it does not know it passes over, as an instrument does. */
  private carryOut(line: string): void {
    const [verb, a = '', b = '', ...more] = line.trim().split(' ')
    try {
      switch (verb) {
        case 'HELLO':
          return this.introduce()
        case 'START':
          this.running = true
          return
        case 'STOP':
          this.running = false
          return
        case 'SITE':
          // A kind may be of several words.
          return this.goTo(a, [b, ...more.slice(0, -1)].join(' '), Number(more.at(-1)))
        case 'MOVE':
          if ((openings as readonly string[]).includes(b)) this.site?.move(a, b as Opening)
          return
        case 'HOSE':
          if (this.site?.layout.hoses.includes(a)) this.fit(a, b === '-' ? null : b)
          return
        case 'SHOW':
          return this.show(a, b)
        case 'APPLY':
          return this.site?.apply?.(a, Number(b) || 0)
        case 'ADJUST':
          return this.site?.adjust?.(a, Number(b) || 0)
        case 'HEIGHT':
          if (this.site && Number.isFinite(Number(a))) this.site.gaugeAbovePortM = Number(a)
          return
        case 'SERVICE':
          if (b === 'cleaned' || b === 'renewed') this.sites.service(this.siteId, a, b)
          return
        case 'TROUBLE':
          this.trouble = a as Trouble
          return
        default: // Passed over.
      }
    } catch (error) {
      if (!(error instanceof FluidError)) throw error
      this.tell({ type: 'trouble', says: error.message })
    }
  }

  private goTo(equipmentId: string, kind: string, sizeIn: number): void {
    this.siteId = equipmentId
    this.port = null
    this.site = siteModelOf(this.sites.spec(equipmentId, kind, sizeIn > 0 ? sizeIn : 1))
    this.response = new GaugeResponse(this.nature(), this.random)
  }

  private fit(hose: string, port: string | null): void {
    this.site?.connect(hose, port)
    this.port = port
    if (!port) return
    const suits = gaugeFor(this.site, port)
    if (suits === this.gauge) return this.response.refilled()
    this.take(suits)
  }

  /** What hoses show is shown on them; else the instrument for such a quantity goes on the line. */
  private show(item: string, dimension: string): void {
    if (!this.site?.look || !dimensionNames.includes(dimension as Dimension)) return
    this.site.look(item)
    const suits = instrumentFor(dimension as Dimension)
    if (suits && suits !== this.gauge) this.take(suits)
  }

  private take(gauge: SimulatedGauge): void {
    this.gauge = gauge
    this.response = new GaugeResponse(this.nature(), this.random)
    this.introduce()
  }

  /** Goes on by one sample. */
  tick(): void {
    const { site } = this
    site?.advance(PERIOD_S)
    if (!this.running || this.trouble === 'drop') return
    this.seq++
    if (this.trouble === 'rubbish') return this.say(`S ${this.seq} ?#${'~'.repeat(this.seq % 7)}`)
    if (this.trouble !== 'frozen') this.shown = this.read(site)
    this.tell({ type: 'sample', seq: this.seq, atS: this.seq * PERIOD_S, value: this.shown })
    if (site && this.seq % CHANNELS_EVERY === 0) this.tellChannels(site)
    if (site && this.seq % SIGHT_EVERY === 0) this.tell({ type: 'sight', ...site.seen() })
    if (this.seq % BATTERY_EVERY === 1 || this.trouble === 'flat') {
      this.tell({ type: 'battery', percent: this.trouble === 'flat' ? 3 : 87 })
    }
  }

  /** The recorder’s other channels: every place that it is on, but the one that the gauge is at. */
  private tellChannels(site: TestSite): void {
    const { elements, recorded } = site.layout
    const gauged = elements.find((e) => e.id === this.port)?.at
    for (const place of recorded.filter((p) => p !== gauged)) {
      const shown = site.pressure(place) + CHANNEL_NOISE_KPA * (this.random() - 0.5)
      const value = fromSi('gaugePressure', shown, CHANNEL_UNIT)
      this.tell({ type: 'channel', place, unit: CHANNEL_UNIT, value })
    }
  }

  private read(site: TestSite | null): number {
    const { unit } = this.gauge
    const stands = site?.atInstrument() ?? 0
    const shown = this.response.sample(PERIOD_S, stands, site?.bled() ?? 0)
    return fromSi(dimensionShown(unit) ?? 'differential', shown, unit)
  }
}
