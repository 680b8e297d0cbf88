import type { Machine, MachinePart } from './schema'

/** The parts of one build: those that every one has, and those of the options that were chosen. */
export function partsOf(machine: Machine, options: readonly string[]): MachinePart[] {
  return machine.parts.filter((p) => !p.only || p.only.every((o) => options.includes(o)))
}

/** One option of each group, in every combination; one empty build where there are none. */
export function buildsOf({ options = [] }: Machine): string[][] {
  const groups = [...new Set(options.map((o) => o.group))]
  return groups.reduce<string[][]>(
    (builds, group) =>
      builds.flatMap((build) =>
        options.filter((o) => o.group === group).map((o) => [...build, o.id]),
      ),
    [[]],
  )
}

/** A part’s ways out, each the parts that stand before it, as far as the build has them. */
interface WaysOut {
  readonly ways: readonly (readonly string[])[]
}
const known = new WeakMap<readonly MachinePart[], ReadonlyMap<string, WaysOut>>()

/** Worked out once a build: a prover asks for every part of it again and again. */
function waysOut(parts: readonly MachinePart[]): ReadonlyMap<string, WaysOut> {
  const before = known.get(parts)
  if (before) return before
  const ids = new Set(parts.map((p) => p.id))
  const has = (name: string) => ids.has(name)
  const built = new Map(
    parts.map(({ id, behind = [], orBehind }) => [
      id,
      // The other way is one of the builds that have all of it.
      { ways: [behind.filter(has), ...(orBehind?.every(has) ? [orBehind] : [])] },
    ]),
  )
  known.set(parts, built)
  return built
}

/**
 * What still bars a part’s way out, however far out it stands; none when it can come off. Of two ways out
 * the one with less before it counts. A part that is off bars only by what has gone on over it again.
 */
export function barsLeft(
  parts: readonly MachinePart[],
  id: string,
  off: ReadonlySet<string>,
): Set<string> {
  const out = waysOut(parts)
  const left = (name: string, above: readonly string[]): Set<string> => {
    const within = [...above, name]
    let least: Set<string> | undefined
    for (const way of out.get(name)?.ways ?? []) {
      // What this part itself stands before is no way out for it.
      if (way.some((bar) => above.includes(bar))) continue
      const bars = new Set<string>()
      for (const bar of way) {
        if (!off.has(bar)) bars.add(bar)
        for (const more of left(bar, within)) bars.add(more)
      }
      if (!least || bars.size < least.size) least = bars
    }
    return least ?? new Set()
  }
  return left(id, [])
}
