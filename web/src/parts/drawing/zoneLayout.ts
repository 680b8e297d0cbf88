import { connectedWith, type IsolationSite, type SiteZone } from '@uvanta/core/pressure'

type SiteValve = IsolationSite['valves'][number]

/** A space as a box, a valve where it is pressed, the pipes and seats between. */
export interface DrawnSpace {
  readonly zone: string
  readonly space: string
  readonly title: string
  readonly x: number
  readonly y: number
  readonly width: number
}
export interface PlacedValve extends SiteValve {
  readonly x: number
  readonly y: number
  /** Vents stand across the flow. */
  readonly along: number
  readonly size: number
  readonly name: { readonly x: number; readonly y: number }
}
export interface ZoneLayout {
  readonly height: number
  readonly spaces: readonly DrawnSpace[]
  readonly valves: readonly PlacedValve[]
  /** Middle lines of pipes, two walls each. */
  readonly pipes: readonly { readonly x1: number; readonly x2: number; readonly y: number }[]
  /** Thin lines: the stub of a vent, the line to a chamber. */
  readonly stubs: readonly string[]
  /** Seats that shut by themselves, between two spaces. */
  readonly seats: readonly { readonly x: number; readonly y: number }[]
}

export const WIDTH = 800
/** Height of a space. */
export const BOX = 70
const EDGE = 8
const ROW = 190
const CHAMBER_ROW = 104

const spread = <T>(list: readonly T[], from: number, to: number) =>
  list.map((item, n) => ({ item, x: from + ((to - from) * (n + 1)) / (list.length + 1) }))

/** Where the spaces of equipment without a drawing of its own are drawn, flow from left to right. */
export function zoneLayout(site: IsolationSite): ZoneLayout {
  const spaces: DrawnSpace[] = []
  const valves: PlacedValve[] = []
  const pipes: { x1: number; x2: number; y: number }[] = []
  const stubs: string[] = []
  const seats: { x: number; y: number }[] = []
  let top = 0

  const of = (zone: SiteZone, role: SiteValve['role']) =>
    site.valves.filter(
      (v) => v.role === role && (zone.spaces.includes(v.from) || zone.spaces.includes(v.to ?? '')),
    )
  const shutoffs = (list: readonly SiteValve[], from: number, to: number, y: number) => {
    for (const { item, x } of spread(list, from, to))
      valves.push({ ...item, x, y, along: 0, size: 22, name: { x, y: y + 50 } })
  }
  const box = (zone: SiteZone, x: number, width: number, y: number) => {
    spaces.push({ zone: zone.id, space: zone.spaces[0] ?? '', title: titled(zone), x, y, width })
    for (const { item, x: at } of spread(of(zone, 'vent'), x, x + width)) {
      const bottom = y + BOX
      stubs.push(`M${at} ${bottom}v36`)
      const name = { x: at, y: bottom + 56 }
      valves.push({ ...item, x: at, y: bottom + 17, along: 90, size: 11, name })
    }
  }
  const titled = (zone: SiteZone) =>
    site.spaces.find((s) => s.id === zone.spaces[0])?.title ?? zone.title
  /** A space of its own between its valves. */
  const alone = (zone: SiteZone) => {
    const y = top + 40
    const [left, right] = [250, 550]
    const all = of(zone, 'shutoff')
    const into = all.filter((v) => zone.spaces.includes(v.to ?? ''))
    const outOf = all.filter((v) => zone.spaces.includes(v.from))
    box(zone, left, right - left, y)
    pipes.push({ x1: EDGE, x2: left, y: y + BOX / 2 })
    if (outOf.length > 0) pipes.push({ x1: right, x2: WIDTH - EDGE, y: y + BOX / 2 })
    shutoffs(into, 20, left, y + BOX / 2)
    shutoffs(outOf, right, WIDTH - 20, y + BOX / 2)
    top += ROW
  }
  /** Inlet and outlet with a seat between, chambers that the inlet feeds above. */
  const chain = (zones: readonly SiteZone[]) => {
    const fedSpaces = site.passages.filter((p) => p.holds).map((p) => p.to)
    const isFed = (z: SiteZone) => z.spaces.some((s) => fedSpaces.includes(s))
    const through = zones.filter((z) => isFed(z) && of(z, 'shutoff').length > 0)
    const chambers = zones.filter((z) => isFed(z) && of(z, 'shutoff').length === 0)
    const source = zones.filter((z) => !isFed(z))
    const y = top + 40 + (chambers.length > 0 ? CHAMBER_ROW : 0)
    const middle = y + BOX / 2
    for (const zone of source) {
      box(zone, 170, 170, y)
      pipes.push({ x1: EDGE, x2: 170, y: middle }, { x1: 340, x2: 460, y: middle })
      seats.push({ x: 400, y: middle })
      shutoffs(of(zone, 'shutoff'), 20, 170, middle)
    }
    for (const zone of through) {
      box(zone, 460, 170, y)
      pipes.push({ x1: 630, x2: WIDTH - EDGE, y: middle })
      shutoffs(of(zone, 'shutoff'), 630, WIDTH - 20, middle)
    }
    for (const zone of chambers) {
      const [x, width, above] = [300, 230, top + 20]
      spaces.push({
        zone: zone.id,
        space: zone.spaces[0] ?? '',
        title: titled(zone),
        x,
        y: above,
        width,
      })
      stubs.push(`M230 ${y}V${above + BOX / 2}H${x}`)
      for (const [n, vent] of of(zone, 'vent').entries()) {
        const at = { x: x + width + 34, y: above + BOX / 2 + n * 28 }
        stubs.push(`M${x + width} ${at.y}h60`)
        valves.push({ ...vent, ...at, along: 0, size: 11, name: { x: at.x + 80, y: at.y + 5 } })
      }
    }
    top = y + BOX + 80
  }

  const placed = new Set<string>()
  for (const zone of site.zones) {
    if (placed.has(zone.id)) continue
    const together = connectedWith(site, zone)
    together.forEach((z) => placed.add(z.id))
    if (together.length > 1) chain(together)
    else alone(zone)
  }
  return { height: top, spaces, valves, pipes, stubs, seats }
}
