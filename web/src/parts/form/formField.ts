export interface Option<V extends string = string> {
  readonly value: V
  readonly text: string
}

/** What kind of control an entry has. */
export type FieldKind =
  | 'line'
  | 'lines'
  | 'number'
  | 'date'
  | 'time'
  | 'password'
  | 'search'
  | 'choice'
  | 'checks'
  | 'switch'

/** How one entry is asked for. */
export interface FieldLook {
  readonly label: string
  readonly kind?: FieldKind | undefined
  readonly options?: readonly Option[] | undefined
  readonly hint?: string | undefined
  readonly mono?: boolean | undefined
  readonly placeholder?: string | undefined
  readonly autocomplete?: string | undefined
  /** Keyboard of a phone; figures are typed on the decimal one. */
  readonly inputmode?: 'decimal' | 'numeric' | 'text' | undefined
  readonly rows?: number | undefined
  readonly disabled?: boolean | undefined
  /** The label is there for those who cannot see the form, where the place says it already. */
  readonly quiet?: boolean | undefined
}

/** One field of a record, under the name that it has in its schema. */
export interface FormField<N extends string = string> extends FieldLook {
  readonly name: N
  /** Takes the whole width. */
  readonly wide?: boolean
}
