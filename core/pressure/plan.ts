import type { Opening } from '../apparatus'
import { connectedWith, type IsolationSite, type Openings } from './site'
import { isShut, spaceStates } from './states'

/** One thing to do on the way to zero. */
export type PlannedMove =
  | {
      readonly kind: 'shut' | 'vent'
      readonly valve: string
      readonly title: string
      readonly why: string
      /** How fast and how far, where the guide says so. */
      readonly speed?: string
      readonly degree?: string
    }
  | { readonly kind: 'prove'; readonly zone: string; readonly title: string; readonly why: string }

/** What stays as it is, and why. */
export interface LeftAlone {
  readonly valve: string
  readonly title: string
  readonly why: string
}

/** How fast and how far one valve is turned, as a step of a guide says it. */
export interface MoveHint {
  readonly isolate?: string | undefined
  readonly vent?: readonly string[] | undefined
  readonly speed?: string | undefined
  readonly degree?: string | undefined
}

export interface IsolationPlan {
  readonly moves: readonly PlannedMove[]
  readonly leftAlone: readonly LeftAlone[]
}

/**
 * The order in which equipment is made safe, worked out on its spaces: shutoffs that a source comes
 * through, downstream before upstream; then the vents that are no longer fed, downstream to
 * upstream; then zero is proved. A vent that stays fed is left alone.
 * @param hints steps of a guide: they give speed and degree
 */
export function planIsolation(site: IsolationSite, hints: readonly MoveHint[] = []): IsolationPlan {
  const inside = new Set(site.zones.flatMap((z) => z.spaces))
  const downstreamFirst = [...site.valves].reverse()
  const shutoffs = downstreamFirst.filter(
    (v) => v.role === 'shutoff' && cutsOff(site, v.id, inside),
  )
  const shut: Openings = Object.fromEntries(shutoffs.map((v) => [v.id, 'shut' as const]))
  const after = spaceStates(site, shut)
  const fed = downstreamFirst.filter((v) => v.role === 'vent' && after[v.from] === 'live')
  const vents = site.zones.flatMap((z) =>
    downstreamFirst.filter((v) => z.vents.includes(v.id) && !fed.includes(v)),
  )
  const guided = (valve: string) => {
    const hint = hints.find((h) => h.isolate === valve || h.vent?.includes(valve))
    return {
      ...(hint?.speed ? { speed: hint.speed } : {}),
      ...(hint?.degree ? { degree: hint.degree } : {}),
    }
  }
  return {
    moves: [
      ...shutoffs.map((v, n): PlannedMove => ({
        kind: 'shut',
        valve: v.id,
        title: v.title,
        why: n === 0 && shutoffs.length > 1 ? 'Downstream first, so that nothing flows back.' : '',
        ...guided(v.id),
      })),
      ...vents.map((v): PlannedMove => ({
        kind: 'vent',
        valve: v.id,
        title: v.title,
        why: '',
        ...guided(v.id),
      })),
      ...site.zones.map((z, n): PlannedMove => ({
        kind: 'prove',
        zone: z.id,
        title: z.title,
        why:
          n === 0 ? 'A closed pair traps pressure between it; a check or a seat, behind it.' : '',
      })),
    ],
    leftAlone: fed.map((v) => ({
      valve: v.id,
      title: v.title,
      why: 'It stays fed after everything is shut: it is live, leave it shut.',
    })),
  }
}

/** Whether a source reaches the inside through this shutoff. */
function cutsOff(site: IsolationSite, valve: string, inside: ReadonlySet<string>): boolean {
  const others = site.valves.filter((v) => v.role === 'shutoff' && v.id !== valve)
  const onlyThis: Openings = Object.fromEntries(others.map((v) => [v.id, 'shut' as const]))
  const open = spaceStates(site, onlyThis)
  const shut = spaceStates(site, { ...onlyThis, [valve]: 'shut' })
  return [...inside].some((s) => open[s] === 'live' && shut[s] !== 'live')
}

/** Why a valve may not be turned now while making safe, in a sentence that says what to do; or null. */
export function moveRefusal(
  site: IsolationSite,
  openings: Openings,
  valve: string,
  to: Opening,
): string | null {
  const turned = site.valves.find((v) => v.id === valve)
  if (!turned) return null
  const plan = planIsolation(site)
  const left = plan.leftAlone.find((v) => v.valve === valve)
  if (turned.role === 'shutoff') {
    if (to !== 'shut')
      return isShut(site, openings, valve)
        ? `${turned.title} was shut to make this safe. It is opened again in Return.`
        : null
    // What leads in cannot flow back: supplies have no order among each other.
    const leadsOut = new Set(
      site.valves.flatMap((v) => (site.spaces.find((s) => s.id === v.to)?.source ? [v.id] : [])),
    )
    return earlier(
      site,
      openings,
      {
        ...plan,
        moves: plan.moves.filter(
          (m) => m.kind === 'shut' && (m.valve === valve || leadsOut.has(m.valve)),
        ),
      },
      'shut',
      valve,
      (title) => `Shut ${title} first: downstream before upstream, so that nothing flows back.`,
    )
  }
  if (to === 'shut') return null
  if (left) return `${turned.title} is live: it stays fed after everything is shut. Leave it shut.`
  if (spaceStates(site, openings)[turned.from] === 'live') {
    const open = plan.moves.find((m) => m.kind === 'shut' && !isShut(site, openings, m.valve))
    return `${turned.title} is still fed. Shut ${open?.title ?? 'its supply'} first.`
  }
  const zone = site.zones.find((z) => z.vents.includes(valve))
  if (!zone) return null
  const vents = connectedWith(site, zone).flatMap((z) => z.vents)
  return earlier(
    site,
    openings,
    { ...plan, moves: plan.moves.filter((m) => m.kind === 'vent' && vents.includes(m.valve)) },
    'vent',
    valve,
    (title) => `Open ${title} first: cocks and vents from downstream to upstream.`,
  )
}

/** A move of the same kind that the plan has before this one and that is not made yet. */
function earlier(
  site: IsolationSite,
  openings: Openings,
  plan: IsolationPlan,
  kind: 'shut' | 'vent',
  valve: string,
  say: (title: string) => string,
): string | null {
  for (const move of plan.moves) {
    if (move.kind !== kind) continue
    if (move.valve === valve) return null
    const made = isShut(site, openings, move.valve) === (kind === 'shut')
    if (!made) return say(move.title)
  }
  return null
}
