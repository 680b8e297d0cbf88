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

/** Everything that must be off before a part can come off, however far out. */
export function barsTo(parts: readonly MachinePart[], id: string): Set<string> {
  const found = new Set<string>()
  const look = (name: string) => {
    for (const bar of parts.find((p) => p.id === name)?.behind ?? []) {
      if (found.has(bar) || !parts.some((p) => p.id === bar)) continue
      found.add(bar)
      look(bar)
    }
  }
  look(id)
  return found
}
