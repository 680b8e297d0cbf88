import { type Apparatus, apparatusOf } from '../apparatus'
import type { Opening } from '../apparatus'
import { spread } from '../graph'

/** A space that can hold pressure; a source is never made safe: the supply, the customer’s side. */
export interface Space {
  readonly id: string
  readonly title: string
  readonly source: boolean
}

/** What a person turns: a shutoff between two spaces, a vent of one. */
export interface SiteValve {
  readonly id: string
  readonly title: string
  readonly role: 'shutoff' | 'vent'
  readonly from: string
  /** Shutoffs: the space on the outlet side. */
  readonly to?: string
}

interface Passage {
  readonly from: string
  readonly to: string
  /** A check: lets pressure through forward and holds it behind. */
  readonly oneWay: boolean
  /** A seat or pilot that may shut: what is behind it is not emptied through it. */
  readonly holds?: boolean
}

/** What is proved at zero together, and what has to be shut for it. */
export interface SiteZone {
  readonly id: string
  readonly title: string
  readonly spaces: readonly string[]
  /** The vents that are opened for it. */
  readonly vents: readonly string[]
}

/** Equipment as spaces and valves, in flow order: what making safe is worked out on. */
export interface IsolationSite {
  readonly spaces: readonly Space[]
  readonly valves: readonly SiteValve[]
  readonly passages: readonly Passage[]
  readonly zones: readonly SiteZone[]
}

/** A space that can hold pressure, as a guide names it: what shuts it off, what vents it, what it feeds. */
export interface PressureZone {
  readonly id: string
  readonly title: string
  readonly shutBy?: readonly string[] | undefined
  /** Of those, what shuts a supply of its own, besides what another space feeds it. */
  readonly ownSupply?: readonly string[] | undefined
  readonly ventedBy: readonly string[]
  readonly neverVentedBy?: readonly string[] | undefined
  /** Spaces that it feeds through the equipment: past a seat, through a pilot. */
  readonly feeds?: readonly string[] | undefined
}

/** How valves stand; one not named stands as in service: shutoffs open, vents shut. */
export type Openings = Readonly<Record<string, Opening>>

/**
 * The site of a piece of equipment: from its layout where it has one, else from the zones that its
 * guide names. Null when neither says anything of pressure.
 */
export function siteOf(
  guide: { readonly zones?: readonly PressureZone[] | undefined } | undefined,
  kind: string,
): IsolationSite | null {
  const zones = guide?.zones ?? []
  const named = zones.flatMap((z) => [...(z.shutBy ?? []), ...z.ventedBy])
  const apparatus = apparatusOf(kind)
  if (apparatus && apparatus.places.length > 0) {
    const own = layoutSite(apparatus)
    const known = new Set(own.valves.map((v) => v.id))
    if (named.every((v) => known.has(v))) return { ...own, zones: zonesOn(own, zones) }
  }
  return zones.length > 0 ? zoneSite(zones) : null
}

/** The spaces and valves of an apparatus, without a guide: all of its inside is one zone. */
export const apparatusSite = (apparatus: Apparatus): IsolationSite => {
  const own = layoutSite(apparatus)
  return { ...own, zones: zonesOn(own, []) }
}

function layoutSite({ places, elements }: Apparatus): Omit<IsolationSite, 'zones'> {
  return {
    spaces: places.map((p) => ({
      id: p.id,
      title: p.label,
      source: p.source ?? false,
    })),
    valves: elements.flatMap((e): SiteValve[] => {
      if (e.role === 'shutoff' && e.to)
        return [{ id: e.id, title: e.label, role: 'shutoff', from: e.at, to: e.to }]
      return e.role === 'cock' ? [{ id: e.id, title: e.label, role: 'vent', from: e.at }] : []
    }),
    passages: elements.flatMap((e) =>
      e.to && e.role !== 'shutoff' ? [{ from: e.at, to: e.to, oneWay: e.role === 'check' }] : [],
    ),
  }
}

/** A guide’s zones on a layout: the spaces whose vents it names. Without a guide, all of the inside. */
function zonesOn(site: Omit<IsolationSite, 'zones'>, zones: readonly PressureZone[]): SiteZone[] {
  if (zones.length === 0) {
    const inside = site.spaces.filter((s) => !s.source).map((s) => s.id)
    const vents = site.valves.filter((v) => v.role === 'vent').map((v) => v.id)
    return [{ id: 'body', title: 'the body', spaces: inside, vents }]
  }
  return zones.map((z) => ({
    id: z.id,
    title: z.title,
    vents: z.ventedBy,
    spaces: [...new Set(site.valves.filter((v) => z.ventedBy.includes(v.id)).map((v) => v.from))],
  }))
}

/**
 * Every zone a space of its own between its valves; zones and the valves of each are listed with the
 * downstream one first. A zone that another one feeds lies downstream: its valves lead out.
 */
export function zoneSite(zones: readonly PressureZone[]): IsolationSite {
  const titleOf = (id: string) => {
    const words = id.replaceAll('-', ' ').replace(/^the /, '')
    return words.charAt(0).toUpperCase() + words.slice(1)
  }
  const inFlow = <T>(list: readonly T[]) => [...list].reverse()
  const isFed = (id: string) => zones.some((z) => z.feeds?.includes(id))
  return {
    spaces: [
      { id: 'supply', title: 'Supply', source: true },
      ...zones.map((z) => ({ id: z.id, title: titleOf(z.title), source: false })),
      { id: 'beyond', title: 'Beyond', source: true },
    ],
    valves: inFlow(zones).flatMap((z) => [
      ...inFlow(z.shutBy ?? []).map((id, n): SiteValve => {
        const last = isFed(z.id) || (n > 0 && n === (z.shutBy ?? []).length - 1)
        return last && !z.ownSupply?.includes(id)
          ? { id, title: titleOf(id), role: 'shutoff', from: z.id, to: 'beyond' }
          : { id, title: titleOf(id), role: 'shutoff', from: 'supply', to: z.id }
      }),
      ...inFlow([...z.ventedBy, ...(z.neverVentedBy ?? [])]).map((id): SiteValve => ({
        id,
        title: titleOf(id),
        role: 'vent',
        from: z.neverVentedBy?.includes(id) ? 'supply' : z.id,
      })),
    ]),
    passages: zones.flatMap((z) =>
      (z.feeds ?? []).map((to) => ({ from: z.id, to, oneWay: true, holds: true })),
    ),
    zones: zones.map((z) => ({ id: z.id, title: z.title, spaces: [z.id], vents: z.ventedBy })),
  }
}

/** The zones that stand in connection with one past seats and pilots, itself with them. */
export function connectedWith(site: IsolationSite, zone: SiteZone): SiteZone[] {
  const edges = site.passages
    .filter((p) => p.holds)
    .flatMap((p) => [
      [p.from, p.to],
      [p.to, p.from],
    ])
  const spaces = spread(zone.spaces, edges)
  return site.zones.filter((z) => z.spaces.some((s) => spaces.has(s)))
}

/** Every valve that has to be shut before a zone is cut off: its own, and those of what feeds it. */
export function shutFor(site: IsolationSite, zone: string): string[] {
  const upstream = spread(
    [zone],
    site.passages.map((p) => (p.oneWay ? [p.to, p.from] : [p.from, p.to])),
  )
  const shutoffs = site.valves.filter(
    (v) => v.role === 'shutoff' && (upstream.has(v.from) || upstream.has(v.to ?? '')),
  )
  return [...new Set(shutoffs.map((v) => v.id))]
}

/** Zones that feed themselves, round any number of corners: such a guide cannot be walked. */
export function roundZones(zones: readonly PressureZone[]): string[] {
  const edges = zones.flatMap((z) => (z.feeds ?? []).map((to) => [z.id, to]))
  return zones.filter((z) => spread(z.feeds ?? [], edges).has(z.id)).map((z) => z.id)
}
