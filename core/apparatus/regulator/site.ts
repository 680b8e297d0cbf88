import { FluidError, FluidModel } from '../../fluid'
import { type Opening, openingParts } from '../openings'
import { DRIP_KG_S, type Seen, type Settings, type TestSite } from '../site'
import { type Apparatus, movableElements, portsOf, restOpeningOf } from '../types'
import { regulatorTraits } from './kinds'
import { regulators } from './layout'
import { opensBelow, type RegulatorSpec, regulatorNetwork, setKpaOf } from './network'

/** One turn of the adjuster changes the set pressure by this part of the nominal one. */
const TURN = 0.08
/** A hose that is taken off is empty after so long, s. */
const EMPTIES_S = 0.5
/** How often the spring is set anew by the inlet pressure, s. */
const LOOK_S = 0.5
/** Gas that is heard or shows in soap, kg/s. */
const BLOWS_KG_S = 1e-6

/** A regulator with its taps and one pressure gauge in time. */
export class RegulatorSite implements TestSite {
  readonly layout: Apparatus
  private readonly model: FluidModel
  private readonly openings: Map<string, Opening>
  private readonly movable: ReadonlySet<string>
  private readonly ports: readonly string[]
  private port: string | null = null
  private turned = 0
  gaugeAbovePortM = 0

  /** @throws FluidError when the condition is none */
  constructor(readonly spec: RegulatorSpec) {
    this.layout = regulators.find((a) => a.kind === spec.kind) as Apparatus
    this.model = new FluidModel(regulatorNetwork(spec))
    this.movable = new Set(movableElements(this.layout))
    this.ports = portsOf(this.layout)
    const open = this.layout.elements.filter((e) => e.role === 'shutoff')
    this.openings = new Map(open.map((e) => [e.id, 'open']))
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
    if (this.ports.includes(element)) this.setTap(element)
    else this.model.setOpening(element, openingParts[to])
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

  apply(settings: Settings): void {
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

  /** Turns the adjuster, by so many turns; inwards raises the set pressure. */
  adjust(turns: number): void {
    this.turned += turns * TURN * setKpaOf(this.spec)
  }

  advance(seconds: number): void {
    for (let left = seconds; left > 1e-9; left -= LOOK_S) {
      const inlet = this.model.pressure('body-1')
      this.model.setSpring('regulator', opensBelow(this.spec, inlet, this.turned))
      this.model.advance(Math.min(left, LOOK_S))
    }
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
      lifted: lift(0.02),
      wideOpen: lift(0.98),
    }
  }
}
