/**
 * Says what a change really changes, with what it was and what it is: forms send every field, whether it was touched or
 * not. Nothing of a secret stands in it: that it was changed is all.
 * @returns as “expires on: 2026-01-01 → 2027-01-01”; “nothing” where all stayed as it was
 */
export function changedValues(before: object, after: object): string {
  const was = before as Readonly<Record<string, unknown>>
  const changed = Object.entries(after)
    .filter(([key, v]) => v !== undefined && JSON.stringify(v) !== JSON.stringify(was[key] ?? null))
    .map(([key, v]) => {
      const name = nameOf(key)
      return SECRET.includes(key) ? name : `${name}: ${shown(was[key])} → ${shown(v)}`
    })
  return changed.join('; ') || 'nothing'
}

const SECRET: readonly string[] = ['password', 'access', 'passwordHash']
const nameOf = (key: string) => key.replace(/([A-Z])/g, (c) => ` ${c.toLowerCase()}`)
function shown(value: unknown): string {
  if (value === null || value === undefined || value === '') return '–'
  return typeof value === 'string' ? value : JSON.stringify(value)
}

/**
 * What a change really changes, in words: forms send every field, whether it was touched or not.
 * @returns the fields by name, “nothing” where all stayed as it was
 */
export function changedFields(before: object, after: object): string {
  const was = before as Readonly<Record<string, unknown>>
  const changed = Object.entries(after)
    .filter(([key, v]) => v !== undefined && JSON.stringify(v) !== JSON.stringify(was[key] ?? null))
    .map(([key]) => nameOf(key))
  return changed.join(', ') || 'nothing'
}
