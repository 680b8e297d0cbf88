import { fineGauge, GaugeResponse, formatMessage, type GaugeMessage } from '@uvanta/core/instrument'
import { hoseNames, type HoseName, SiteModel } from '@uvanta/core/apparatus/backflow'
import { type Opening, openings } from '@uvanta/core/apparatus'
import { FluidError } from '@uvanta/core/fluid'
import { convertValue } from '@uvanta/core/quantity'
import type { HiddenSites } from './sites'

/** The stand-in’s own data: a differential gauge of 15 psi that samples ten times a second. */
const PERIOD_S = 0.1
const hello: GaugeMessage = {
  type: 'hello',
  tag: 'G-01',
  serial: 'DG-48211',
  unit: 'psi',
  span: 15,
  resolution: 0.01,
  periodS: PERIOD_S,
}
const SIGHT_EVERY = 3
const BATTERY_EVERY = 300

/** How the instrument misbehaves, to try what the link does then. */
type Trouble = 'ok' | 'drop' | 'rubbish' | 'flat' | 'frozen'

/** One test gauge with its hoses at one virtual site; speaks the line protocol. */
export class Instrument {
  private site: SiteModel | null = null
  private siteId = ''
  private response: GaugeResponse
  private running = false
  private seq = 0
  private trouble: Trouble = 'ok'
  private shown = 0

  constructor(
    private readonly sites: HiddenSites,
    private readonly say: (line: string) => void,
    private readonly random: () => number,
  ) {
    this.response = new GaugeResponse(this.nature(), random)
  }

  private nature() {
    return { ...fineGauge, resolutionKpa: convertValue('differential', 0.01, 'psi', 'kPa') }
  }

  private tell(message: GaugeMessage): void {
    this.say(formatMessage(message))
  }

  /** Takes one line; what it does not know it passes over, as an instrument does. */
  hear(line: string): void {
    const [verb, a = '', b = '', c = ''] = line.trim().split(' ')
    try {
      switch (verb) {
        case 'HELLO':
          return this.tell(hello)
        case 'START':
          this.running = true
          return
        case 'STOP':
          this.running = false
          return
        case 'SITE':
          return this.goTo(a, b, Number(c))
        case 'MOVE':
          if ((openings as readonly string[]).includes(b)) this.site?.move(a, b as Opening)
          return
        case 'HOSE':
          if ((hoseNames as readonly string[]).includes(a))
            this.fit(a as HoseName, b === '-' ? null : b)
          return
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
    const spec = this.sites.spec(equipmentId, kind, sizeIn > 0 ? sizeIn : 1)
    this.siteId = equipmentId
    this.site = spec ? new SiteModel(spec) : null
    this.response = new GaugeResponse(this.nature(), this.random)
  }

  private fit(hose: HoseName, port: string | null): void {
    this.site?.connect(hose, port)
    if (port) this.response.refilled()
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
    if (site && this.seq % SIGHT_EVERY === 0) this.tell({ type: 'sight', ...site.seen() })
    if (this.seq % BATTERY_EVERY === 1 || this.trouble === 'flat') {
      this.tell({ type: 'battery', percent: this.trouble === 'flat' ? 3 : 87 })
    }
  }

  private read(site: SiteModel | null): number {
    const kpa = site?.differential() ?? 0
    const bled = site ? site.bled('high') + site.bled('low') : 0
    return convertValue('differential', this.response.sample(PERIOD_S, kpa, bled), 'kPa', 'psi')
  }
}
