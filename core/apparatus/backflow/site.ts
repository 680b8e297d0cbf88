import { coldWater, FluidError, FluidModel, GRAVITY } from '../../fluid'
import { type AssemblySpec, assemblyNetwork } from './build'
import { type HoseName, hoseNames } from './kinds'
import { type Opening, openingParts } from '../openings'
import { backflow } from './layout'
import { DRIP_KG_S, type Seen, type Settings, type TestSite } from '../site'
import { type Apparatus, movableElements, portsOf, restOpeningOf } from '../types'

/** kg/s from which on a healthy meter turns, and how much more a stuck one wants. */
const METER_STARTS_KG_S = 2e-3
const STUCK_WANTS = 500

const isHose = (name: string): name is HoseName => (hoseNames as readonly string[]).includes(name)

/**
 * An assembly with the test kit in time: valves are turned and hoses moved, and it answers as the
 * hydraulic model says. The gauge’s own lag and noise are not part of it (see gauge.ts).
 */
export class SiteModel implements TestSite {
  readonly layout: Apparatus
  private readonly model: FluidModel
  private readonly openings: Map<string, Opening>
  private readonly hoses = new Map<HoseName, string>()
  private readonly movable: ReadonlySet<string>
  private readonly ports: readonly string[]
  gaugeAbovePortM = 0

  /** @throws FluidError when the condition is none */
  constructor(readonly spec: AssemblySpec) {
    this.layout = backflow.find((a) => a.kind === spec.kind) as Apparatus
    this.model = new FluidModel(assemblyNetwork(spec))
    this.movable = new Set(movableElements(this.layout))
    this.ports = portsOf(this.layout)
    const open = this.layout.elements.filter((e) => e.role === 'shutoff')
    this.openings = new Map(open.map((e) => [e.id, 'open']))
    this.model.settle()
  }

  get time(): number {
    return this.model.time
  }

  opening(element: string): Opening {
    return this.openings.get(element) ?? 'shut'
  }

  /** @throws FluidError when nothing of that name can be turned */
  move(element: string, to: Opening): void {
    if (!this.movable.has(element)) throw new FluidError(element, 'there is no such valve or cock')
    this.openings.set(element, to)
    if (this.ports.includes(element)) this.setCock(element)
    else this.model.setOpening(element, openingParts[to])
  }

  /** Fits a hose to a cock; null takes it off. @throws FluidError when there is no such hose or cock */
  connect(hose: string, port: string | null): void {
    if (!isHose(hose)) throw new FluidError(hose, 'there is no such hose')
    if (port && !this.ports.includes(port)) throw new FluidError(port, 'there is no such cock')
    const before = this.hoses.get(hose)
    if (port) this.hoses.set(hose, port)
    else this.hoses.delete(hose)
    for (const cock of new Set([before, port])) if (cock) this.setCock(cock)
  }

  /** Brings valves and hoses to where they stand, as after a reload. */
  restore(settings: Settings): void {
    for (const hose of hoseNames) this.connect(hose, settings.hoses[hose] ?? null)
    for (const element of this.movable) {
      this.move(element, settings.openings[element] ?? restOpeningOf(this.layout, element))
    }
    this.gaugeAbovePortM = settings.gaugeAbovePortM ?? 0
  }

  /** A cock leads to the hoses that are fitted to it, or to the air. */
  private setCock(cock: string): void {
    const part = openingParts[this.opening(cock)]
    const fitted = hoseNames.filter((h) => this.hoses.get(h) === cock)
    for (const hose of hoseNames) {
      this.model.setOpening(`${cock}>${hose}`, fitted.includes(hose) ? part : 0)
    }
    this.model.setOpening(`${cock}>air`, fitted.length > 0 ? 0 : part)
  }

  setDemand(litresPerMinute: number): void {
    this.model.setDemand('demand', litresPerMinute / 60_000)
  }

  advance(seconds: number): void {
    this.model.advance(seconds)
  }

  pressure(place: string): number {
    return this.model.pressure(place)
  }

  /** kg/s through an element of the assembly or the kit. */
  flow(element: string): number {
    return this.model.flow(element)
  }

  bled(): number {
    return this.model.passedThrough('high-bleed') + this.model.passedThrough('low-bleed')
  }

  /**
   * The differential at the gauge, kPa: high side less low side, or less the air at the gauge’s own
   * height when the low hose hangs free.
   */
  atInstrument(): number {
    const high = this.model.pressure('high-hose')
    if (this.hoses.has('low')) return high - this.model.pressure('low-hose')
    return high - (coldWater.density * GRAVITY * this.gaugeAbovePortM) / 1000
  }

  private meterStarts(id: string): number {
    const stuck = this.spec.condition.faults.find((f) => f.element === id && f.fault === 'stuck')
    return METER_STARTS_KG_S * (1 + STUCK_WANTS * (stuck?.severity ?? 0))
  }

  seen(): Seen {
    const { elements } = this.layout
    const lifting = elements.filter((e) => e.role === 'relief' || e.role === 'air-inlet')
    const runs = (link: string) => this.model.flow(link) > DRIP_KG_S
    const lift = (part: number) =>
      lifting.map((e) => e.id).filter((id) => this.model.reliefLift(id) > part)
    return {
      running: [
        ...lifting.map((e) => e.id).filter(runs),
        ...this.ports.filter((cock) => runs(`${cock}>air`)),
        ...['high-bleed', 'low-bleed'].filter(runs),
      ],
      turning: elements
        .filter((e) => e.role === 'meter' && this.model.flow(e.id) > this.meterStarts(e.id))
        .map((e) => e.id),
      lifted: lift(0.02),
      wideOpen: lift(0.98),
    }
  }
}
