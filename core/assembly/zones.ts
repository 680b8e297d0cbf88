import type { HoseName, Opening } from './kinds'
import type { AssemblyKind } from './kinds'
import { layoutOf } from './layout'

/** How a water-holding space stands, as far as the valves tell. */
export type ZoneState = 'live' | 'trapped' | 'vented'

export interface ValveState {
  readonly openings: Readonly<Record<string, Opening>>
  readonly hoses: Readonly<Partial<Record<HoseName, string>>>
}

/**
 * Which spaces the supply still reaches, which are open to the air, and which hold trapped pressure:
 * from the positions of valves and cocks alone, checks passing forward only. What leaks is not in it:
 * trapped or vented is never proof of zero pressure.
 */
export function zonesOf(
  kind: AssemblyKind,
  { openings, hoses }: ValveState,
): Record<string, ZoneState> {
  const { places, elements } = layoutOf(kind)
  const isOpen = (id: string, role: string) =>
    (openings[id] ?? (role === 'shutoff' ? 'open' : 'shut')) !== 'shut'
  const passages = elements.flatMap((e) => {
    if (!e.to) return []
    if (e.role === 'shutoff')
      return isOpen(e.id, e.role)
        ? [
            [e.at, e.to],
            [e.to, e.at],
          ]
        : []
    if (e.role === 'check') return [[e.at, e.to]]
    return [
      [e.at, e.to],
      [e.to, e.at],
    ]
  })
  const live = spread(['inlet'], passages)
  const fitted = new Set(Object.values(hoses))
  const openCocks = elements.filter((e) => e.role === 'cock' && isOpen(e.id, e.role))
  const free = openCocks.filter((e) => !fitted.has(e.id)).map((e) => e.at)
  // Water leaves a space forward through a check, never back; a vent drains what flows towards it.
  const drained = spread(
    free,
    passages.map(([a, b]) => [b as string, a as string]),
  )
  return Object.fromEntries(
    places.map((p) => {
      const state = live.has(p.id) ? 'live' : drained.has(p.id) ? 'vented' : 'trapped'
      return [p.id, state]
    }),
  )
}

/** Everything that is reached from some places along passages, each from its first end to its second. */
export function spread(
  from: readonly string[],
  passages: readonly (readonly string[])[],
): Set<string> {
  const reached = new Set(from)
  for (let before = -1; before !== reached.size;) {
    before = reached.size
    for (const [a, b] of passages) if (a && b && reached.has(a)) reached.add(b)
  }
  return reached
}
