import type { Link, Network, Reservoir, Volume } from './elements'
import { FluidError } from './fluidError'

/** @throws FluidError naming the element when the network cannot be computed */
export function validateNetwork(network: Network): void {
  const places = new Set<string>()
  for (const place of [...network.volumes, ...network.reservoirs]) {
    if (places.has(place.id)) throw new FluidError(place.id, 'two places have this name')
    places.add(place.id)
  }
  network.volumes.forEach(validateVolume)
  network.reservoirs.forEach(validateReservoir)
  const links = new Set<string>()
  for (const link of network.links) {
    if (links.has(link.id)) throw new FluidError(link.id, 'two links have this name')
    links.add(link.id)
    validateLink(link, places)
  }
  if (network.volumes.length === 0) throw new FluidError('network', 'it has no volume')
}

function within(element: string, what: string, value: number, least: number, most: number): void {
  if (!Number.isFinite(value) || value < least || value > most) {
    throw new FluidError(element, `${what} is ${value}; it must lie between ${least} and ${most}`)
  }
}

function validateVolume(v: Volume): void {
  within(v.id, 'volume in m³', v.volumeM3, 1e-9, 1e6)
  within(v.id, 'elasticity per kPa', v.elasticityPerKpa ?? 0, 0, 0.01)
  within(v.id, 'caught air in m³', v.airM3 ?? 0, 0, v.volumeM3)
  within(v.id, 'elevation in m', v.elevationM ?? 0, -1000, 1000)
  within(v.id, 'starting pressure in kPa', v.startKpa ?? 0, -100, 1e5)
}

function validateReservoir(r: Reservoir): void {
  within(r.id, 'pressure in kPa', r.pressureKpa, -101, 1e5)
  within(r.id, 'elevation in m', r.elevationM ?? 0, -1000, 1000)
}

function validateLink(link: Link, places: ReadonlySet<string>): void {
  const named =
    link.type === 'demand'
      ? [link.from]
      : link.type === 'relief'
        ? [link.from, link.to, link.senseHigh, link.senseLow]
        : [link.from, link.to]
  for (const name of named) {
    if (!places.has(name)) throw new FluidError(link.id, `there is no place “${name}”`)
  }
  if (link.type === 'demand') {
    within(link.id, 'flow in m³/s', link.flow, 0, 100)
    return
  }
  if (link.from === link.to) throw new FluidError(link.id, 'it leads from a place to itself')
  within(link.id, 'Cv', link.cv, 0, 1e6)
  within(link.id, 'leak Cv', link.leakCv ?? 0, 0, 1e6)
  if (link.type === 'valve') within(link.id, 'opening', link.opening, 0, 1)
  else within(link.id, 'full lift in kPa', link.fullLiftKpa, 1e-3, 1e5)
  if (link.type === 'check') within(link.id, 'spring load in kPa', link.loadKpa, 0, 1e5)
  if (link.type === 'relief') {
    within(link.id, 'opening differential in kPa', link.opensBelowKpa, -1e5, 1e5)
    within(link.id, 'hysteresis in kPa', link.hysteresisKpa, 0, 1e5)
  }
}
