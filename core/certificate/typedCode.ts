/** What somebody typed from a paper: a code, a number without the letters behind it, or neither. */
export type TypedCode = { readonly code: string } | { readonly numberOnly: string } | null

const NUMBER = /^([A-Z]+)(\d{4})(\d{6})([0-9A-Z]{8})?$/

/**
 * A code as it is kept, however it was typed: with dashes or spaces, in small letters, all in one. The
 * number alone is told from a code, since the letters behind it are what proves the paper.
 */
export function typedCode(typed: string): TypedCode {
  const parts = NUMBER.exec(typed.toUpperCase().replaceAll(/[^0-9A-Z]/g, ''))
  if (!parts) return null
  const [, prefix, year, serial, proof] = parts
  const number = `${prefix}-${year}-${serial}`
  return proof ? { code: `${number}-${proof}` } : { numberOnly: number }
}
