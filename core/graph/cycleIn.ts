/** Names that lead back to where they began, the first at both ends; null where nothing goes round. */
export function cycleIn(leads: ReadonlyMap<string, readonly string[]>): string[] | null {
  const done = new Set<string>()
  const follow = (name: string, way: readonly string[]): string[] | null => {
    if (way.includes(name)) return [...way.slice(way.indexOf(name)), name]
    if (done.has(name)) return null
    for (const next of leads.get(name) ?? []) {
      const found = follow(next, [...way, name])
      if (found) return found
    }
    done.add(name)
    return null
  }
  for (const name of leads.keys()) {
    const found = follow(name, [])
    if (found) return found
  }
  return null
}
