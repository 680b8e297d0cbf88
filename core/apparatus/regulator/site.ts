import { FluidError, FluidModel } from '../../fluid'
import { type Opening, openingParts } from '../openings'
import { DRIP_KG_S, type Seen, type Settings, type TestSite } from '../site'
import { type Apparatus, movableElements, portsOf, restOpeningOf } from '../types'
import { regulatorTraits } from './kinds'
import { regulators } from './layout'
import {
  huntsBy,
  monitorOpensBelow,
  opensBelow,
  protectionKpaOf,
  type RegulatorSpec,
  regulatorNetwork,
  reliefOpensAt,
  setKpaOf,
  tripsAt,
  type Turned,
} from './network'

/** One turn of an adjuster changes what it sets by this part of the nominal pressure. */
const TURN = 0.08
/** A hose that is taken off is empty after so long, s. */
const EMPTIES_S = 0.5
/** How often the springs are set anew by the inlet pressure, and a slam-shut looks, s. */
const LOOK_S = 0.5
/** Gas that is heard or shows in soap, kg/s. */
const BLOWS_KG_S = 1e-6
/** Flow from which on a regulator can hunt, kg/s. */
const HUNTS_KG_S = 1e-6
/** Held open by hand, a regulator asks for more than any inlet gives, kPa. */
const HELD_OPEN_KPA = 9e4

/** A regulator with its taps and one pressure gauge in time. */
export class RegulatorSite implements TestSite {
  readonly layout: Apparatus
  private readonly model: FluidModel
  private readonly openings: Map<string, Opening>
  private readonly movable: ReadonlySet<string>
  private readonly ports: readonly string[]
  private port: string | null = null
  private turned: Turned = {}
  private tripped = false
  /** Latched by hand its low trip is held until the outlet is up. */
  private armed = true
  gaugeAbovePortM = 0

  /** @throws FluidError when the condition is none */
  constructor(readonly spec: RegulatorSpec) {
    this.layout = regulators.find((a) => a.kind === spec.kind) as Apparatus
    this.model = new FluidModel(regulatorNetwork(spec))
    this.movable = new Set(movableElements(this.layout))
    this.ports = portsOf(this.layout)
    this.openings = new Map(
      [...this.movable].map((id) => [id, restOpeningOf(this.layout, id)] as const),
    )
  }

  get time(): number {
    return this.model.time
  }

  opening(element: string): Opening {
    return this.openings.get(element) ?? 'shut'
  }

  move(element: string, to: Opening): void {
    if (!this.movable.has(element)) throw new FluidError(element, 'there is no such valve or tap')
    this.openings.set(element, to)
    if (this.ports.includes(element)) return this.setTap(element)
    if (element === 'worker-open') return
    if (element === 'slam-shut') {
      this.tripped = to === 'shut'
      this.armed = false
    }
    this.model.setOpening(element, openingParts[to])
  }

  connect(hose: string, port: string | null): void {
    if (hose !== 'gauge') throw new FluidError(hose, 'there is no such hose')
    if (port && !this.ports.includes(port)) throw new FluidError(port, 'there is no such tap')
    const before = this.port
    this.port = null
    if (before) this.setTap(before)
    // Off its tap the hose empties; the next gauge does not push what it held into the outlet.
    this.model.setOpening('hose>air', 1)
    this.model.advance(EMPTIES_S)
    this.model.setOpening('hose>air', 0)
    this.port = port
    if (port) this.setTap(port)
  }

  restore(settings: Settings): void {
    this.connect('gauge', settings.hoses.gauge ?? null)
    for (const element of this.movable) {
      this.move(element, settings.openings[element] ?? restOpeningOf(this.layout, element))
    }
    this.gaugeAbovePortM = settings.gaugeAbovePortM ?? 0
  }

  /** A tap leads to the gauge when its hose is fitted there, else to the air. */
  private setTap(tap: string): void {
    const part = openingParts[this.opening(tap)]
    const fitted = this.port === tap
    this.model.setOpening(`${tap}>gauge`, fitted ? part : 0)
    this.model.setOpening(`${tap}>air`, fitted ? 0 : part)
  }

  adjust(adjuster: string, turns: number): void {
    if (!this.layout.adjusters.some((a) => a.id === adjuster)) {
      throw new FluidError(adjuster, 'there is no such adjuster')
    }
    const of = adjuster === 'regulator' ? setKpaOf(this.spec) : protectionKpaOf(this.spec)
    const before = this.turned[adjuster as keyof Turned] ?? 0
    this.turned = { ...this.turned, [adjuster]: before + turns * TURN * of }
  }

  advance(seconds: number): void {
    for (let left = seconds; left > 1e-9; left -= LOOK_S) {
      this.setSprings()
      this.model.advance(Math.min(left, LOOK_S))
      this.trip()
    }
  }

  private setSprings(): void {
    const { spec, turned, model } = this
    const { protection } = regulatorTraits[spec.kind]
    const inlet = model.pressure(protection === 'monitor' ? 'between' : 'body-1')
    const held = this.opening('worker-open') !== 'shut'
    // What is locked up does not hunt.
    const hunts = model.flow('regulator') > HUNTS_KG_S ? huntsBy(spec, model.time) : 0
    model.setSpring(
      'regulator',
      held ? HELD_OPEN_KPA : opensBelow(spec, inlet, turned.regulator ?? 0) + hunts,
    )
    if (protection === 'relief') model.setSpring('relief', -reliefOpensAt(spec, turned.relief ?? 0))
    if (protection === 'monitor') {
      model.setSpring('monitor', monitorOpensBelow(spec, turned.monitor ?? 0))
    }
  }

  private trip(): void {
    if (regulatorTraits[this.spec.kind].protection !== 'slam-shut' || this.tripped) return
    const { highKpa, lowKpa } = tripsAt(this.spec, this.turned['slam-shut'] ?? 0)
    const outlet = this.model.pressure('body-2')
    this.armed ||= outlet >= lowKpa
    if (outlet <= highKpa && (outlet >= lowKpa || !this.armed)) return
    this.tripped = true
    this.model.setOpening('slam-shut', 0)
  }

  pressure(place: string): number {
    return this.model.pressure(place)
  }

  flow(element: string): number {
    return this.model.flow(element)
  }

  bled(): number {
    return this.model.passedThrough('hose-bleed')
  }

  atInstrument(): number {
    return this.model.pressure('hose')
  }

  seen(): Seen {
    const relief = this.layout.elements.filter((e) => e.role === 'relief').map((e) => e.id)
    const shows = regulatorTraits[this.spec.kind].medium.kind === 'gas' ? BLOWS_KG_S : DRIP_KG_S
    const runs = (link: string) => this.model.flow(link) > shows
    const lift = (part: number) => relief.filter((id) => this.model.reliefLift(id) > part)
    return {
      running: [...relief.filter(runs), ...this.ports.filter((tap) => runs(`${tap}>air`))],
      turning: [],
      lifted: [...lift(0.02), ...(this.tripped ? ['slam-shut'] : [])],
      wideOpen: lift(0.98),
    }
  }
}
