/** One field of a RecordForm. */
export interface FormField {
  readonly name: string
  readonly label: string
  readonly type?: 'text' | 'date' | 'number' | 'password' | 'select' | 'checks' | 'switch'
  readonly options?: readonly { readonly value: string; readonly text: string }[]
  readonly hint?: string
  readonly mono?: boolean
  /** Takes the whole width. */
  readonly wide?: boolean
  readonly autocomplete?: string
}
