import { spread } from '../assembly'
import type { GuideZone } from './equipment'

type Zones = readonly GuideZone[]

const feeders = (zones: Zones, id: string) => zones.filter((z) => z.feeds?.includes(id))

/** Every valve that has to be shut before a zone is cut off: its own, and those of what feeds it. */
export function shutFor(zones: Zones, id: string): string[] {
  const own = zones.find((z) => z.id === id)?.shutBy ?? []
  return [...new Set([...own, ...feeders(zones, id).flatMap((z) => shutFor(zones, z.id))])]
}

/** The zones that stand in connection with one through the equipment, itself with them. */
export function connectedZones(zones: Zones, id: string): GuideZone[] {
  const edges = zones.flatMap((z) =>
    (z.feeds ?? []).flatMap((to) => [
      [z.id, to],
      [to, z.id],
    ]),
  )
  const found = spread([id], edges)
  return zones.filter((z) => found.has(z.id))
}

/** Zones that feed themselves, round any number of corners: such a guide cannot be walked. */
export function roundZones(zones: Zones): string[] {
  const reaches = (from: string, to: string, left: number): boolean =>
    left > 0 &&
    (zones.find((z) => z.id === from)?.feeds ?? []).some(
      (n) => n === to || reaches(n, to, left - 1),
    )
  return zones.filter((z) => reaches(z.id, z.id, zones.length)).map((z) => z.id)
}
