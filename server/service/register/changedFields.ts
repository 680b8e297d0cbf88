/**
 * What a change really changes, in words: forms send every field, whether it was touched or not.
 * @returns the fields by name, “nothing” where all stayed as it was
 */
export function changedFields(before: object, after: object): string {
  const was = before as Readonly<Record<string, unknown>>
  const changed = Object.entries(after)
    .filter(([key, v]) => v !== undefined && JSON.stringify(v) !== JSON.stringify(was[key] ?? null))
    .map(([key]) => key.replace(/([A-Z])/g, (c) => ` ${c.toLowerCase()}`))
  return changed.join(', ') || 'nothing'
}
