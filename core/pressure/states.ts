import type { Opening } from '../apparatus'
import { restOpening } from '../apparatus'
import type { IsolationSite, Openings } from './site'
import { spread } from '../graph'

/**
 * live: a source still reaches it. trapped: cut off and not open to the air. vented: open to the
 * air, not looked at. proved: a person read zero there and nothing was turned since.
 */
export type SpaceState = 'live' | 'trapped' | 'vented' | 'proved'

export const isShut = (site: IsolationSite, openings: Openings, valve: string): boolean => {
  const role = site.valves.find((v) => v.id === valve)?.role
  return openingOf(openings, valve, role) === 'shut'
}

const openingOf = (
  openings: Openings,
  valve: string,
  role: 'shutoff' | 'vent' | undefined,
): Opening => openings[valve] ?? restOpening(role === 'shutoff' ? 'shutoff' : 'cock')

/**
 * How every space stands by the positions of the valves alone, checks passing forward only. What
 * leaks is not in it: only a reading proves zero.
 * This is the one answer to “is it under pressure?”: the test sheet, the drawing, making safe and the
 * prover of guides all ask it.
 * @param proved zones that were read at zero
 * @param fitted vents with a hose of the test kit on them, which lead to no air
 */
export function spaceStates(
  site: IsolationSite,
  openings: Openings,
  proved: readonly string[] = [],
  fitted: readonly string[] = [],
): Record<string, SpaceState> {
  const both = (from: string, to: string) => [
    [from, to],
    [to, from],
  ]
  const edges = [
    ...site.passages.flatMap((p) => (p.oneWay ? [[p.from, p.to]] : both(p.from, p.to))),
    ...site.valves.flatMap((v) =>
      v.to && !isShut(site, openings, v.id) ? both(v.from, v.to) : [],
    ),
  ]
  const live = spread(
    site.spaces.filter((s) => s.source).map((s) => s.id),
    edges,
  )
  const open = site.valves.filter(
    (v) => v.role === 'vent' && !isShut(site, openings, v.id) && !fitted.includes(v.id),
  )
  // A space drains where it can flow to: along a check, never back through it nor past a shut seat.
  const drained = spread(
    open.map((v) => v.from),
    edges
      .filter(([a, b]) => !site.passages.some((p) => p.holds && p.from === a && p.to === b))
      .map(([a, b]) => [b as string, a as string]),
  )
  const known = new Set(site.zones.filter((z) => proved.includes(z.id)).flatMap((z) => z.spaces))
  return Object.fromEntries(
    site.spaces.map(({ id }): [string, SpaceState] => {
      if (live.has(id)) return [id, 'live']
      if (!drained.has(id)) return [id, 'trapped']
      return [id, known.has(id) ? 'proved' : 'vented']
    }),
  )
}
