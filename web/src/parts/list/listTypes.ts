/** What a list is asked for: words, filters by name, order and the page. */
export interface ListQuery {
  readonly q: string
  readonly filters: Readonly<Record<string, string>>
  /** A column’s key, with a minus before it for the other way; empty for the list’s own order. */
  readonly sort: string
  readonly cursor?: string
}
export interface ListPage<T> {
  readonly items: readonly T[]
  /** Where the next page begins; null at the end. */
  readonly next: string | null
}

export interface Column {
  readonly key: string
  readonly title: string
  readonly sortable?: boolean
  /** Numbers stand right; what is long may be left out on a narrow screen. */
  readonly look?: 'number' | 'wide' | 'nowrap' | 'row-actions'
}

export interface ListFilter {
  readonly name: string
  readonly label: string
  /** What the choice of none says: “Any condition”. */
  readonly all: string
  readonly options: readonly { readonly value: string; readonly text: string }[]
}
