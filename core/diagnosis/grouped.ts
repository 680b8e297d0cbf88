/** Members of one key, of which there is one at least. */
export type Group<T> = readonly [T, ...T[]]

/** A list in groups of the same key, groups and members in the order of the list. */
export function grouped<T>(list: readonly T[], keyOf: (member: T) => string): Group<T>[] {
  const groups = new Map<string, [T, ...T[]]>()
  for (const member of list) {
    const key = keyOf(member)
    const group = groups.get(key)
    if (group) group.push(member)
    else groups.set(key, [member])
  }
  return [...groups.values()]
}
