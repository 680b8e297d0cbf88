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

/**
 * What still bars a part’s way out, however far out it stands; none when it can come off. Of two ways out
 * the one with less before it counts. A part that is off bars only by what has gone on over it again.
 */
export function barsLeft(
  parts: readonly MachinePart[],
  id: string,
  off: ReadonlySet<string>,
  above: ReadonlySet<string> = new Set(),
): Set<string> {
  const part = parts.find((p) => p.id === id)
  const within = new Set([...above, id])
  const has = (name: string) => parts.some((p) => p.id === name)
  // The other way is one of the builds that have all of it.
  const other = part?.orBehind?.every(has) ? [part.orBehind] : []
  const ways = [(part?.behind ?? []).filter(has), ...other]
    // What this part itself stands before is no way out for it.
    .filter((way) => !way.some((bar) => above.has(bar)))
  const left = ways.map(
    (way) =>
      new Set(
        way.flatMap((bar) => [
          ...(off.has(bar) ? [] : [bar]),
          ...barsLeft(parts, bar, off, within),
        ]),
      ),
  )
  return left.reduce((least, way) => (way.size < least.size ? way : least), left[0] ?? new Set())
}
