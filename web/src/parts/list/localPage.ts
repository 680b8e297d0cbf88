import type { ListPage, ListQuery } from './listTypes'

interface LocalList<T> {
  /** The words that a row is found by. */
  readonly words: (row: T) => string
  readonly sorts?: Readonly<Record<string, (row: T) => string | number>>
  readonly filters?: Readonly<Record<string, (row: T, value: string) => boolean>>
}

/** A short list that came whole, searched, filtered and ordered as a long one is by the server. */
export function localPage<T>(
  rows: readonly T[],
  { q, filters, sort }: ListQuery,
  { words, sorts = {}, filters: tests = {} }: LocalList<T>,
): ListPage<T> {
  const wanted = q.trim().toLowerCase().split(/\s+/).filter(Boolean)
  const found = rows.filter(
    (row) =>
      wanted.every((w) => words(row).toLowerCase().includes(w)) &&
      Object.entries(filters).every(([name, v]) => !v || (tests[name]?.(row, v) ?? true)),
  )
  const by = sorts[sort.replace(/^-/, '')]
  if (!by) return { items: found, next: null }
  const way = sort.startsWith('-') ? -1 : 1
  const items = found.toSorted((a, b) => {
    const [x, y] = [by(a), by(b)]
    return way * (typeof x === 'string' ? x.localeCompare(String(y)) : x - Number(y))
  })
  return { items, next: null }
}
